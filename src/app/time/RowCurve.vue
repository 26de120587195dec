<script setup lang="ts">
import { ref } from 'vue';
import { easeKeys, setKeyValue, type KeyRef } from '../../core/document/edits/keys';
import type { ValueEntry } from '../../core/document/edits/values';
import { pegPath } from '../controls/peg';
import { arrowOf } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { number, useCurvePlot, type PlottedHandle, type PlottedPoint, type RowSpace } from './curve-plot';
import KeyMenu from './KeyMenu.vue';
import { snapTargets, snapped } from './snap';

/** The curves of a row with their keyframes as pegs on them. In a low row pegs move in time; in a grown one up and down too, and they have handles. */
const props = defineProps<RowSpace>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const selection = useSelection();
const plot = useCurvePlot(props);
const { left, paths, changes, points, handles, axis } = plot;
const SNAP_PIXELS = 6;
/** From a peg's top to its point on the curve. */
const HEAD = 3.6;
const menuAt = ref<{ at: [number, number]; frame: number } | null>(null);

const refOf = (entry: ValueEntry, at: number): KeyRef => ({ layer: props.layer.id, path: entry.path, at });
const frameOf = (point: PlottedPoint): number => point.key.at + props.layer.span.start;
const nameOf = (point: PlottedPoint): string => (props.grown && point.curve ? point.curve.name : point.entry.label);

/** Gives a keyframe a higher value. @param by in the units that are shown */
function lift({ curve, entry, key }: PlottedPoint, by: number, gesture?: string): void {
  if (!curve) return;
  const to = Math.min(entry.max, Math.max(entry.min, number(key.value, curve.part) + by / entry.factor));
  store.edit(setKeyValue(bench.shot!.id, refOf(entry, key.at), curve.part, to), gesture);
}
/** Moves a handle from where it is. @param up in the units that are shown */
function bend(handle: PlottedHandle, frames: number, up: number, gesture?: string): void {
  const { curve, key, next, cubic, i, v0, v1 } = handle;
  const changed = [...cubic] as [number, number, number, number];
  changed[i] = Math.min(1, Math.max(0, cubic[i] + frames / (next.at - key.at)));
  if (v1 !== v0) changed[i + 1] = Math.min(20, Math.max(-20, cubic[(i + 1) as 1 | 3] + up / (v1 - v0)));
  store.edit(easeKeys(bench.shot!.id, [refOf(curve.entry, key.at)], { cubic: changed }), gesture);
}

function drag(event: PointerEvent, point: PlottedPoint): void {
  if (event.button !== 0) return;
  const own = refOf(point.entry, point.key.at);
  const more = event.shiftKey || event.ctrlKey;
  selection.pickKey(own, more);
  if (props.layer.locked || more) return;
  const from = selection.keys;
  const origin = frameOf(point);
  const targets = snapTargets(bench.shot!, playhead.frame, { without: from });
  const scale = point.curve && plot.perPixel(point.curve);
  let moved = 0;
  let sideways: boolean | null = props.grown && scale ? null : true;
  plot.hold();
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [now.clientX - event.clientX, now.clientY - event.clientY];
      if (sideways === null && Math.hypot(dx, dy) < 4) return;
      sideways ??= Math.abs(dx) > Math.abs(dy);
      if (!sideways) return lift(point, -dy * scale!, 'curve key');
      const to = origin + dx / props.perFrame;
      selection.snapAt = now.altKey ? null : snapped(to, targets, SNAP_PIXELS / props.perFrame);
      const next = Math.round((selection.snapAt ?? to) - origin);
      if (next !== moved) selection.moveBy((moved = next), from, 'keys');
    },
    (dragged) => {
      plot.release();
      store.endGesture();
      selection.snapAt = null;
      if (!dragged) selection.keys = [own];
    },
  );
}
function dragHandle(event: PointerEvent, handle: PlottedHandle): void {
  if (props.layer.locked) return;
  const scale = plot.perPixel(handle.curve);
  plot.hold();
  followPointer(
    event,
    (now) =>
      bend(
        handle,
        (now.clientX - event.clientX) / props.perFrame,
        (event.clientY - now.clientY) * scale,
        'curve handle',
      ),
    () => {
      plot.release();
      store.endGesture();
    },
  );
}

