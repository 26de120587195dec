<script setup lang="ts">
import { computed } from 'vue';
import { frameLayer } from '../../core/document/edits/layers';
import { FRAMING_MOVES, framingOfPlace, framingsOf, inside, spanOf, widest, type Framing, type FramingMove } from '../../core/document/framing';
import { keysOf } from '../../core/document/values';
import { steadyAt } from '../../core/time/values';
import { FRAMING_ROOM, useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import type { ViewFrame } from './frame';

/**
 * The parts of a layer's picture that fill the shot at its start, its end and between, as outlines over the whole source.
 * What is dragged here is written as ordinary place keyframes.
 */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const store = useProject();

const layer = computed(() => bench.layer!);
const shotSize = computed(() => ({ w: bench.shot!.width, h: bench.shot!.height }));
const source = computed(() => bench.size!);
/** The whole source is shown fitted into the picture's area. */
const scale = computed(() => Math.min(props.frame.width / source.value.w, props.frame.height / source.value.h) * FRAMING_ROOM);
const middle = computed(() => ({ x: props.frame.x + props.frame.width / 2, y: props.frame.y + props.frame.height / 2 }));

const MOST = 6;
/** Framings that are set. Frames that only carry the speed between two of them are not shown: every stop has its own frame in `frames`. */
const frames = computed(() => bench.framingAt ?? spanOf(layer.value, bench.shot!));
const stops = computed(() =>
  [...frames.value].map((at) => ({ at, framing: framingOfPlace(steadyAt(layer.value.place.position, at), steadyAt(layer.value.place.scale, at), shotSize.value) })),
);
const boxes = computed(() =>
  stops.value.map(({ at, framing }, i) => {
    const [w, h] = [framing.width * scale.value, (framing.width * shotSize.value.h * scale.value) / shotSize.value.w];
    return { at, framing, i, w, h, x: middle.value.x + framing.x * scale.value - w / 2, y: middle.value.y + framing.y * scale.value - h / 2, name: i === 0 ? 'Start' : i === stops.value.length - 1 ? 'End' : `Stop ${i}` };
  }),
);
const keyed = computed(() => keysOf(layer.value.place.position).length > 0);

function write(changed: { at: number; framing: Framing }[], gesture?: string): void {
  bench.editLayer((project, at) => frameLayer(project, at, changed), gesture);
}
function change(i: number, framing: Framing, gesture?: string): void {
  write(stops.value.map((stop, k) => (k === i ? { ...stop, framing: inside(framing, source.value, shotSize.value) } : stop)), gesture);
}
function drag(event: PointerEvent, i: number, part: 'move' | 'size'): void {
  const { framing } = stops.value[i]!;
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [(now.clientX - event.clientX) / scale.value, (now.clientY - event.clientY) / scale.value];
      if (part === 'move') change(i, { ...framing, x: framing.x + dx, y: framing.y + dy }, 'framing');
      else change(i, { ...framing, width: Math.max(16, framing.width + 2 * dx) }, 'framing');
    },
    () => store.endGesture(),
  );
}
function press(event: KeyboardEvent, i: number): void {
  const step = event.shiftKey ? 10 : 1;
  const { framing } = stops.value[i]!;
  const moves: Record<string, Partial<Framing>> = {
    ArrowLeft: { x: framing.x - step }, ArrowRight: { x: framing.x + step }, ArrowUp: { y: framing.y - step }, ArrowDown: { y: framing.y + step },
    '+': { width: framing.width * 1.02 }, '-': { width: framing.width / 1.02 },
  };
  const move = moves[event.key];
  if (!move) return;
  event.preventDefault();
  event.stopPropagation();
  change(i, { ...framing, ...move });
}
function preset(name: FramingMove): void {
  const [from, to] = framingsOf(name, source.value, shotSize.value);
  const [first, last] = spanOf(layer.value, bench.shot!);
  bench.framingAt = [first, last];
  write([{ at: first, framing: from }, { at: last, framing: to }]);
}
/** A further framing at the playhead, as it is shown there now. */
function addStop(): void {
  const at = bench.frame - layer.value.span.start;
  if (frames.value.includes(at) || frames.value.length >= MOST) return;
  const framing = framingOfPlace(steadyAt(layer.value.place.position, at), steadyAt(layer.value.place.scale, at), shotSize.value);
  const all = [...stops.value, { at, framing }].sort((a, b) => a.at - b.at);
  bench.framingAt = all.map((stop) => stop.at);
  write(all);
}
/** Start and end the same: the widest framing, still. */
function clear(): void {
  bench.framingAt = null;
  write([{ at: 0, framing: { x: 0, y: 0, width: widest(source.value, shotSize.value) } }]);
}
</script>

