<script setup lang="ts">
import { computed, ref } from 'vue';
import { setPassValue } from '../../core/document/edits/passes';
import type { Value } from '../../core/document/value';
import { steadyAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import { HANDLE, type ViewFrame } from './frame';
import { useSourceSpace } from './source-space';

/** The crop's four edges on the picture, each with a grip in its middle. */
const props = defineProps<{ frame: ViewFrame; stage: { width: number; height: number } }>();
const bench = useBench();
const player = usePlayer();
const store = useProject();
type Side = 'left' | 'top' | 'right' | 'bottom';

const svg = ref<SVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);
const cut = computed(() => {
  const value = (side: Side) =>
    steadyAt(bench.pass!.values[side] as Value<number>, bench.frame - bench.layer!.span.start);
  return { left: value('left'), top: value('top'), right: value('right'), bottom: value('bottom') };
});
const onStage = (x: number, y: number) => {
  const [u, v] = space.toStage([x - bench.size!.w / 2, y - bench.size!.h / 2]);
  return { x: u, y: v };
};
const edges = computed(() => {
  const { w, h } = bench.size!;
  const { left, top, right, bottom } = cut.value;
  return [onStage(left, top), onStage(w - right, top), onStage(w - right, h - bottom), onStage(left, h - bottom)];
});
const grips = computed(() => {
  const middle = (a: number, b: number) => ({
    x: (edges.value[a]!.x + edges.value[b]!.x) / 2,
    y: (edges.value[a]!.y + edges.value[b]!.y) / 2,
  });
  return { top: middle(0, 1), right: middle(1, 2), bottom: middle(2, 3), left: middle(3, 0) } satisfies Record<
    Side,
    { x: number; y: number }
  >;
});

function drag(event: PointerEvent, side: Side): void {
  const { w, h } = bench.size!;
  const opposite = {
    left: w - cut.value.right,
    right: w - cut.value.left,
    top: h - cut.value.bottom,
    bottom: h - cut.value.top,
  }[side];
  const move = (now: PointerEvent) => {
    const [x, y] = space.at(now);
    const depth = { left: w / 2 + x, right: w / 2 - x, top: h / 2 + y, bottom: h / 2 - y }[side];
    player.touching = true;
    set(side, Math.max(0, Math.min(opposite, Math.round(depth))), true);
  };
  followPointer(event, move, () => {
    player.touching = false;
    store.endGesture();
  });
}
function set(side: Side, value: number, dragging: boolean): void {
  const { id } = bench.pass!;
  bench.editLayer((project, at) => setPassValue(project, at, id, side, value), dragging ? `crop ${side}` : undefined);
}
</script>

<template>
  <svg ref="svg" class="crop" :width="stage.width" :height="stage.height">
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
