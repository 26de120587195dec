<script setup lang="ts">
import { computed, ref } from 'vue';
import { insertVertex, setPath } from '../../core/document/edits/masks';
import { converted, isSmooth, nearestOn, segment, type Vertex } from '../../core/masks/path';
import { keysOf } from '../../core/document/values';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { followPointer } from '../time/pointer';
import { usePullToEdges } from './edges';
import { type ViewFrame, type XY, tenths } from './frame';
import { MASK_HUES, useMaskSpace } from './mask-space';
import { boxOf, movedBy, SNAP, snapPoint, withHandle } from './path-edit';
import PathBox from './PathBox.vue';
import { usePen } from './pen';

/** Draws and edits the chosen path on the composite: points, handles, segments, a marquee, and a box that scales and turns what is chosen. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const masking = useMasking();
const store = useProject();
const player = usePlayer();
const svg = ref<SVGSVGElement>();
const space = useMaskSpace(() => props.frame, () => svg.value);
const pulled = usePullToEdges();
const guide = ref<{ x: number | null; y: number | null }>({ x: null, y: null });
const marquee = ref<{ from: XY; to: XY } | null>(null);

const pen = usePen(space, () => svg.value!);
const { line } = pen;

const mask = computed(() => masking.mask!);
const path = computed(() => masking.path);
const closed = computed(() => mask.value.shape.kind === 'path' && mask.value.shape.closed);
const drawing = computed(() => masking.tool === 'points' && !closed.value);
const hue = computed(() => MASK_HUES[mask.value.colour]);
const points = computed(() => path.value.map((v, i) => ({ i, v, at: space.toStage([v[0], v[1]]), picked: masking.vertices.has(i), smooth: isSmooth(v) })));
const svgPath = (vertices: readonly Vertex[], whole: boolean): string => {
  if (!vertices.length) return '';
  const p = (at: XY) => space.toStage(at).map((v) => v.toFixed(1)).join(' ');
  const pieces = vertices.slice(0, whole ? undefined : -1).map((_, i) => segment(vertices, i).slice(1).map((at) => p(at)).join(', '));
  return `M ${p([vertices[0]![0], vertices[0]![1]])} ${pieces.map((piece) => `C ${piece}`).join(' ')}${whole ? ' Z' : ''}`;
};
const outline = computed(() => svgPath(path.value, closed.value));
/** The shapes of the keyframes next to this frame. */
const onion = computed(() => {
  if (!masking.onion || mask.value.shape.kind !== 'path') return [];
  const keys = keysOf(mask.value.shape.path);
  const before = keys.filter((key) => key.at < masking.frame).slice(-2);
  const after = keys.filter((key) => key.at > masking.frame).slice(0, 2);
  return [...before, ...after].map((key) => ({ at: key.at, past: key.at < masking.frame, d: svgPath(key.value as readonly Vertex[], closed.value) }));
});
const handles = computed(() =>
  points.value.filter((p) => p.picked && p.smooth).flatMap(({ i, v, at }) => (['in', 'out'] as const).map((side) => ({ i, v, side, from: at, at: space.toStage(side === 'in' ? [v[0] + v[2], v[1] + v[3]] : [v[0] + v[4], v[1] + v[5]]) }))),
);
const box = computed(() => boxOf(path.value, masking.vertices));
function write(next: readonly Vertex[], dragging: boolean): void {
  if (dragging) player.touching = true;
  const { id } = mask.value;
  bench.editLayer((project, at) => setPath(project, at, id, next, masking.pathReach), dragging ? `path ${id}` : undefined);
}
/** Ends a drag; with the option on, what was moved goes on to the nearest strong edge. */
async function end(moved = true): Promise<void> {
  player.touching = false;
  guide.value = { x: null, y: null };
  if (moved && masking.pull && closed.value) {
    const next = await pulled(path.value, masking.vertices.size ? masking.vertices : new Set(path.value.keys()));
    if (next) write(next, true);
  }
  store.endGesture();
}

function pick(i: number, add: boolean): void {
  const next = new Set(add ? masking.vertices : masking.vertices.has(i) ? masking.vertices : []);
  if (add && next.has(i)) next.delete(i);
  else next.add(i);
  masking.vertices = next;
}

