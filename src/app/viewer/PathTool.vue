<script setup lang="ts">
import { computed, ref } from 'vue';
import { isSmooth, segment, type Vertex } from '../../core/masks/path';
import { keysOf } from '../../core/base/value';
import { useBench } from '../stores/bench';
import { useCarrying } from '../stores/carrying';
import { useMasking } from '../stores/masking';
import { MASK_HUES } from '../theme/mask-hues';
import type { ViewFrame, XY } from './frame';
import { useSourceSpace } from './source-space';
import { usePathDrag } from './path-drag';
import { boxOf } from './path-edit';
import GuideLines from './GuideLines.vue';
import PathBox from './PathBox.vue';
import { usePen } from './pen';

/** Draws and edits the chosen path on the composite: points, handles, segments, a marquee, and a box that scales and turns what is chosen. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const masking = useMasking();
const carrying = useCarrying();
const svg = ref<SVGSVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
  () => masking.carried,
);

const pen = usePen(space, () => svg.value!);
const { line } = pen;
const {
  guide,
  marquee,
  closed,
  drawing,
  write,
  end,
  pick,
  dragVertex,
  dragHandle,
  onSegment,
  onBox,
  select,
  convert,
  nudge,
} = usePathDrag(space, () => svg.value!);

const mask = computed(() => masking.mask!);
const path = computed(() => masking.path);
const hue = computed(() => MASK_HUES[mask.value.colour]);
const points = computed(() =>
  path.value.map((v, i) => ({
    i,
    v,
    at: space.toStage([v[0], v[1]]),
    picked: masking.vertices.has(i),
    smooth: isSmooth(v),
  })),
);
const svgPath = (vertices: readonly Vertex[], whole: boolean): string => {
  if (!vertices.length) return '';
  const p = (at: XY) =>
    space
      .toStage(at)
      .map((v) => v.toFixed(1))
      .join(' ');
  const pieces = vertices.slice(0, whole ? undefined : -1).map((_, i) =>
    segment(vertices, i)
      .slice(1)
      .map((at) => p(at))
      .join(', '),
  );
  return `M ${p([vertices[0]![0], vertices[0]![1]])} ${pieces.map((piece) => `C ${piece}`).join(' ')}${whole ? ' Z' : ''}`;
};
const outline = computed(() => svgPath(path.value, closed.value));
/** The shapes of the keyframes next to this frame. */
const onion = computed(() => {
  if (!masking.onion || mask.value.shape.kind !== 'path') return [];
  const keys = keysOf(mask.value.shape.path);
  const before = keys.filter((key) => key.at < masking.frame).slice(-2);
  const after = keys.filter((key) => key.at > masking.frame).slice(0, 2);
  return [...before, ...after].map((key) => ({
    at: key.at,
    past: key.at < masking.frame,
    d: svgPath(key.value as readonly Vertex[], closed.value),
  }));
});
const handles = computed(() =>
  points.value
    .filter((p) => p.picked && p.smooth)
    .flatMap(({ i, v, at }) =>
      (['in', 'out'] as const).map((side) => ({
        i,
        v,
        side,
        from: at,
        at: space.toStage(side === 'in' ? [v[0] + v[2], v[1] + v[3]] : [v[0] + v[4], v[1] + v[5]]),
      })),
    ),
);
const box = computed(() => boxOf(path.value, masking.vertices));
/** What is within the box, in pixels of the stage. */
const boxPoints = computed(() => {
  if (!box.value) return '';
  const { left, right, top, bottom } = box.value;
  const corners: XY[] = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
  return corners.map((at) => space.toStage(at).join(',')).join(' ');
});
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
const close = masking.closeDrawn;
</script>

<template>
  <svg
    ref="svg"
    class="tool"
    :class="{ drawing: drawing || masking.tool === 'freehand' }"
    role="group"
    :aria-label="`Path of ${mask.name} on the picture`"
    @pointerdown="onGround"
  >
    <polygon v-if="box && !drawing" class="inside" :points="boxPoints" @pointerdown.stop="onBox">
      <title>Drag to move the chosen vertices</title>
    </polygon>
    <path v-for="shape in onion" :key="shape.at" class="onion" :class="{ past: shape.past }" :d="shape.d" />
    <path class="shadow" :d="outline" />
    <path class="outline" :d="outline" :style="{ stroke: hue }" />
    <path v-if="!drawing" class="segment" :d="outline" @pointerdown="onSegment">
      <title>Click to add a vertex, drag to move the path</title>
    </path>
    <GuideLines
      :x="guide.x === null ? null : space.toStage([guide.x, 0])[0]"
      :y="guide.y === null ? null : space.toStage([0, guide.y])[1]"
    />
    <polyline
      v-if="line.length"
      class="outline"
      :style="{ stroke: hue }"
      :points="line.map((p) => space.toStage(p).join(',')).join(' ')"
    />
    <PathBox
      v-if="box && !drawing"
      :box="box"
      :path="path"
      :space="space"
      @write="write($event, true)"
      @end="end(false)"
    />
    <template v-for="handle in handles" :key="`${handle.i} ${handle.side}`">
      <line class="arm" :x1="handle.from[0]" :y1="handle.from[1]" :x2="handle.at[0]" :y2="handle.at[1]" />
      <circle
        class="grip"
        :cx="handle.at[0]"
        :cy="handle.at[1]"
        r="5"
        role="button"
        :aria-label="`${handle.side === 'in' ? 'Arriving' : 'Leaving'} handle of vertex ${handle.i + 1}`"
        @pointerdown.stop="dragHandle($event, handle)"
      />
    </template>
    <g
      v-for="point in points"
      :key="point.i"
      class="vertex"
      :class="{ picked: point.picked, weak: carrying.weak.has(point.i) }"
      :transform="`translate(${point.at[0]} ${point.at[1]})`"
      role="button"
      tabindex="0"
      @mousedown.prevent
      :aria-label="`Vertex ${point.i + 1} of ${path.length}`"
      :aria-pressed="point.picked"
      :aria-description="carrying.weak.has(point.i) ? 'hard to find on this frame' : undefined"
      @pointerdown.stop="dragVertex($event, point.i)"
      @dblclick.stop="convert(point.i)"
      @keydown.enter.stop.prevent="
        drawing && point.i === 0 && path.length >= 3 ? close() : pick(point.i, $event.shiftKey)
      "
      @keydown.space.stop.prevent="pick(point.i, true)"
      @keydown.left.stop.prevent="nudge($event, point.i, -1, 0)"
      @keydown.right.stop.prevent="nudge($event, point.i, 1, 0)"
      @keydown.up.stop.prevent="nudge($event, point.i, 0, -1)"
      @keydown.down.stop.prevent="nudge($event, point.i, 0, 1)"
    >
      <circle r="11" class="target" />
      <path v-if="carrying.weak.has(point.i)" class="ring" d="M0 -9.5L9.5 0L0 9.5L-9.5 0z" />
      <circle v-if="point.smooth" r="4.5" class="mark" :style="{ stroke: hue }" />
      <rect v-else x="-4" y="-4" width="8" height="8" class="mark" :style="{ stroke: hue }" />
    </g>
    <rect
      v-if="marquee"
      class="marquee"
      :x="Math.min(marquee.from[0], marquee.to[0])"
      :y="Math.min(marquee.from[1], marquee.to[1])"
      :width="Math.abs(marquee.to[0] - marquee.from[0])"
      :height="Math.abs(marquee.to[1] - marquee.from[1])"
    />
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
.inside {
  fill: transparent;
  cursor: move;
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
.ring {
  fill: none;
  stroke: #ff7b6e;
  stroke-width: 1.6;
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
