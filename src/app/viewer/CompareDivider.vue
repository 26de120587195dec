<script setup lang="ts">
import { followPointer } from '../controls/pointer';
import type { ViewFrame } from './frame';

/** The line between before and after. */
const props = defineProps<{ frame: ViewFrame }>();
/** share of the picture's width that shows before */
const share = defineModel<number>({ required: true });
const move = (to: number) => (share.value = Math.min(1, Math.max(0, to)));

function drag(event: PointerEvent): void {
  const from = share.value;
  followPointer(event, (now) => move(from + (now.clientX - event.clientX) / props.frame.width));
}
</script>

<template>
  <div
    class="divider"
    role="slider"
    tabindex="0"
    aria-label="Divider between before and after"
    :aria-valuenow="Math.round(share * 100)"
    :style="{ left: `${frame.x + share * frame.width}px`, top: `${frame.y}px`, height: `${frame.height}px` }"
    @pointerdown.stop="drag"
    @keydown.left.stop.prevent="move(share - 0.02)"
    @keydown.right.stop.prevent="move(share + 0.02)"
  >
    <span class="tag left">before</span><span class="tag">after</span>
  </div>
</template>

<style scoped>
.divider {
  position: absolute;
  width: 0.9375rem;
  margin-left: -7px;
  cursor: ew-resize;
  touch-action: none;
  background: linear-gradient(var(--brass), var(--brass)) center / 1px 100% no-repeat;
}
.tag {
  position: absolute;
  bottom: 6px;
  left: 14px;
  padding: 1px 6px;
  background: rgb(0 0 0 / 65%);
  color: #fff;
  font-size: 0.6875rem;
}
.tag.left {
  left: auto;
  right: 14px;
}
</style>