function dragVertex(event: PointerEvent, i: number): void {
  if (event.button !== 0) return;
  if (drawing.value && i === 0 && path.value.length >= 3) return close();
  pick(i, event.shiftKey);
  if (event.shiftKey || bench.layer?.locked) return;
  const from = path.value;
  const start = from[i]!;
  const others = from.filter((_, k) => !masking.vertices.has(k)).map((v) => [v[0], v[1]] as const);
  followPointer(
    event,
    (now) => {
      const there = space.at(now);
      const begun = space.at(event);
      const aim: XY = [start[0] + there[0] - begun[0], start[1] + there[1] - begun[1]];
      const snap = now.ctrlKey ? { point: aim, x: null, y: null } : snapPoint(aim, others, bench.size!, SNAP * space.perStage.value);
      guide.value = { x: snap.x, y: snap.y };
      write(movedBy(from, masking.vertices, snap.point[0] - start[0], snap.point[1] - start[1]), true);
    },
    (moved) => {
      if (!moved) masking.vertices = new Set([i]);
      void end(moved);
    },
  );
}
function dragHandle(event: PointerEvent, { i, v, side }: { i: number; v: Vertex; side: 'in' | 'out' }): void {
  const from = path.value;
  followPointer(
    event,
    (now) => {
      const [x, y] = space.at(now);
      write(from.map((old, k) => (k === i ? withHandle(v, side, [tenths(x - v[0]), tenths(y - v[1])], now.altKey) : old)), true);
    },
    () => void end(false),
  );
}
/** On a segment: a click puts a vertex in, a drag moves the whole path. */
function onSegment(event: PointerEvent): void {
  if (event.button !== 0 || drawing.value) return;
  event.stopPropagation();
  const from = path.value;
  const { id } = mask.value;
  const all = new Set(from.keys());
  const begun = space.at(event);
  followPointer(
    event,
    (now) => {
      const there = space.at(now);
      write(movedBy(from, all, tenths(there[0] - begun[0]), tenths(there[1] - begun[1])), true);
    },
    (moved) => {
      if (moved) return void end();
      const found = nearestOn(from, ...begun);
      if (!found || found.t < 0.01 || found.t > 0.99) return;
      bench.editLayer((project, at) => insertVertex(project, at, id, found.segment, found.t));
      masking.vertices = new Set([found.segment + 1]);
    },
  );
}

function onGround(event: PointerEvent): void {
  if (event.button !== 0 || bench.layer?.locked) return;
  (document.activeElement as HTMLElement | null)?.blur();
  if (drawing.value) drawPoint(event);
  else if (masking.tool === 'freehand' && !path.value.length) pen.freehand(event);
  else select(event);
}
function drawPoint(event: PointerEvent): void {
  if (!pen.point(event, points.value[0]?.at)) close();
}
function select(event: PointerEvent): void {
  const begun = stagePoint(event);
  followPointer(
    event,
    (now) => (marquee.value = { from: begun, to: stagePoint(now) }),
    (moved) => {
      const area = marquee.value;
      marquee.value = null;
      if (!moved || !area) return void (masking.vertices = new Set());
      const [x0, x1] = [Math.min(area.from[0], area.to[0]), Math.max(area.from[0], area.to[0])];
      const [y0, y1] = [Math.min(area.from[1], area.to[1]), Math.max(area.from[1], area.to[1])];
      const inside = points.value.filter(({ at }) => at[0] >= x0 && at[0] <= x1 && at[1] >= y0 && at[1] <= y1).map((p) => p.i);
      masking.vertices = new Set([...(event.shiftKey ? masking.vertices : []), ...inside]);
    },
  );
}
function stagePoint(event: MouseEvent): XY {
  const bounds = svg.value!.getBoundingClientRect();
  return [event.clientX - bounds.left, event.clientY - bounds.top];
}
const close = masking.closeDrawn;
function convert(i: number): void {
  write(path.value.map((v, k) => (k === i ? converted(path.value, i, isSmooth(v) ? 'corner' : 'smooth') : v)), false);
}
function nudge(event: KeyboardEvent, i: number, dx: number, dy: number): void {
  const far = event.shiftKey ? 10 : 1;
  if (!masking.vertices.has(i)) masking.vertices = new Set([i]);
  write(movedBy(path.value, masking.vertices, dx * far, dy * far), false);
}
</script>

