<script setup lang="ts">
import { computed, ref } from 'vue';
import { easeKeys, moveKeys, setKeyValue } from '../../core/document/edits/keys';
import type { Ease, Key, Value } from '../../core/document/value';
import { valueIn, type ValueEntry } from '../../core/document/values';
import { steadyAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { followPointer } from '../controls/pointer';

/** Values of the chosen layer as curves over the same time scale as the rows. */
const props = defineProps<{ perFrame: number; labels: number; height: number; from: number; to: number }>();
const bench = useBench();
const store = useProject();
const selection = useSelection();
const hidden = ref(new Set<string>());
const normalised = ref(true);
const speed = ref(false);
const PAD = 14;
const STROKES = ['#86b6ef', '#e0b66a', '#9fc78d', '#d99a8a', '#b7a3de', '#7fc4c0', '#cfcf87', '#d58fb4'];

interface Curve {
  id: string;
  entry: ValueEntry;
  part: number;
  name: string;
  value: Value<unknown> & { keys: Key<unknown>[] };
  stroke: string;
}
const curves = computed<Curve[]>(() => {
  const { layer } = bench;
  if (!layer) return [];
  return selection
    .animated(layer)
    .filter((entry) => entry.parts.length)
    .flatMap((entry) => entry.parts.map((part, i) => ({ id: `${entry.path} ${i}`, entry, part: i, name: part ? `${entry.label} ${part}` : entry.label, value: valueIn(layer, entry.path) as Curve['value'] })))
    .map((curve, i) => ({ ...curve, stroke: STROKES[i % STROKES.length]! }));
});
const shown = computed(() => curves.value.filter((curve) => !hidden.value.has(curve.id)));
const start = computed(() => bench.layer?.span.start ?? 0);
const number = (value: unknown, part: number): number => (typeof value === 'number' ? value : (value as number[])[part]!);
/** What is drawn of a curve at a frame of layer time: its value, or how much it changes in a frame. */
function plotted(curve: Curve, frame: number): number {
  const at = (f: number) => number(steadyAt(curve.value, f), curve.part) * curve.entry.factor;
  return speed.value ? at(frame + 0.5) - at(frame - 0.5) : at(frame);
}
/** Lowest and highest of a curve over its keyframes, with what lies between them. */
const extents = computed(() => {
  const own = new Map<string, [number, number]>();
  for (const curve of shown.value) {
    const { keys } = curve.value;
    const [first, last] = [keys[0]!.at - 1, keys.at(-1)!.at + 1];
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i <= 240; i++) {
      const v = plotted(curve, first + ((last - first) * i) / 240);
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    own.set(curve.id, low === high ? [low - 1, high + 1] : [low, high]);
  }
  if (normalised.value) return own;
  const all: [number, number] = [Math.min(...[...own.values()].map((v) => v[0])), Math.max(...[...own.values()].map((v) => v[1]))];
  return new Map([...own.keys()].map((id) => [id, all]));
});
const x = (frame: number) => (frame + start.value + 0.5) * props.perFrame;
function y(curve: Curve, v: number): number {
  const [low, high] = extents.value.get(curve.id) ?? [0, 1];
  return PAD + (1 - (v - low) / (high - low)) * (props.height - 2 * PAD);
}
const perPixel = (curve: Curve) => {
  const [low, high] = extents.value.get(curve.id) ?? [0, 1];
  return (high - low) / (props.height - 2 * PAD);
};
const paths = computed(() =>
  shown.value.map((curve) => {
    const step = Math.max(0.25, 2 / props.perFrame);
    const points: string[] = [];
    for (let frame = Math.max(-start.value, props.from - start.value); frame <= Math.min(bench.shot!.length, props.to) - start.value; frame += step) points.push(`${x(frame).toFixed(1)} ${y(curve, plotted(curve, frame)).toFixed(1)}`);
    return { curve, d: points.length ? `M${points.join('L')}` : '' };
  }),
);
const keyPoints = computed(() => {
  if (speed.value) return [];
  return shown.value.flatMap((curve) =>
    curve.value.keys
      .filter((key) => key.at + start.value >= props.from && key.at + start.value <= props.to)
      .slice(0, 400)
      .map((key) => ({ curve, key, x: x(key.at), y: y(curve, number(key.value, curve.part) * curve.entry.factor), picked: selection.has({ layer: bench.layerId!, path: curve.entry.path, at: key.at }) })),
  );
});
const handlesOf = (ease: Ease): [number, number, number, number] | null => (typeof ease === 'object' && 'cubic' in ease ? ease.cubic : ease === 'hold' || (typeof ease === 'object' && 'bounce' in ease) ? null : [1 / 3, 1 / 3, 2 / 3, 2 / 3]);
/** Both handles of the spans that a chosen keyframe begins. */
const handles = computed(() =>
  keyPoints.value
    .filter((point) => point.picked)
    .flatMap(({ curve, key }) => {
      const next = curve.value.keys[curve.value.keys.indexOf(key) + 1];
      const cubic = handlesOf(key.ease);
      if (!next || !cubic) return [];
      const [v0, v1] = [number(key.value, curve.part) * curve.entry.factor, number(next.value, curve.part) * curve.entry.factor];
      return ([0, 2] as const).map((i) => {
        const end = i === 0 ? key : next;
        return {
          curve, key, next, cubic, i, v0, v1,
          x: x(key.at + (next.at - key.at) * cubic[i]), y: y(curve, v0 + (v1 - v0) * cubic[(i + 1) as 1 | 3]),
          fromX: x(end.at), fromY: y(curve, number(end.value, curve.part) * curve.entry.factor),
        };
      });
    }),
);
type Handle = (typeof handles.value)[number];
type KeyPoint = (typeof keyPoints.value)[number];

function dragKey(event: PointerEvent, { curve, key }: KeyPoint): void {
  const layer = bench.layer!;
  const refOf = (at: number) => ({ layer: layer.id, path: curve.entry.path, at });
  selection.pickKey(refOf(key.at), event.shiftKey);
  if (layer.locked || event.shiftKey) return;
  const from = number(key.value, curve.part);
  const scale = perPixel(curve) / curve.entry.factor;
  let at = key.at;
  let sideways: boolean | null = null;
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [now.clientX - event.clientX, now.clientY - event.clientY];
      if (sideways === null && Math.hypot(dx, dy) < 4) return;
      sideways ??= Math.abs(dx) > Math.abs(dy);
      if (sideways) {
        const to = key.at + Math.round(dx / props.perFrame);
        if (to === at) return;
        store.edit(moveKeys(bench.shot!.id, [refOf(key.at)], to - key.at), 'curve key');
        at = to;
        selection.keys = [refOf(at)];
      } else store.edit(setKeyValue(bench.shot!.id, refOf(key.at), curve.part, Math.min(curve.entry.max, Math.max(curve.entry.min, from - dy * scale))), 'curve key');
    },
    (moved) => {
      store.endGesture();
      if (!moved) selection.keys = [refOf(key.at)];
    },
  );
}
function dragHandle(event: PointerEvent, { curve, key, next, cubic, i, v0, v1 }: Handle): void {
  if (bench.layer!.locked) return;
  const ref = { layer: bench.layerId!, path: curve.entry.path, at: key.at };
  const scale = perPixel(curve);
  followPointer(
    event,
    (now) => {
      const changed = [...cubic] as [number, number, number, number];
      changed[i] = Math.min(1, Math.max(0, cubic[i] + (now.clientX - event.clientX) / props.perFrame / (next.at - key.at)));
      if (v1 !== v0) changed[i + 1] = Math.min(20, Math.max(-20, cubic[(i + 1) as 1 | 3] - ((now.clientY - event.clientY) * scale) / (v1 - v0)));
      store.edit(easeKeys(bench.shot!.id, [ref], { cubic: changed }), 'curve handle');
    },
    store.endGesture,
  );
}
function toggle(id: string): void {
  const next = new Set(hidden.value);
  if (!next.delete(id)) next.add(id);
  hidden.value = next;
}
const label = ({ curve, key }: { curve: Curve; key: Key<unknown> }) => `${curve.name} at ${key.at + start.value}`;
</script>

