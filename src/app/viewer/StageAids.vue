<script setup lang="ts">
import { computed, ref } from 'vue';
import { useElementSize } from '@vueuse/core';
import { arrowOf } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import { SAFE, useAids } from '../stores/aids';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import type { ViewFrame } from './frame';

/** Lines on the picture to work by, and rulers beside it that guides are dragged out of. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const aids = useAids();
const store = useProject();
const svg = ref<SVGSVGElement>();
const { width: wide, height: tall } = useElementSize(svg);

type Way = 'upright' | 'level';
const WAYS = ['upright', 'level'] as const;
/** thickness of a ruler in pixels of the screen */
const RULER = 17;
/** Fewest pixels of the screen between numbers of a ruler. */
const APART = 52;

const long = (way: Way): number => (way === 'upright' ? bench.shot!.width : bench.shot!.height);
/** Pixels of the stage for a place from the shot's centre. */
const toStage = (way: Way, place: number): number =>
  (way === 'upright' ? props.frame.x : props.frame.y) + (place + long(way) / 2) * props.frame.scale;
const fromStage = (way: Way, at: number): number =>
  Math.round((at - (way === 'upright' ? props.frame.x : props.frame.y)) / props.frame.scale - long(way) / 2);

const step = computed(() => {
  const least = APART / props.frame.scale;
  const ten = 10 ** Math.floor(Math.log10(least));
  return [1, 2, 5, 10].map((k) => k * ten).find((by) => by >= least && by >= 1) ?? 1;
});
function numbers(way: Way): { place: number; at: number }[] {
  const end = way === 'upright' ? wide.value : tall.value;
  const [first, last] = [fromStage(way, 0), fromStage(way, end)].map((v) => Math.floor(v / step.value));
  return Array.from({ length: Math.max(0, last! - first! + 1) }, (_, i) => (first! + i) * step.value).map((place) => ({
    place,
    at: toStage(way, place),
  }));
}
const areas = computed(() =>
  [SAFE.action, SAFE.text].map((part) => ({
    x: toStage('upright', (-part * long('upright')) / 2),
    y: toStage('level', (-part * long('level')) / 2),
    width: part * props.frame.width,
    height: part * props.frame.height,
  })),
);
const gridPath = computed(() => {
  const { x, y, width, height } = props.frame;
  const ups = aids.gridLines(long('upright')).map((v) => `M${toStage('upright', v)} ${y}v${height}`);
  const levels = aids.gridLines(long('level')).map((v) => `M${x} ${toStage('level', v)}h${width}`);
  return [...ups, ...levels].join('');
});
const guides = computed(() =>
  WAYS.flatMap((way) => aids.guides[way].map((place, i) => ({ way, place, i, at: toStage(way, place) }))),
);

const without = (way: Way, i: number): number[] => aids.guides[way].filter((_, k) => k !== i);
/** Drags a guide, or a new one; back over its ruler it goes away. @param i which; null for a new one */
function drag(event: PointerEvent, way: Way, i: number | null): void {
  if (event.button !== 0 || store.readOnly) return;
  event.preventDefault();
  const bounds = svg.value!.getBoundingClientRect();
  const others = i === null ? aids.guides[way] : without(way, i);
  const gesture = `guide ${way} ${i}`;
  followPointer(
    event,
    (now) => {
      const at = way === 'upright' ? now.clientX - bounds.left : now.clientY - bounds.top;
      const next = at < RULER ? others : [...others, fromStage(way, at)];
      aids.write({ ...aids.guides, [way]: next }, i === null ? 'Add a guide' : 'Move a guide', gesture);
    },
    () => store.endGesture(),
  );
}
function press(event: KeyboardEvent, way: Way, i: number, place: number): void {
  const by = arrowOf(event);
  const away = event.key === 'Delete' || event.key === 'Backspace';
  if ((!by && !away) || store.readOnly) return;
  event.preventDefault();
  event.stopPropagation();
  const moved = by ? aids.guides[way].map((v, k) => (k === i ? place + by[0] + by[1] : v)) : without(way, i);
  aids.write({ ...aids.guides, [way]: moved }, by ? 'Move a guide' : 'Remove a guide');
}
</script>

<template>
  <svg ref="svg" class="aids" role="group" aria-label="Lines on the picture">
    <path v-if="aids.grid" class="grid" :d="gridPath" />
    <template v-if="aids.safe">
      <rect v-for="(area, i) in areas" :key="i" class="safe" v-bind="area" />
    </template>
    <template v-if="aids.rulers">
      <g
        v-for="{ way, place, i, at } in guides"
        :key="`${way} ${i}`"
        class="guide"
        :class="way"
        role="slider"
        tabindex="0"
        :aria-label="`${way === 'upright' ? 'Upright' : 'Level'} guide`"
        :aria-valuenow="place"
        :aria-valuetext="`${place} px`"
        :aria-orientation="way === 'upright' ? 'horizontal' : 'vertical'"
        @pointerdown.stop="drag($event, way, i)"
        @keydown="press($event, way, i, place)"
      >
        <title>{{ place }} px</title>
        <line v-bind="way === 'upright' ? { x1: at, x2: at, y1: 0, y2: tall } : { x1: 0, x2: wide, y1: at, y2: at }" />
        <line
          class="target"
          v-bind="way === 'upright' ? { x1: at, x2: at, y1: 0, y2: tall } : { x1: 0, x2: wide, y1: at, y2: at }"
        />
      </g>
      <g class="ruler level" @pointerdown.stop="drag($event, 'level', null)">
        <title>Drag a level guide out of here</title>
        <rect x="0" y="0" :width="wide" :height="RULER" />
        <template v-for="{ place, at } in numbers('upright')" :key="place">
          <line :x1="at" :x2="at" y1="0" :y2="RULER" />
          <text :x="at + 3" y="11">{{ place }}</text>
        </template>
      </g>
      <g class="ruler upright" @pointerdown.stop="drag($event, 'upright', null)">
        <title>Drag an upright guide out of here</title>
        <rect x="0" y="0" :width="RULER" :height="tall" />
        <template v-for="{ place, at } in numbers('level')" :key="place">
          <line x1="0" :x2="RULER" :y1="at" :y2="at" />
          <text :transform="`translate(11 ${at - 3}) rotate(-90)`">{{ place }}</text>
        </template>
      </g>
    </template>
  </svg>
</template>

<style scoped>
.aids {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.grid {
  fill: none;
  stroke: rgb(255 255 255 / 22%);
}
.safe {
  fill: none;
  stroke: rgb(255 255 255 / 75%);
  stroke-dasharray: 7 5;
}
.guide,
.ruler {
  pointer-events: auto;
}
.guide line {
  stroke: #a4c98a;
}
.guide:focus-visible {
  outline: none;
}
.guide:focus-visible line:first-of-type {
  stroke: #fff;
  stroke-width: 2;
}
.guide .target {
  stroke: transparent;
  stroke-width: 9;
}
.upright {
  cursor: ew-resize;
}
.level {
  cursor: ns-resize;
}
.ruler rect {
  fill: var(--panel);
}
.ruler line {
  stroke: var(--line);
}
.ruler text {
  fill: var(--dim);
  font-size: 0.625rem;
  user-select: none;
}
</style>