<template>
  <svg ref="svg" class="tool" :class="{ drawing: drawing || masking.tool === 'freehand' }" role="group" :aria-label="`Path of ${mask.name} on the picture`" @pointerdown="onGround">
    <path v-for="shape in onion" :key="shape.at" class="onion" :class="{ past: shape.past }" :d="shape.d" />
    <path class="shadow" :d="outline" />
    <path class="outline" :d="outline" :style="{ stroke: hue }" />
    <path v-if="!drawing" class="segment" :d="outline" @pointerdown="onSegment"><title>Click to add a vertex, drag to move the path</title></path>
    <line v-if="guide.x !== null" class="guide" :x1="space.toStage([guide.x, 0])[0]" y1="0" :x2="space.toStage([guide.x, 0])[0]" y2="100%" />
    <line v-if="guide.y !== null" class="guide" x1="0" :y1="space.toStage([0, guide.y])[1]" x2="100%" :y2="space.toStage([0, guide.y])[1]" />
    <polyline v-if="line.length" class="outline" :style="{ stroke: hue }" :points="line.map((p) => space.toStage(p).join(',')).join(' ')" />
    <PathBox v-if="box && !drawing" :box="box" :path="path" :space="space" @write="write($event, true)" @end="end(false)" />
    <template v-for="handle in handles" :key="`${handle.i} ${handle.side}`">
      <line class="arm" :x1="handle.from[0]" :y1="handle.from[1]" :x2="handle.at[0]" :y2="handle.at[1]" />
      <circle class="grip" :cx="handle.at[0]" :cy="handle.at[1]" r="5" role="button" :aria-label="`${handle.side === 'in' ? 'Arriving' : 'Leaving'} handle of vertex ${handle.i + 1}`" @pointerdown.stop="dragHandle($event, handle)" />
    </template>
    <g
      v-for="point in points"
      :key="point.i"
      class="vertex"
      :class="{ picked: point.picked }"
      :transform="`translate(${point.at[0]} ${point.at[1]})`"
      role="button"
      tabindex="0"
      @mousedown.prevent
      :aria-label="`Vertex ${point.i + 1} of ${path.length}`"
      :aria-pressed="point.picked"
      @pointerdown.stop="dragVertex($event, point.i)"
      @dblclick.stop="convert(point.i)"
      @keydown.enter.stop.prevent="drawing && point.i === 0 && path.length >= 3 ? close() : pick(point.i, $event.shiftKey)"
      @keydown.space.stop.prevent="pick(point.i, true)"
      @keydown.left.stop.prevent="nudge($event, point.i, -1, 0)"
      @keydown.right.stop.prevent="nudge($event, point.i, 1, 0)"
      @keydown.up.stop.prevent="nudge($event, point.i, 0, -1)"
      @keydown.down.stop.prevent="nudge($event, point.i, 0, 1)"
    >
      <circle r="11" class="target" />
      <circle v-if="point.smooth" r="4.5" class="mark" :style="{ stroke: hue }" />
      <rect v-else x="-4" y="-4" width="8" height="8" class="mark" :style="{ stroke: hue }" />
    </g>
    <rect v-if="marquee" class="marquee" :x="Math.min(marquee.from[0], marquee.to[0])" :y="Math.min(marquee.from[1], marquee.to[1])" :width="Math.abs(marquee.to[0] - marquee.from[0])" :height="Math.abs(marquee.to[1] - marquee.from[1])" />
  </svg>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
}
.drawing {
  cursor: crosshair;
}
path,
polyline,
line {
  fill: none;
  pointer-events: none;
}
.shadow {
  stroke: rgb(0 0 0 / 60%);
  stroke-width: 3.5;
}
.outline {
  stroke-width: 1.6;
}
.segment {
  stroke: transparent;
  stroke-width: 13;
  pointer-events: stroke;
  cursor: copy;
}
.onion {
  stroke: #86b6ef;
  stroke-dasharray: 5 4;
  opacity: 0.8;
}
.onion.past {
  stroke: #d8a84a;
}
.guide {
  stroke: #d8a84a;
  stroke-dasharray: 3 3;
}
.arm {
  stroke: rgb(255 255 255 / 70%);
}
.grip,
.mark {
  fill: #1b1b1b;
  stroke: #f2f2f2;
  stroke-width: 1.6;
}
.grip,
.vertex {
  cursor: move;
  touch-action: none;
}
.target {
  fill: transparent;
}
.picked .mark {
  fill: #d8a84a;
}
.marquee {
  fill: rgb(216 168 74 / 15%);
  stroke: #d8a84a;
  pointer-events: none;
}
</style>
