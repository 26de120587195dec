<script setup lang="ts">
import { computed } from 'vue';
import { momentOf } from '../../core/place/moment';
import type { KeyRef } from '../../core/document/edits/keys';
import type { Layer } from '../../core/document/schema';
import { followOf } from '../../core/document/edits/follow';
import { valueIn, type ValueEntry } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import { keyBefore, steadyAt, valueAt } from '../../core/time/values';
import { pegPath } from '../controls/peg';
import Peg from '../controls/Peg.vue';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { followPointer } from '../controls/pointer';
import { snapTargets, snapped } from './snap';

/** One animated value under its layer: its keyframes as pegs, with the values written between. */
const props = defineProps<{
  layer: Layer;
  entry: ValueEntry;
  perFrame: number;
  labels: number;
  from: number;
  to: number;
}>();
const bench = useBench();
const store = useProject();
const selection = useSelection();
const SNAP_PIXELS = 6;
/** Pegs nearer than this are drawn as one. */
const CROWDED = 5;

const value = computed(() => valueIn(props.layer, props.entry.path)!);
const link = computed(() => followOf(value.value));
const moment = computed(() => momentOf(store.current(), bench.shot!, props.layer, bench.frame));
const chosen = computed(() => bench.layerId === props.layer.id);

function shown(v: unknown): string {
  if (typeof v === 'number') return String(Math.round(v * props.entry.factor * 10) / 10);
  return Array.isArray(v) && typeof v[0] === 'number' ? v.map(shown).join(', ') : typeof v === 'string' ? v : '';
}
/** Keyframes in view. Found by halving, and thinned where they crowd, so that a row costs the same however many it has. */
const pegs = computed(() => {
  const keys = keysOf(value.value);
  if (!keys.length) return [];
  const start = props.layer.span.start;
  const out: { at: number; x: number; ease: (typeof keys)[number]['ease']; text: string; room: number }[] = [];
  for (
    let i = Math.max(0, keyBefore(keys, props.from - start) - 1);
    i < keys.length && keys[i]!.at <= props.to - start;
    i++
  ) {
    const key = keys[i]!;
    const x = (key.at + start + 0.5) * props.perFrame;
    if (out.length && x - out.at(-1)!.x < CROWDED) continue;
    const next = keys[i + 1];
    out.push({
      at: key.at,
      x,
      ease: key.ease,
      text: shown(key.value),
      room: next ? (next.at - key.at) * props.perFrame - 14 : 80,
    });
  }
  return out;
});
/** The chosen ones of this row. */
const picked = computed(
  () =>
    new Set(
      selection.keys
        .filter((key) => key.layer === props.layer.id && key.path === props.entry.path)
        .map((key) => key.at),
    ),
);
const left = computed(() => Math.max(0, props.from) * props.perFrame);
const drawing = computed(() => {
  const path = (some: typeof pegs.value) =>
    some.map((peg) => pegPath(peg.ease, Math.round((peg.x - left.value) * 10) / 10, 5)).join('');
  return {
    plain: path(pegs.value.filter((peg) => !picked.value.has(peg.at))),
    picked: path(pegs.value.filter((peg) => picked.value.has(peg.at))),
  };
});
/** Keyframes that no frame of the layer shows; they still shape the way to them. */
const outside = computed(
  () => keysOf(value.value).filter((key) => key.at < 0 || key.at >= props.layer.span.length).length,
);
const ref = (at: number): KeyRef => ({ layer: props.layer.id, path: props.entry.path, at });

