<script setup lang="ts">
import { computed } from 'vue';
import type { Layer } from '../../core/document/schema';
import type { Track } from '../../core/document/track';
import { momentOf } from '../../core/place/moment';
import { trackFrameAt } from '../../core/time/track-frame';
import { pointsAt, sampleAt, samplesOf } from '../../core/track/samples';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { rem } from '../controls/rem';
import { CURVE_FROM, useRows } from '../stores/rows';
import { useTracking, WEAK } from '../stores/tracking';
import RowEdge from './RowEdge.vue';

/** A track of a layer's clip as a row: its way as a curve at any height, its weak and lost stretches marked. */
const props = defineProps<{
  layer: Layer;
  track: Track;
  perFrame: number;
  labels: number;
  from: number;
  to: number;
}>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const rows = useRows();
const tracking = useTracking();

const height = computed(() => rem(rows.height(props.track.id)));
/** Most points of a curve, so that a long track costs no more to draw. */
const MOST = 600;

const samples = computed(() =>
  tracking.running?.track === props.track.id ? tracking.samples : samplesOf(props.track),
);
/** The clip's frame at a frame of the shot. */
const frameAt = (at: number): number =>
  trackFrameAt(momentOf(store.current(), bench.shot!, props.layer, at), props.track.rate);
/** Frames of the shot in view on which the layer shows its clip, a few at a time where there are very many. */
const seen = computed(() => {
  const { start, length } = props.layer.span;
  const [first, last] = [Math.max(start, props.from), Math.min(start + length - 1, props.to)];
  const step = Math.max(1, Math.ceil((last - first + 1) / MOST));
  const { first: known, rows } = samples.value;
  return Array.from({ length: Math.max(0, Math.floor((last - first) / step) + 1) }, (_, i) => first + i * step).flatMap(
    (at) => {
      const frame = Math.floor(frameAt(at) + 1e-6);
      if (frame < known || frame >= known + rows.length) return [];
      const row = sampleAt(samples.value, frame);
      const [point] = pointsAt(samples.value, frame) ?? [];
      return point ? [{ x: (at + 0.5) * props.perFrame, point, weak: !row || row.confidence < WEAK, step }] : [];
    },
  );
});
/** How far the first point goes, so that its curves fill the row. */
const extent = computed(() => {
  const values = (part: 0 | 1) => seen.value.map(({ point }) => point[part]);
  return ([0, 1] as const).map((part) => ({ low: Math.min(...values(part)), high: Math.max(...values(part)) }));
});
const left = computed(() => Math.max(0, props.from) * props.perFrame);
function curve(part: 0 | 1): string {
  const { low, high } = extent.value[part]!;
  const room = height.value - 8;
  return seen.value
    .map(
      ({ x, point }) =>
        `${(x - left.value).toFixed(1)},${(4 + room * (high > low ? (high - point[part]) / (high - low) : 0.5)).toFixed(1)}`,
    )
    .join(' ');
}
const weak = computed(() =>
  seen.value
    .filter((entry) => entry.weak)
    .map(({ x, step }) => ({ x: x - left.value - props.perFrame / 2, w: props.perFrame * step })),
);
const now = computed(() => {
  const point = pointsAt(samples.value, frameAt(playhead.frame))?.[0];
  return point ? point.map((v) => Math.round(v * 10) / 10).join(', ') : '';
});

function open(): void {
  bench.choose(props.layer.id, 'place');
  tracking.show(props.track.id);
}
</script>

<template>
  <div
    class="track-row"
    :style="{ height: `${height}px` }"
    role="group"
    :aria-label="`Track ${track.name} of ${layer.name}`"
  >
    <div class="label" :style="{ width: `${labels}px` }">
      <button
        class="name"
        :title="`${track.name}: x solid, y dashed, weak frames in red. Opens the track`"
        @click="open"
      >
        {{ track.name }}
      </button>
      <span class="mono now">{{ now }}</span>
      <span v-if="rows.height(track.id) >= CURVE_FROM" class="mono axis">
        <span>{{ extent[0]!.high.toFixed(0) }}</span><span>{{ extent[0]!.low.toFixed(0) }} px</span>
      </span>
    </div>
    <svg
      v-if="seen.length"
      class="drawn"
      :style="{ left: `${labels + left}px`, width: `${(to - Math.max(0, from)) * perFrame}px`, height: `${height}px` }"
      aria-hidden="true"
    >
      <rect v-for="(part, i) in weak" :key="i" class="weak" :x="part.x" y="0" :width="part.w" :height="height" />
      <polyline class="x" :points="curve(0)" />
      <polyline class="y" :points="curve(1)" />
    </svg>
    <RowEdge :row="track.id" :name="`track ${track.name}`" />
  </div>
</template>

<style scoped>
.track-row {
  contain: layout style;
  position: relative;
  display: flex;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 55%, transparent);
}
.label {
  position: sticky;
  z-index: 2;
  left: 0;
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-content: flex-start;
  align-items: center;
  gap: 6px;
  padding: 2px 2px 0 26px;
  background: var(--panel);
  border-right: 1px solid var(--line);
  font-size: 0.75rem;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  color: var(--violet);
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.now {
  font-size: 0.6875rem;
}
.axis {
  display: grid;
  flex-basis: 100%;
  justify-items: end;
  font-size: 0.625rem;
  color: var(--dim);
}
.drawn {
  position: absolute;
  top: 0;
  pointer-events: none;
}
.drawn polyline {
  fill: none;
  stroke: var(--violet);
  stroke-width: 1.4;
}
.drawn .y {
  stroke: var(--chalk);
  stroke-dasharray: 4 3;
}
.drawn .weak {
  fill: var(--red);
  opacity: 0.3;
}
</style>