/** Pixels that a keyframe moves up for an arrow key. */
const UP = 4;
function arrow(event: KeyboardEvent): [number, number] | null {
  const by = props.layer.locked ? null : arrowOf(event);
  if (!by) return null;
  event.stopPropagation();
  event.preventDefault();
  return [by[0], -by[1] * UP];
}
/** Arrows move the keyframe that has the focus, with Shift ten times as far; Enter chooses it. */
function press(event: KeyboardEvent, point: PlottedPoint): void {
  if (event.key === 'Enter') {
    event.stopPropagation();
    event.preventDefault();
    return selection.pickKey(refOf(point.entry, point.key.at), event.shiftKey);
  }
  const by = arrow(event);
  if (!by) return;
  selection.pickKey(refOf(point.entry, point.key.at), false);
  if (by[0]) selection.moveBy(by[0]);
  else if (props.grown && point.curve) lift(point, by[1] * plot.perPixel(point.curve));
}
function pressHandle(event: KeyboardEvent, handle: PlottedHandle): void {
  const by = arrow(event);
  if (by) bend(handle, by[0], by[1] * plot.perPixel(handle.curve));
}
function menu(event: MouseEvent, point: PlottedPoint): void {
  selection.pickKey(refOf(point.entry, point.key.at), false);
  if (selection.keys.length) menuAt.value = { at: [event.clientX, event.clientY], frame: frameOf(point) };
}
const tip = (point: PlottedPoint): string =>
  `${nameOf(point)} at frame ${frameOf(point)}. Drag to move${props.grown ? ', up or down for its value' : ''}; Shift for several; double-click to go there`;
const pegs = (picked: boolean): string =>
  points.value
    .filter((point) => point.picked === picked)
    .map((point) => pegPath(point.key.ease, Math.round(point.x * 10) / 10, Math.round((point.y - HEAD) * 10) / 10))
    .join('');
defineExpose({ curves: plot.curves, ranges: plot.ranges, changes, axis });
</script>

<template>
  <div class="track">
    <!-- one drawing for all curves, one for all pegs, however many; the buttons over them are bare -->
    <svg
      class="drawn"
      :style="{ left: `${left}px`, width: `${(to - Math.max(0, from)) * perFrame}px`, height: `${height}px` }"
      role="group"
      :aria-label="`Curves of ${entries[0]!.label}`"
    >
      <line v-for="line in axis" :key="line.v" class="grid" x1="0" x2="100%" :y1="line.y" :y2="line.y" />
      <path v-for="path in changes" :key="path.curve.id" class="change" :d="path.d" :stroke="path.curve.stroke" />
      <path
        v-for="path in paths"
        :key="path.curve.id"
        class="curve"
        :class="{ grown }"
        :d="path.d"
        :stroke="path.curve.stroke"
        :stroke-dasharray="path.curve.dash"
      />
      <template v-for="handle in handles" :key="`${handle.curve.id} ${handle.key.at} ${handle.i}`">
        <line :x1="handle.fromX" :y1="handle.fromY" :x2="handle.x" :y2="handle.y" class="arm" />
        <circle
          :cx="handle.x"
          :cy="handle.y"
          r="5"
          class="handle"
          role="button"
          tabindex="0"
          :aria-label="`${handle.i === 0 ? 'Leaving' : 'Arriving'} handle of ${handle.curve.name} at ${handle.key.at + layer.span.start}`"
          @pointerdown.stop="dragHandle($event, handle)"
          @keydown="pressHandle($event, handle)"
        />
      </template>
    </svg>
    <button
      v-for="point in points"
      :key="`${point.entry.path} ${point.curve?.part} ${point.index}`"
      class="peg-button"
      :class="{ both: grown && point.curve }"
      :style="{ left: `${left + point.x - 7}px`, top: `${point.y - 7}px` }"
      :aria-label="`Keyframe of ${nameOf(point)} at ${frameOf(point)}`"
      :aria-pressed="point.picked"
      :title="tip(point)"
      @pointerdown.stop="drag($event, point)"
      @dblclick="playhead.seek(frameOf(point))"
      @contextmenu.prevent.stop="menu($event, point)"
      @keydown="press($event, point)"
    ></button>
    <KeyMenu v-if="menuAt" v-bind="menuAt" @close="menuAt = null" />
    <slot />
    <svg
      class="drawn over"
      :style="{ left: `${left}px`, width: `${(to - Math.max(0, from)) * perFrame}px`, height: `${height}px` }"
      aria-hidden="true"
    >
      <path class="pegs" :d="pegs(false)" />
      <path class="pegs picked" :d="pegs(true)" />
    </svg>
  </div>
</template>

<style scoped>
.track {
  position: relative;
  flex: 1;
  overflow: hidden;
}
.drawn {
  position: absolute;
  top: 0;
}
/* pegs lie over the value at the playhead, and that over the curves */
.over {
  z-index: 2;
  pointer-events: none;
}
.grid {
  stroke: var(--line);
}
.curve {
  fill: none;
  stroke-width: 1;
  opacity: 0.75;
}
.curve.grown {
  stroke-width: 1.5;
  opacity: 1;
}
.change {
  fill: none;
  stroke-width: 1;
  stroke-dasharray: 1 3;
  stroke-linecap: round;
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
.pegs {
  fill: var(--chalk);
  stroke: var(--bg);
  stroke-width: 0.6;
  pointer-events: none;
}
.picked {
  fill: var(--brass);
  stroke: var(--text);
}
.peg-button {
  position: absolute;
  z-index: 2;
  width: 0.875rem;
  height: 1.125rem;
  cursor: ew-resize;
  touch-action: none;
}
.peg-button.both {
  cursor: move;
}
</style>