function drag(event: PointerEvent, at: number): void {
  if (event.button !== 0) return;
  selection.pickKey(ref(at), event.shiftKey || event.ctrlKey);
  if (props.layer.locked || event.shiftKey || event.ctrlKey) return;
  const from = selection.keys;
  const origin = at + props.layer.span.start;
  const targets = snapTargets(bench.shot!, bench.frame, { without: from });
  let moved = 0;
  followPointer(
    event,
    (now) => {
      const by = (now.clientX - event.clientX) / props.perFrame;
      const snap = now.altKey ? null : snapped(origin + by, targets, SNAP_PIXELS / props.perFrame);
      const next = Math.round((snap ?? origin + by) - origin);
      if (next === moved) return;
      moved = next;
      selection.moveBy(moved, from, 'keys');
    },
    (dragged) => {
      store.endGesture();
      if (!dragged) selection.keys = [ref(at)];
    },
  );
}
function press(event: KeyboardEvent, at: number): void {
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
  if (!by || !event.altKey) return;
  event.preventDefault();
  event.stopPropagation();
  selection.pickKey(ref(at), false);
  selection.moveBy(by * (event.shiftKey ? 10 : 1));
}
</script>

<template>
  <div class="value-row" role="group" :aria-label="`${entry.label} of ${layer.name}`">
    <div class="label" :style="{ width: `${labels}px` }">
      <span
        class="name"
        :title="`${entry.group}: ${entry.label}${outside ? `; ${outside} keyframes lie outside the layer and are kept` : ''}`"
        >{{ entry.label }}<template v-if="outside"> · {{ outside }} outside</template></span
      >
      <span class="mono now" :class="{ follows: link }" :title="link ? 'Follows a track' : undefined">{{
        shown(link ? valueAt(value, moment) : steadyAt(value, moment.frame))
      }}</span>
      <Peg v-if="chosen" :path="entry.path" bare />
    </div>
    <div class="track">
      <!-- one drawing for all pegs of the row, however many; the buttons over it are bare -->
      <svg class="drawn" :style="{ left: `${left}px`, width: `${(to - from) * perFrame}px` }" aria-hidden="true">
        <path :d="drawing.plain" />
        <path class="picked" :d="drawing.picked" />
      </svg>
      <template v-for="peg in pegs" :key="peg.at">
        <button
          class="peg-button"
          :style="{ left: `${peg.x - 7}px` }"
          :aria-label="`Keyframe of ${entry.label} at ${peg.at + layer.span.start}`"
          :title="`${entry.label} ${peg.text} at frame ${peg.at + layer.span.start}. Drag to move, Shift for several, double-click to go there`"
          @pointerdown.stop="drag($event, peg.at)"
          @dblclick="bench.seek(peg.at + layer.span.start)"
          @keydown="press($event, peg.at)"
          @keydown.enter.stop.prevent="selection.pickKey(ref(peg.at), $event.shiftKey)"
        ></button>
        <span
          v-if="peg.room > 24"
          class="mono between"
          :style="{ left: `${peg.x + 8}px`, maxWidth: `${peg.room}px` }"
          >{{ peg.text }}</span
        >
      </template>
    </div>
  </div>
</template>

<style scoped>
.value-row {
  contain: layout style;
  display: flex;
  height: 1.5rem;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 55%, transparent);
}
.label {
  position: sticky;
  z-index: 2;
  left: 0;
  flex: none;
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 0 2px 0 26px;
  background: var(--panel);
  border-right: 1px solid var(--line);
  font-size: 0.75rem;
}
.name {
  flex: 1;
  min-width: 0;
  color: var(--dim);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.now {
  font-size: 0.6875rem;
  color: var(--text);
}
.follows {
  color: var(--violet);
}
.track {
  position: relative;
  flex: 1;
  overflow: hidden;
}
.peg-button {
  position: absolute;
  top: 2px;
  display: grid;
  place-items: center;
  width: 0.875rem;
  height: 1.125rem;
  cursor: ew-resize;
  touch-action: none;
}
.drawn {
  position: absolute;
  top: 0;
  height: 1.5rem;
  overflow: visible;
  pointer-events: none;
}
.drawn path {
  fill: var(--chalk);
  stroke: var(--bg);
  stroke-width: 0.6;
}
.drawn .picked {
  fill: var(--brass);
  stroke: var(--text);
}
.between {
  position: absolute;
  top: 4px;
  font-size: 0.625rem;
  color: var(--dim);
  overflow: hidden;
  text-overflow: clip;
  white-space: nowrap;
  pointer-events: none;
}
</style>
