<script setup lang="ts">
import { computed } from 'vue';
import { followPointer } from '../controls/pointer';
import { useCompare, type DividerWay } from '../stores/compare';
import type { ViewFrame } from './frame';

/** The line between before and after, across the picture; it is dragged by its middle. */
const props = defineProps<{ way: DividerWay; frame: ViewFrame }>();
/** share of the way across that shows before */
const share = defineModel<number>({ required: true });
const compare = useCompare();
const move = (to: number) => (share.value = Math.min(1, Math.max(0, to)));

/** The line's ends and its middle, in the stage's pixels. */
const line = computed(() => {
  const { x, y, width, height } = props.frame;
  const at = share.value;
  const along = at * (width + height);
  const ends: Record<DividerWay, readonly [number, number, number, number]> = {
    upright: [at * width, 0, at * width, height],
    level: [0, at * height, width, at * height],
    slanted: [Math.min(along, width), Math.max(0, along - width), Math.max(0, along - height), Math.min(along, height)],
  };
  const [x1, y1, x2, y2] = ends[props.way];
  return { x1: x + x1, y1: y + y1, x2: x + x2, y2: y + y2 };
});
const middle = computed(() => ({
  left: `${(line.value.x1 + line.value.x2) / 2}px`,
  top: `${(line.value.y1 + line.value.y2) / 2}px`,
}));

function drag(event: PointerEvent): void {
  const from = share.value;
  const { width, height } = props.frame;
  followPointer(event, (now) => {
    const [dx, dy] = [now.clientX - event.clientX, now.clientY - event.clientY];
    move(from + { upright: dx / width, level: dy / height, slanted: (dx + dy) / (width + height) }[props.way]);
  });
}
</script>

<template>
  <svg class="line" aria-hidden="true"><line v-bind="line" /></svg>
  <div
    class="grip"
    :class="way"
    role="slider"
    tabindex="0"
    aria-label="Divider between before and after"
    :aria-orientation="way === 'level' ? 'vertical' : 'horizontal'"
    :aria-valuenow="Math.round(share * 100)"
    :style="middle"
    @pointerdown.stop="drag"
    @keydown.left.stop.prevent="move(share - 0.02)"
    @keydown.up.stop.prevent="move(share - 0.02)"
    @keydown.right.stop.prevent="move(share + 0.02)"
    @keydown.down.stop.prevent="move(share + 0.02)"
  >
    <span class="tag before">{{ compare.named }}</span><span class="knob" /><span class="tag">after</span>
  </div>
</template>

<style scoped>
.line {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
line {
  stroke: var(--brass);
  stroke-width: 1;
}
.grip {
  position: absolute;
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 4px;
  align-items: center;
  width: 30rem;
  transform: translate(-50%, -50%);
  pointer-events: none;
}
.grip > * {
  pointer-events: auto;
}
.grip.level {
  grid-template-columns: none;
  justify-items: center;
}
.knob {
  width: 14px;
  height: 14px;
  border: 2px solid var(--brass);
  border-radius: 50%;
  background: rgb(0 0 0 / 65%);
  cursor: grab;
  touch-action: none;
}
.tag {
  justify-self: start;
  padding: 1px 6px;
  background: rgb(0 0 0 / 65%);
  color: #fff;
  font-size: 0.6875rem;
  pointer-events: none;
}
.tag.before {
  justify-self: end;
}
.level .tag {
  justify-self: center;
}
</style>
