<script setup lang="ts">
import { computed } from 'vue';
import { bendKey, setKeyValue, type KeyRef } from '../../core/document/edits/keys';
import { carriedBy } from '../../core/place/place';
import type { Key } from '../../core/base/value';
import { keysOf } from '../../core/base/value';
import { apply, invert } from '../../core/picture/matrix';
import { steadyAt } from '../../core/time/values';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { arrowOf } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import type { ViewFrame } from './frame';

/** The way of the chosen layer's position over the picture: a dot for each frame, its keyframes and their handles to drag. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const selection = useSelection();
const PATH = 'place.position';
/** Frames on either side of the playhead that get a dot. */
const DOTS = 150;

const layer = computed(() => bench.layer!);
const value = computed(() => layer.value.place.position);
const start = computed(() => layer.value.span.start);
/** Position values → stage pixels, by way of what the layer follows. */
function stage([px, py]: readonly [number, number]): { x: number; y: number } {
  const { width, height } = bench.shot!;
  const [x, y] = apply(carriedBy(playhead.moment), width / 2 + px, height / 2 + py);
  return { x: props.frame.x + x * props.frame.scale, y: props.frame.y + y * props.frame.scale };
}
/** A move on the stage as a move of the value. */
function unstage(dx: number, dy: number): [number, number] {
  const back = invert(carriedBy(playhead.moment)) ?? [1, 0, 0, 1, 0, 0];
  const [a, b, c, d] = back;
  const [x, y] = [dx / props.frame.scale, dy / props.frame.scale];
  return [a * x + c * y, b * x + d * y];
}
const keys = computed(() => keysOf(value.value) as readonly Key<[number, number]>[]);
const dots = computed(() => {
  const [first, last] = [keys.value[0]!.at, keys.value.at(-1)!.at];
  const now = playhead.frame - start.value;
  const [from, to] = [Math.max(first, now - DOTS), Math.min(last, now + DOTS)];
  return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => ({
    at: from + i,
    ...stage(steadyAt(value.value, from + i)),
  }));
});
const line = computed(() => dots.value.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '));
const ref = (at: number): KeyRef => ({ layer: layer.value.id, path: PATH, at });
const points = computed(() =>
  keys.value.map((key) => ({ key, ...stage(key.value), picked: selection.has(ref(key.at)) })),
);
/** The handles of chosen keyframes; a keyframe without any offers them a third of the way to its neighbours. */
const handles = computed(() =>
  points.value.flatMap(({ key, x, y, picked }) => {
    if (!picked) return [];
    const i = keys.value.indexOf(key);
    const offered = (other: Key<[number, number]> | undefined): [number, number] =>
      other ? [(other.value[0] - key.value[0]) / 3, (other.value[1] - key.value[1]) / 3] : [0, 0];
    const bend = key.bend ?? { in: offered(keys.value[i - 1]), out: offered(keys.value[i + 1]) };
    return (['in', 'out'] as const)
      .filter((side) => keys.value[side === 'in' ? i - 1 : i + 1])
      .map((side) => ({
        key,
        side,
        bend,
        from: { x, y },
        ...stage([key.value[0] + bend[side][0], key.value[1] + bend[side][1]]),
      }));
  }),
);
const tenths = (v: number) => Math.round(v * 10) / 10;

/** Moves what is shown at a keyframe. @param by pixels of the shot */
function moveKey(key: Key<[number, number]>, by: readonly [number, number], gesture?: string): void {
  const { id } = bench.shot!;
  store.edit(
    {
      name: `Move ${layer.value.name} at a keyframe`,
      apply: (draft) =>
        key.value.forEach((v, part) => setKeyValue(id, ref(key.at), part, tenths(v + by[part]!)).apply(draft)),
    },
    gesture,
  );
}
/** Arrows move the keyframe's point by a pixel, with Shift by ten. */
function press(event: KeyboardEvent, key: Key<[number, number]>): void {
  const by = arrowOf(event);
  if (!by || layer.value.locked) return;
  event.preventDefault();
  event.stopPropagation();
  moveKey(key, by);
}
function dragKey(event: PointerEvent, key: Key<[number, number]>): void {
  selection.pickKey(ref(key.at), event.shiftKey);
  if (layer.value.locked || event.shiftKey) return;
  followPointer(
    event,
    (now) => moveKey(key, unstage(now.clientX - event.clientX, now.clientY - event.clientY), 'path key'),
    (moved) => {
      store.endGesture();
      if (!moved) selection.keys = [ref(key.at)];
    },
  );
}
/** Both handles turn together, so that the way stays smooth; Alt moves one alone. */
function dragHandle(event: PointerEvent, { key, side, bend }: (typeof handles.value)[number]): void {
  if (layer.value.locked) return;
  const other = side === 'in' ? 'out' : 'in';
  followPointer(
    event,
    (now) => {
      const [dx, dy] = unstage(now.clientX - event.clientX, now.clientY - event.clientY);
      const own: [number, number] = [tenths(bend[side][0] + dx), tenths(bend[side][1] + dy)];
      const long = Math.hypot(...bend[other]);
      const size = Math.hypot(...own) || 1;
      const turned: [number, number] = now.altKey
        ? bend[other]
        : [tenths((-own[0] / size) * long), tenths((-own[1] / size) * long)];
      store.edit(
        bendKey(bench.shot!.id, ref(key.at), side === 'in' ? { in: own, out: turned } : { in: turned, out: own }),
        'bend',
      );
    },
    store.endGesture,
  );
}
</script>

<template>
  <svg class="path" role="group" aria-label="Motion path">
    <polyline :points="line" />
    <circle
      v-for="dot in dots"
      :key="dot.at"
      :cx="dot.x"
      :cy="dot.y"
      :r="dot.at === playhead.frame - start ? 3.5 : 1.6"
      class="dot"
      :class="{ now: dot.at === playhead.frame - start }"
    />
    <template v-for="handle in handles" :key="`${handle.key.at} ${handle.side}`">
      <line :x1="handle.from.x" :y1="handle.from.y" :x2="handle.x" :y2="handle.y" />
      <circle
        :cx="handle.x"
        :cy="handle.y"
        r="5.5"
        class="handle"
        role="button"
        tabindex="0"
        :aria-label="`${handle.side === 'in' ? 'Arriving' : 'Leaving'} handle of the path at ${handle.key.at + start}`"
        @pointerdown.stop="dragHandle($event, handle)"
        @dblclick.stop="store.edit(bendKey(bench.shot!.id, ref(handle.key.at), null))"
      />
    </template>
    <rect
      v-for="point in points"
      :key="point.key.at"
      :x="point.x - 5"
      :y="point.y - 5"
      width="10"
      height="10"
      class="key"
      :class="{ picked: point.picked }"
      role="button"
      tabindex="0"
      :aria-label="`Path keyframe at ${point.key.at + start}`"
      @pointerdown.stop="dragKey($event, point.key)"
      @dblclick.stop="playhead.seek(point.key.at + start)"
      @keydown.enter.stop.prevent="selection.pickKey(ref(point.key.at), $event.shiftKey)"
      @keydown="press($event, point.key)"
    />
  </svg>
</template>

<style scoped>
.path {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polyline {
  fill: none;
  stroke: #86b6ef;
  stroke-opacity: 0.55;
}
line {
  stroke: #86b6ef;
}
.dot {
  fill: #86b6ef;
}
.dot.now {
  fill: #d8a84a;
}
.key,
.handle {
  fill: #1b1b1b;
  stroke: #86b6ef;
  stroke-width: 1.6;
  pointer-events: all;
  cursor: move;
  touch-action: none;
}
.key.picked {
  stroke: #d8a84a;
}
</style>
