<script setup lang="ts">
import { computed } from 'vue';
import { useObjectUrl } from '@vueuse/core';
import { moveLayer, nudgeLayers, trimEnd, trimStart } from '../../core/document/edits/time';
import { groupOf, stockOf, type Layer } from '../../core/document/schema';
import { layerPeaks } from '../../core/sound/layer-peaks';
import Waveform from '../controls/Waveform.vue';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';
import FadeCorner from './FadeCorner.vue';
import LevelLine from './LevelLine.vue';
import { snapTargets, snapped, snappedSpan } from './snap';

/** A layer's span as a bar: moved, trimmed, faded, its keyframes marked. */
const props = defineProps<{
  layer: Layer;
  chosen: boolean;
  perFrame: number;
  labels: number;
  /** frames in view */ from: number;
  to: number;
}>();
const bench = useBench();
const playhead = usePlayhead();
const rows = useRows();
const selection = useSelection();
const store = useProject();
const SNAP_PIXELS = 7;

/** Where its keyframes are, whatever they are of. */
const ticks = computed(() =>
  rows
    .keyFrames(props.layer)
    .filter((frame) => frame + props.layer.span.start >= props.from && frame + props.layer.span.start <= props.to)
    .slice(0, 400),
);

const at = computed(() => ({ shot: bench.shotId!, layer: props.layer.id }));
const stock = computed(() => stockOf(props.layer));
const inside = computed(() => groupOf(props.layer));
const peaks = computed(() => (stock.value && store.media.get(stock.value)?.peaks) || null);
const posterUrl = useObjectUrl(computed(() => (stock.value && store.media.get(stock.value)?.poster) || null));
const missing = computed(() => stock.value !== null && !store.media.has(stock.value));
const bar = computed(() => ({
  left: `${props.layer.span.start * props.perFrame}px`,
  width: `${Math.max(3, props.layer.span.length * props.perFrame)}px`,
}));
/** What is heard along the layer; of a clip that is quiet as a whole the loudest part is at full height. */
const wave = computed(() => {
  const item = store.project?.stock.find((entry) => entry.id === stock.value);
  const { rate } = bench.shot!;
  const frames = ((item?.facts.seconds ?? 0) * rate.num) / rate.den;
  if (!peaks.value || !frames) return null;
  const loudest = Math.max(0.05, ...peaks.value);
  const { time, sound, span } = props.layer;
  const bins = Math.max(1, Math.min(800, Math.round((span.length * props.perFrame) / 2)));
  return layerPeaks(
    peaks.value.map((peak) => peak / loudest),
    frames,
    { length: span.length, time, gain: sound.muted ? { still: 0 } : sound.gain },
    bins,
  );
});

function drag(event: PointerEvent, part: 'move' | 'start' | 'end'): void {
  if (event.button !== 0) return;
  selection.pickLayer(props.layer.id, event.shiftKey || event.ctrlKey);
  if (props.layer.locked) return;
  const { start, length } = props.layer.span;
  const marks = snapTargets(bench.shot!, playhead.frame, { layer: props.layer.id });
  const others = selection.layers;
  let moved = 0;
  followPointer(
    event,
    (now) => {
      const by = (now.clientX - event.clientX) / props.perFrame;
      const reach = now.altKey ? -1 : SNAP_PIXELS / props.perFrame;
      const project = store.current();
      if (part !== 'move') {
        const to = (part === 'start' ? start : start + length) + by;
        selection.snapAt = snapped(to, marks, reach);
        store.edit((part === 'start' ? trimStart : trimEnd)(project, at.value, selection.snapAt ?? to), 'bar');
      } else {
        const next = snappedSpan(start + by, length, marks, reach);
        selection.snapAt = reach < 0 ? null : ([next, next + length].find((end) => marks.includes(end)) ?? null);
        if (others.length < 2) store.edit(moveLayer(project, at.value, next), 'bar');
        else if (next - start !== moved)
          store.edit(nudgeLayers(bench.shot!.id, others, (moved = next - start)), 'bars');
      }
    },
    () => {
      store.endGesture();
      selection.snapAt = null;
    },
  );
}
/** How far a layer goes past the end of the shot, in words. */
const past = computed(() => {
  const { start, length } = props.layer.span;
  const end = bench.shot!.length;
  return start >= end
    ? `begins at ${start}, after the end`
    : start + length > end
      ? `${start + length - end} f past the end`
      : '';
});
/** Arrow keys move the bar, or its end that has the focus, by a frame; with Shift by ten. */
function press(event: KeyboardEvent, part: 'move' | 'start' | 'end'): void {
  const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
  if (!way || event.altKey || event.ctrlKey || props.layer.locked) return;
  event.preventDefault();
  event.stopPropagation();
  const by = way * (event.shiftKey ? 10 : 1);
  const { start, length } = props.layer.span;
  const project = store.current();
  if (part === 'start') store.edit(trimStart(project, at.value, start + by));
  else if (part === 'end') store.edit(trimEnd(project, at.value, start + length + by));
  else store.edit(moveLayer(project, at.value, start + by));
}
</script>

