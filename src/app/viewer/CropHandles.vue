<script setup lang="ts">
import { computed } from 'vue';
import { setPassValue } from '../../core/document/edits/passes';
import { placeMatrix } from '../../core/document/place';
import type { Value } from '../../core/document/value';
import { apply, invert } from '../../core/picture/matrix';
import { steadyAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { HANDLE, type ViewFrame } from './frame';

/** The crop's four edges on the picture, each with a grip in its middle. */
const props = defineProps<{ frame: ViewFrame; stage: { width: number; height: number } }>();
const bench = useBench();
const player = usePlayer();
const store = useProject();
type Side = 'left' | 'top' | 'right' | 'bottom';

const matrix = computed(() => placeMatrix(bench.layer!.place, bench.frame - bench.layer!.span.start, bench.size!, { w: bench.shot!.width, h: bench.shot!.height }));
const cut = computed(() => {
  const value = (side: Side) => steadyAt(bench.pass!.values[side] as Value<number>, bench.frame - bench.layer!.span.start);
  return { left: value('left'), top: value('top'), right: value('right'), bottom: value('bottom') };
});
const onStage = (x: number, y: number) => {
  const [u, v] = apply(matrix.value, x, y);
  return { x: props.frame.x + u * props.frame.scale, y: props.frame.y + v * props.frame.scale };
};
const edges = computed(() => {
  const { w, h } = bench.size!;
  const { left, top, right, bottom } = cut.value;
  return [onStage(left, top), onStage(w - right, top), onStage(w - right, h - bottom), onStage(left, h - bottom)];
});
const grips = computed(() => {
  const middle = (a: number, b: number) => ({ x: (edges.value[a]!.x + edges.value[b]!.x) / 2, y: (edges.value[a]!.y + edges.value[b]!.y) / 2 });
  return { top: middle(0, 1), right: middle(1, 2), bottom: middle(2, 3), left: middle(3, 0) } satisfies Record<Side, { x: number; y: number }>;
});

function drag(event: PointerEvent, side: Side): void {
  const grip = event.currentTarget as SVGElement;
  const back = invert(matrix.value);
  if (!back) return;
  grip.setPointerCapture(event.pointerId);
  const bounds = grip.ownerSVGElement!.getBoundingClientRect();
  const { w, h } = bench.size!;
  const opposite = { left: w - cut.value.right, right: w - cut.value.left, top: h - cut.value.bottom, bottom: h - cut.value.top }[side];
  const move = (now: PointerEvent) => {
    const [x, y] = apply(back, (now.clientX - bounds.left - props.frame.x) / props.frame.scale, (now.clientY - bounds.top - props.frame.y) / props.frame.scale);
    const depth = { left: x, right: w - x, top: y, bottom: h - y }[side];
    player.touching = true;
    set(side, Math.max(0, Math.min(opposite, Math.round(depth))), true);
  };
  grip.addEventListener('pointermove', move);
  grip.addEventListener(
    'lostpointercapture',
    () => {
      grip.removeEventListener('pointermove', move);
      player.touching = false;
      store.endGesture();
    },
    { once: true },
  );
}
function set(side: Side, value: number, dragging: boolean): void {
  const { id } = bench.pass!;
  bench.editLayer((project, at) => setPassValue(project, at, id, side, value), dragging ? `crop ${side}` : undefined);
}
</script>

<template>
  <svg class="crop" :width="stage.width" :height="stage.height">
    <polygon :points="edges.map((p) => `${p.x},${p.y}`).join(' ')" fill="none" :stroke="HANDLE.line" />
    <g v-for="(grip, side) in grips" :key="side">
      <rect
        :x="grip.x - 7"
        :y="grip.y - 7"
        width="14"
        height="14"
        :fill="HANDLE.fill"
        :stroke="HANDLE.line"
        tabindex="0"
        role="slider"
        :aria-label="`Crop ${side}`"
        :aria-valuenow="cut[side]"
        @pointerdown="drag($event, side)"
        @keydown.up.stop.prevent="set(side, Math.max(0, cut[side] + (side === 'bottom' ? 1 : -1)), false)"
        @keydown.down.stop.prevent="set(side, Math.max(0, cut[side] + (side === 'bottom' ? -1 : 1)), false)"
        @keydown.left.stop.prevent="set(side, Math.max(0, cut[side] + (side === 'right' ? 1 : -1)), false)"
        @keydown.right.stop.prevent="set(side, Math.max(0, cut[side] + (side === 'right' ? -1 : 1)), false)"
      />
    </g>
  </svg>
</template>

<style scoped>
.crop {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
rect {
  pointer-events: all;
  touch-action: none;
  cursor: move;
}
</style>
