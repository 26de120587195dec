<script setup lang="ts">
import { computed, ref } from 'vue';
import { setLevel } from '../../core/document/edits/layers';
import type { Layer } from '../../core/document/schema';
import type { Value } from '../../core/base/value';
import { MOST_GAIN, SILENT, decibels, levelText, louder } from '../../core/sound/level';
import { steadyAt } from '../../core/time/values';
import { arrowOf } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';

/** The level of a layer's sound as a line over its wave; dragged up or down it is louder or quieter as a whole. */
const props = defineProps<{ layer: Layer; perFrame: number; labels: number }>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const selection = useSelection();
/** A bar is too low to carry 78 dB by its height, so that a drag goes further than the line. */
const DB_PER_PIXEL = 0.25;
/** Most points that a level with keyframes is drawn with. */
const MOST_POINTS = 200;
const dragging = ref(false);

const level = computed(() => props.layer.sound.gain as Value<number>);
const now = computed(() => steadyAt(level.value, playhead.frame - props.layer.span.start));
const high = decibels(MOST_GAIN);
/** Where a level is drawn, from the top: the square root gives the usual ones room. */
const place = (gain: number): number => {
  const share = (high - Math.max(SILENT, decibels(gain))) / (high - SILENT);
  return Math.round(1000 * Math.sqrt(share)) / 10;
};
const points = computed(() => {
  const { length } = props.layer.span;
  if ('still' in level.value) return `0,${place(level.value.still)} ${length},${place(level.value.still)}`;
  const steps = Math.min(MOST_POINTS, length);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const frame = (i / steps) * length;
    return `${frame.toFixed(1)},${place(steadyAt(level.value, frame))}`;
  }).join(' ');
});

const write = (to: Value<number>, gesture?: string): void => {
  if (props.layer.locked || store.readOnly) return;
  store.edit(setLevel(store.current(), { shot: bench.shotId!, layer: props.layer.id }, to), gesture);
};
function drag(event: PointerEvent): void {
  if (event.button !== 0) return;
  selection.pickLayer(props.layer.id, false);
  const begun = level.value;
  followPointer(
    event,
    (moved) => {
      dragging.value = true;
      write(louder(begun, (event.clientY - moved.clientY) * DB_PER_PIXEL), 'level line');
    },
    () => {
      dragging.value = false;
      store.endGesture();
    },
  );
}
/** Arrows up and down by 1 dB, with Shift by ten. */
function press(event: KeyboardEvent): void {
  const by = arrowOf(event);
  if (!by?.[1]) return;
  event.preventDefault();
  event.stopPropagation();
  write(louder(level.value, -by[1]));
}
</script>

<template>
  <svg class="level" :viewBox="`0 0 ${layer.span.length} 100`" preserveAspectRatio="none">
    <polyline class="line" :points="points" />
    <polyline
      class="hold"
      :points="points"
      role="slider"
      tabindex="0"
      :aria-label="`Level of ${layer.name}`"
      :aria-valuenow="Math.round(Math.max(SILENT, decibels(now)))"
      :aria-valuemin="SILENT"
      :aria-valuemax="Math.round(high)"
      :aria-valuetext="levelText(now)"
      @pointerdown.stop="drag"
      @keydown="press"
    >
      <title>Level: {{ levelText(now) }}. Drag up or down</title>
    </polyline>
  </svg>
  <span v-if="dragging" class="said mono" :style="{ left: `${labels + 90}px` }">{{ levelText(now) }}</span>
</template>

<style scoped>
.level {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.level polyline {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.line {
  stroke: var(--text);
  stroke-width: 1px;
  opacity: 0.7;
}
.hold {
  stroke: transparent;
  stroke-width: 7px;
  pointer-events: stroke;
  cursor: ns-resize;
  touch-action: none;
  outline: none;
}
.level:hover .line,
.level:has(.hold:focus-visible) .line {
  stroke: var(--brass);
  stroke-width: 2px;
  opacity: 1;
}
.said {
  position: sticky;
  z-index: 2;
  padding: 0 6px;
  font-size: 0.6875rem;
  line-height: 1.125rem;
  background: var(--bg);
  border-radius: 3px;
  pointer-events: none;
}
</style>