<template>
  <div class="framing">
    <svg role="group" aria-label="Framings">
      <rect class="source" :x="middle.x - (source.w * scale) / 2" :y="middle.y - (source.h * scale) / 2" :width="source.w * scale" :height="source.h * scale" />
      <line v-for="(box, i) in boxes.slice(1)" :key="box.at" class="way" :x1="boxes[i]!.x + boxes[i]!.w / 2" :y1="boxes[i]!.y + boxes[i]!.h / 2" :x2="box.x + box.w / 2" :y2="box.y + box.h / 2" />
      <g v-for="box in boxes" :key="`box ${box.at}`" :class="{ first: box.i === 0 }">
        <rect class="box" :x="box.x" :y="box.y" :width="box.w" :height="box.h" role="button" tabindex="0" :aria-label="`${box.name} framing`" @pointerdown.stop="drag($event, box.i, 'move')" @keydown="press($event, box.i)" />
        <path class="corner" :d="`M${box.x + box.w - 14} ${box.y + box.h} h14 v-14`" />
        <rect class="grip" :x="box.x + box.w - 9" :y="box.y + box.h - 9" width="18" height="18" role="button" tabindex="0" :aria-label="`Size of the ${box.name.toLowerCase()} framing`" @pointerdown.stop="drag($event, box.i, 'size')" @keydown="press($event, box.i)" />
        <text :x="box.x + 8" :y="box.y + 17 + (box.i % 2) * 16">{{ box.name }} · f {{ box.at + layer.span.start }}</text>
      </g>
    </svg>
    <div class="tools" role="group" aria-label="Framing">
      <button class="plain-button" v-for="move in FRAMING_MOVES" :key="move.name" @click="preset(move.name)">{{ move.label }}</button>
      <button class="plain-button" title="Another framing at the playhead" @click="addStop">Stop here</button>
      <button class="plain-button" :disabled="!keyed" @click="clear">Still</button>
      <button class="plain-button" @click="bench.framing = false">Done</button>
    </div>
  </div>
</template>

<style scoped>
.framing,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.source {
  fill: none;
  stroke: #ffffff;
  stroke-opacity: 0.35;
}
.box {
  fill: rgb(134 182 239 / 7%);
  stroke: #86b6ef;
  stroke-dasharray: 10 4 2 4;
  stroke-width: 1.5;
  cursor: move;
  touch-action: none;
}
.first .box {
  stroke-dasharray: none;
}
.corner {
  fill: none;
  stroke: #86b6ef;
  stroke-width: 4;
  pointer-events: none;
}
.grip {
  fill: transparent;
  cursor: nwse-resize;
  touch-action: none;
}
.way {
  stroke: #86b6ef;
  stroke-opacity: 0.6;
}
text {
  font: 12px 'Archivo Variable', sans-serif;
  fill: #cfe2fa;
  paint-order: stroke;
  stroke: #111;
  stroke-width: 3px;
  pointer-events: none;
}
.tools {
  position: absolute;
  left: 50%;
  bottom: 8px;
  display: flex;
  gap: 4px;
  transform: translateX(-50%);
}
.tools button {
  white-space: nowrap;
}
.tools button:disabled {
  opacity: 0.5;
}
</style>