<template>
  <div class="track" :class="{ chosen, hidden: !layer.shown }">
    <div
      class="bar"
      role="group"
      tabindex="0"
      :aria-label="`Bar of ${layer.name}: arrow keys move it`"
      :class="{ missing, locked: layer.locked }"
      :style="bar"
      @keydown="press($event, 'move')"
      @focus="selection.layers.includes(layer.id) || selection.pickLayer(layer.id, false)"
      @dblclick="inside && playhead.step(inside)"
      :title="`${inside ? 'Double-click to open: ' : ''}${layer.name}: frames ${layer.span.start} to ${layer.span.start + layer.span.length - 1}`"
      @pointerdown="drag($event, 'move')"
    >
      <span v-if="wave" class="wave"><Waveform :peaks="wave" absolute /></span>
      <img
        v-if="posterUrl && layer.span.length * perFrame > 90"
        class="poster"
        :src="posterUrl"
        alt=""
        draggable="false"
      />
      <span class="text" :style="{ left: `${labels}px` }">{{
        missing ? `${layer.name}: media missing` : layer.name
      }}</span>
      <span
        class="edge left"
        role="slider"
        tabindex="0"
        :aria-label="`Start of ${layer.name}`"
        :aria-valuenow="layer.span.start"
        @pointerdown.stop="drag($event, 'start')"
        @keydown="press($event, 'start')"
      />
      <span
        class="edge right"
        role="slider"
        tabindex="0"
        :aria-label="`End of ${layer.name}`"
        :aria-valuenow="layer.span.start + layer.span.length - 1"
        @pointerdown.stop="drag($event, 'end')"
        @keydown="press($event, 'end')"
      />
      <LevelLine v-if="wave && !layer.sound.muted" :layer="layer" :per-frame="perFrame" :labels="labels" />
      <FadeCorner :layer="layer" end="in" :per-frame="perFrame" />
      <FadeCorner :layer="layer" end="out" :per-frame="perFrame" />
      <span v-for="frame in ticks" :key="frame" class="tick" :style="{ left: `${(frame + 0.5) * perFrame}px` }" />
    </div>
    <span v-if="past" class="past">{{ past }} ▸</span>
  </div>
</template>

<style scoped>
.tick {
  position: absolute;
  bottom: 1px;
  width: 1px;
  height: 5px;
  background: var(--chalk);
}
.track {
  position: relative;
  flex: 1;
  overflow: clip;
}
.past {
  position: absolute;
  z-index: 1;
  right: 24px;
  top: 4px;
  padding: 0 6px;
  font-size: 0.6875rem;
  line-height: 1.125rem;
  background: color-mix(in srgb, var(--bg) 80%, transparent);
  border-radius: 3px;
  pointer-events: none;
}
.bar {
  display: flex;
  position: absolute;
  top: 3px;
  bottom: 3px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: clip; /* its name stays in view when it is scrolled */
  cursor: grab;
  touch-action: none;
}
/* where a fade can be made shows under the pointer */
.bar:hover :deep(.hold:not(.folded)) {
  opacity: 0.55;
}
.chosen .bar {
  background: var(--brass-soft);
  border-color: var(--brass);
}
.hidden .bar {
  opacity: 0.45;
}
.bar.locked {
  cursor: default;
}
.bar.missing {
  border-color: var(--red);
}
.text {
  position: sticky;
  z-index: 2; /* over a fold */
  pointer-events: none;
  padding: 0 10px;
  font-size: 0.6875rem;
  line-height: 1.125rem;
  color: var(--dim);
  white-space: nowrap;
}
.wave + .text {
  align-self: start;
  background: color-mix(in srgb, var(--raised) 78%, transparent);
  border-radius: 3px;
}
.chosen .text {
  color: var(--text);
}
.missing .text {
  color: var(--red);
}
.poster {
  position: relative;
  height: 100%;
  vertical-align: top;
  opacity: 0.85;
}
.wave {
  position: absolute;
  inset: 1px 0;
  opacity: 0.6;
}
.edge {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: ew-resize;
  touch-action: none;
}
.edge:hover,
.edge:focus-visible {
  background: var(--brass);
}
.locked .edge {
  display: none;
}
.left {
  left: 0;
}
.right {
  right: 0;
}
</style>
