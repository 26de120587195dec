<script setup lang="ts">
import { computed } from 'vue';
import type { Vertex } from '../../core/masks/path';
import { useMasking } from '../stores/masking';
import { followPointer } from '../controls/pointer';
import type { SourceSpace } from './source-space';
import { type XY } from './frame';
import { scaledBy, turnedBy, type Box } from './path-edit';

/** The box about chosen vertices: its corners scale them, its arm turns them. */
const props = defineProps<{ box: Box; path: readonly Vertex[]; space: SourceSpace }>();
const emit = defineEmits<{ write: [path: Vertex[]]; end: [] }>();
const masking = useMasking();

const corners = computed(() => {
  const { left, top, right, bottom } = props.box;
  return (
    [
      [left, top, 'top left'],
      [right, top, 'top right'],
      [right, bottom, 'bottom right'],
      [left, bottom, 'bottom left'],
    ] as const
  ).map(([x, y, name]) => ({
    x,
    y,
    name,
    at: props.space.toStage([x, y]),
    opposite: [left + right - x, top + bottom - y] as const,
  }));
});
const arm = computed(() => {
  const [a, b] = corners.value;
  const [mx, my] = [(a!.at[0] + b!.at[0]) / 2, (a!.at[1] + b!.at[1]) / 2];
  return { from: [mx, my], at: [mx, my - 26] } as const;
});

function scale(event: PointerEvent, { opposite, x, y }: { opposite: XY; x: number; y: number }): void {
  const from = props.path;
  followPointer(
    event,
    (now) => {
      const there = props.space.at(now);
      const by = (k: 0 | 1, at: number) =>
        Math.abs(at - opposite[k]) < 1e-6 ? 1 : (there[k] - opposite[k]) / (at - opposite[k]);
      const [sx, sy] = [by(0, x), by(1, y)];
      const even = Math.max(Math.abs(sx), Math.abs(sy));
      emit(
        'write',
        now.shiftKey
          ? scaledBy(from, masking.vertices, opposite, even, even)
          : scaledBy(from, masking.vertices, opposite, sx, sy),
      );
    },
    () => emit('end'),
  );
}
function turn(event: PointerEvent): void {
  const from = props.path;
  const { left, right, top, bottom } = props.box;
  const about: XY = [(left + right) / 2, (top + bottom) / 2];
  const angle = (at: MouseEvent) => {
    const [x, y] = props.space.at(at);
    return Math.atan2(y - about[1], x - about[0]);
  };
  const start = angle(event);
  followPointer(
    event,
    (now) => emit('write', turnedBy(from, masking.vertices, about, angle(now) - start)),
    () => emit('end'),
  );
}
</script>

<template>
  <g class="box">
    <polygon :points="corners.map((c) => c.at.join(',')).join(' ')" />
    <line :x1="arm.from[0]" :y1="arm.from[1]" :x2="arm.at[0]" :y2="arm.at[1]" />
    <rect
      v-for="grip in corners"
      :key="grip.name"
      :x="grip.at[0] - 5"
      :y="grip.at[1] - 5"
      width="10"
      height="10"
      role="button"
      :aria-label="`Scale the chosen vertices by the ${grip.name}`"
      @pointerdown.stop="scale($event, grip)"
    />
    <circle
      :cx="arm.at[0]"
      :cy="arm.at[1]"
      r="6"
      role="button"
      aria-label="Turn the chosen vertices"
      @pointerdown.stop="turn"
    />
  </g>
</template>

<style scoped>
polygon,
line {
  fill: none;
  stroke: rgb(255 255 255 / 70%);
  pointer-events: none;
}
polygon {
  stroke-dasharray: 4 3;
}
rect,
circle {
  fill: #1b1b1b;
  stroke: #f2f2f2;
  stroke-width: 1.6;
  cursor: move;
  touch-action: none;
}
</style>
