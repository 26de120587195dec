<script setup lang="ts">
import { computed } from 'vue';
import { arrowWay } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import { useBench } from '../stores/bench';
import { useScopes } from '../stores/scopes';
import type { ViewFrame } from './frame';

/** The part of the picture that scopes look at: dragged as a whole, and larger or smaller by its corner. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const scopes = useScopes();
/** Pixels of the shot that a part is at least wide and high. */
const LEAST = 2;

const box = computed(() => {
  const { x, y, w, h } = scopes.part;
  const { frame } = props;
  return {
    left: `${frame.x + x * frame.scale}px`,
    top: `${frame.y + y * frame.scale}px`,
    width: `${w * frame.scale}px`,
    height: `${h * frame.scale}px`,
  };
});
const held = (v: number, least: number, most: number): number => Math.round(Math.min(most, Math.max(least, v)));
function move(x: number, y: number): void {
  const { w, h } = scopes.part;
  const { width, height } = bench.shot!;
  scopes.part = { w, h, x: held(x, 0, width - w), y: held(y, 0, height - h) };
}
function size(w: number, h: number): void {
  const { x, y } = scopes.part;
  const { width, height } = bench.shot!;
  scopes.part = { x, y, w: held(w, LEAST, width - x), h: held(h, LEAST, height - y) };
}
function drag(event: PointerEvent, what: 'move' | 'size'): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const { x, y, w, h } = scopes.part;
  followPointer(event, (now) => {
    const dx = (now.clientX - event.clientX) / props.frame.scale;
    const dy = (now.clientY - event.clientY) / props.frame.scale;
    if (what === 'move') move(x + dx, y + dy);
    else size(w + dx, h + dy);
  });
}
/** Pixels of the shot that a key moves it by. */
const STEP = 4;
function nudge(event: KeyboardEvent): void {
  const way = arrowWay(event);
  if (!way) return;
  event.preventDefault();
  event.stopPropagation();
  const { x, y, w, h } = scopes.part;
  if (event.shiftKey) size(w + way[0] * STEP, h + way[1] * STEP);
  else move(x + way[0] * STEP, y + way[1] * STEP);
}
</script>

<template>
  <div
    class="part"
    role="group"
    tabindex="0"
    aria-label="Part that scopes look at: arrows move it, with Shift they size it"
    :style="box"
    @pointerdown="drag($event, 'move')"
    @keydown="nudge"
  >
    <span class="corner" @pointerdown="drag($event, 'size')" />
  </div>
</template>

<style scoped>
.part {
  position: absolute;
  cursor: move;
  touch-action: none;
  outline: 1px dashed #fff;
  box-shadow: 0 0 0 1px rgb(0 0 0 / 65%);
}
.part:focus-visible {
  outline: 2px solid var(--brass);
}
.corner {
  position: absolute;
  right: -6px;
  bottom: -6px;
  width: 12px;
  height: 12px;
  background: #fff;
  border: 1px solid #000;
  cursor: nwse-resize;
}
</style>