<template>
  <div class="curves" :style="{ height: `${height}px` }">
    <div class="list" :style="{ width: `${labels}px` }">
      <template v-if="curves.length">
        <label v-for="curve in curves" :key="curve.id"><input type="checkbox" :checked="!hidden.has(curve.id)" @change="toggle(curve.id)" /><span class="swatch" :style="{ background: curve.stroke }" />{{ curve.name }}</label>
        <hr />
        <label><input v-model="normalised" type="checkbox" />Each over its own range</label>
        <label><input v-model="speed" type="checkbox" />Show speed: change in a frame</label>
      </template>
      <p v-else class="dim">{{ bench.layer ? `Nothing of ${bench.layer.name} is animated yet. The pegs beside the dials do that.` : 'Choose a layer to see its curves.' }}</p>
    </div>
    <svg :width="bench.shot!.length * perFrame" :height="height" role="group" aria-label="Curves">
      <path v-for="path in paths" :key="path.curve.id" class="curve" :d="path.d" :stroke="path.curve.stroke" />
      <template v-for="handle in handles" :key="`${handle.curve.id} ${handle.key.at} ${handle.i}`">
        <line :x1="handle.fromX" :y1="handle.fromY" :x2="handle.x" :y2="handle.y" class="arm" />
        <circle :cx="handle.x" :cy="handle.y" r="5" class="handle" role="button" tabindex="0" :aria-label="`${handle.i === 0 ? 'Leaving' : 'Arriving'} handle of ${label(handle)}`" @pointerdown.stop="dragHandle($event, handle)" />
      </template>
      <rect
        v-for="point in keyPoints"
        :key="`${point.curve.id} ${point.key.at}`"
        :x="point.x - 4"
        :y="point.y - 4"
        width="8"
        height="8"
        class="key"
        :class="{ picked: point.picked }"
        :fill="point.curve.stroke"
        role="button"
        tabindex="0"
        :aria-label="`Keyframe of ${label(point)}`"
        @pointerdown.stop="dragKey($event, point)"
        @keydown.enter.stop.prevent="selection.pickKey({ layer: bench.layerId!, path: point.curve.entry.path, at: point.key.at }, $event.shiftKey)"
      />
    </svg>
  </div>
</template>

<style scoped>
.curves {
  display: flex;
}
.list {
  position: sticky;
  z-index: 2;
  left: 0;
  flex: none;
  padding: 6px 10px;
  background: var(--panel);
  border-right: 1px solid var(--line);
  overflow: auto;
  font-size: 12px;
}
.list label {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 1px 0;
}
.swatch {
  width: 10px;
  height: 3px;
}
hr {
  margin: 6px 0;
  border: 0;
  border-top: 1px solid var(--line);
}
svg {
  display: block;
  background: repeating-linear-gradient(0deg, transparent 0 39px, var(--line) 39px 40px);
}
.curve {
  fill: none;
  stroke-width: 1.5;
}
.arm {
  stroke: var(--dim);
}
.handle {
  fill: var(--bg);
  stroke: var(--text);
  stroke-width: 1.5;
  cursor: move;
  touch-action: none;
}
.key {
  stroke: var(--bg);
  cursor: move;
  touch-action: none;
}
.key.picked {
  stroke: var(--brass);
  stroke-width: 2;
}
</style>
