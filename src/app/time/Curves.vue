<script setup lang="ts">
import { easeKeys, moveKeys, setKeyValue } from '../../core/document/edits/keys';
import type { Key } from '../../core/base/value';
import { followPointer } from '../controls/pointer';
import Check from '../controls/Check.vue';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { number, useCurvePlot, type Curve } from './curve-plot';

/** Values of the chosen layer as curves over the same time scale as the rows. */
const props = defineProps<{ perFrame: number; labels: number; height: number; from: number; to: number }>();
const bench = useBench();
const store = useProject();
const selection = useSelection();
const { hidden, normalised, speed, curves, start, perPixel, paths, keyPoints, handles } = useCurvePlot(props);
type Handle = (typeof handles.value)[number];
type KeyPoint = (typeof keyPoints.value)[number];

/** What an arrow key moves by: frames, and pixels upwards. */
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 4],
  ArrowDown: [0, -4],
};
const refOf = (curve: Curve, at: number) => ({ layer: bench.layerId!, path: curve.entry.path, at });

/** Gives a keyframe a higher value. @param by in the units that are shown */
function lift({ curve, key }: KeyPoint, by: number, gesture?: string): void {
  const to = number(key.value, curve.part) + by / curve.entry.factor;
  store.edit(
    setKeyValue(
      bench.shot!.id,
      refOf(curve, key.at),
      curve.part,
      Math.min(curve.entry.max, Math.max(curve.entry.min, to)),
    ),
    gesture,
  );
}
function shift({ curve, key }: KeyPoint, frames: number, gesture?: string): void {
  store.edit(moveKeys(bench.shot!.id, [refOf(curve, key.at)], frames), gesture);
  selection.keys = [refOf(curve, key.at + frames)];
}
/** Moves a handle from where it is. @param up in the units that are shown */
function bend({ curve, key, next, cubic, i, v0, v1 }: Handle, frames: number, up: number, gesture?: string): void {
  const changed = [...cubic] as [number, number, number, number];
  changed[i] = Math.min(1, Math.max(0, cubic[i] + frames / (next.at - key.at)));
  if (v1 !== v0) changed[i + 1] = Math.min(20, Math.max(-20, cubic[(i + 1) as 1 | 3] + up / (v1 - v0)));
  store.edit(easeKeys(bench.shot!.id, [refOf(curve, key.at)], { cubic: changed }), gesture);
}

function dragKey(event: PointerEvent, point: KeyPoint): void {
  const { curve, key } = point;
  const scale = perPixel(curve); // as it is now: the curve's range changes while it is dragged
  selection.pickKey(refOf(curve, key.at), event.shiftKey);
  if (bench.layer!.locked || event.shiftKey) return;
  let frames = 0;
  let sideways: boolean | null = null;
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [now.clientX - event.clientX, now.clientY - event.clientY];
      if (sideways === null && Math.hypot(dx, dy) < 4) return;
      sideways ??= Math.abs(dx) > Math.abs(dy);
      if (!sideways) return lift(point, -dy * scale, 'curve key');
      const to = Math.round(dx / props.perFrame);
      if (to !== frames) shift(point, (frames = to), 'curve key');
    },
    (moved) => {
      store.endGesture();
      if (!moved) selection.keys = [refOf(curve, key.at)];
    },
  );
}
function dragHandle(event: PointerEvent, handle: Handle): void {
  if (bench.layer!.locked) return;
  const scale = perPixel(handle.curve);
  followPointer(
    event,
    (now) =>
      bend(
        handle,
        (now.clientX - event.clientX) / props.perFrame,
        (event.clientY - now.clientY) * scale,
        'curve handle',
      ),
    store.endGesture,
  );
}
/** Arrows move what has the focus; Enter chooses a keyframe. */
function keyOnPoint(event: KeyboardEvent, point: KeyPoint): void {
  const arrow = ARROWS[event.key];
  if (!arrow && event.key !== 'Enter') return;
  event.stopPropagation();
  event.preventDefault();
  if (!arrow) return selection.pickKey(refOf(point.curve, point.key.at), event.shiftKey);
  if (bench.layer!.locked) return;
  if (arrow[0]) shift(point, arrow[0]);
  else lift(point, arrow[1] * perPixel(point.curve));
}
function keyOnHandle(event: KeyboardEvent, handle: Handle): void {
  const arrow = ARROWS[event.key];
  if (!arrow) return;
  event.stopPropagation();
  event.preventDefault();
  if (!bench.layer!.locked) bend(handle, arrow[0], arrow[1] * perPixel(handle.curve));
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
        <div v-for="curve in curves" :key="curve.id" class="item">
          <Check :label="curve.name" :value="!hidden.has(curve.id)" @change="toggle(curve.id)" />
          <span class="swatch" :style="{ background: curve.stroke }" />
        </div>
        <hr />
        <Check label="Each over its own range" :value="normalised" @change="(on) => (normalised = on)" />
        <Check label="Show speed: change in a frame" :value="speed" @change="(on) => (speed = on)" />
      </template>
      <p v-else class="dim">
        {{
          bench.layer
            ? `Nothing of ${bench.layer.name} is animated yet. The pegs beside the dials do that.`
            : 'Choose a layer to see its curves.'
        }}
      </p>
    </div>
    <svg :width="bench.shot!.length * perFrame" :height="height" role="group" aria-label="Curves">
      <path v-for="path in paths" :key="path.curve.id" class="curve" :d="path.d" :stroke="path.curve.stroke" />
      <template v-for="handle in handles" :key="`${handle.curve.id} ${handle.key.at} ${handle.i}`">
        <line :x1="handle.fromX" :y1="handle.fromY" :x2="handle.x" :y2="handle.y" class="arm" />
        <circle
          :cx="handle.x"
          :cy="handle.y"
          r="5"
          class="handle"
          role="button"
          tabindex="0"
          :aria-label="`${handle.i === 0 ? 'Leaving' : 'Arriving'} handle of ${label(handle)}`"
          @pointerdown.stop="dragHandle($event, handle)"
          @keydown="keyOnHandle($event, handle)"
        />
      </template>
      <rect
        v-for="point in keyPoints"
        :key="`${point.curve.id} ${point.index}`"
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
        @keydown="keyOnPoint($event, point)"
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
  font-size: 0.75rem;
}
.item {
  display: flex;
  align-items: center;
  gap: 6px;
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
