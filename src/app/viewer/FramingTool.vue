<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { mdiClose } from '@mdi/js';
import { setFraming } from '../../core/document/edits/layers';
import {
  FRAMING_MOVES,
  framingAt,
  framingOfPlace,
  inside,
  spanOf,
  stopsOf,
  type Framing,
  type FramingMove,
  type FramingStop,
} from '../../core/place/framing';
import { placeAt } from '../../core/place/place';
import type { Ease } from '../../core/base/value';
import { EASINGS } from '../../core/time/easing';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import { FRAMING_ROOM } from '../stores/viewing';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import type { ViewFrame } from './frame';

/**
 * What of a layer's picture fills the shot, and when: stops as numbered tabs on the way of the picture's centre, over the whole source.
 * The chosen stop is clear, the rest is dimmed.
 */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const viewing = useViewing();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();

const layer = computed(() => bench.layer!);
const shotSize = computed(() => ({ w: bench.shot!.width, h: bench.shot!.height }));
const source = computed(() => bench.size!);
/** The whole source is shown fitted into the picture's area. */
const scale = computed(
  () => Math.min(props.frame.width / source.value.w, props.frame.height / source.value.h) * FRAMING_ROOM,
);
const middle = computed(() => ({
  x: props.frame.x + props.frame.width / 2,
  y: props.frame.y + props.frame.height / 2,
}));

const MOST = 24;
/** What is set, or as long as nothing is: what shows now, at the first and the last frame. */
const stops = computed<readonly FramingStop[]>(() => {
  if (layer.value.place.framing) return layer.value.place.framing;
  return spanOf(layer.value, bench.shot!).map((at) => {
    const now = placeAt({ ...playhead.moment, frame: at });
    return { ...framingOfPlace(now.position, now.scale, shotSize.value), at, ease: 'linear' };
  });
});
const index = ref(0);
watch(
  () => stops.value.length,
  (length) => (index.value = Math.min(index.value, length - 1)),
);
const chosen = computed(() => stops.value[index.value]!);

const boxOf = ({ x, y, width }: Framing) => {
  const [w, h] = [width * scale.value, (width * shotSize.value.h * scale.value) / shotSize.value.w];
  const centre = { x: middle.value.x + x * scale.value, y: middle.value.y + y * scale.value };
  return { centre, w, h, x: centre.x - w / 2, y: centre.y - h / 2 };
};
const box = computed(() => boxOf(chosen.value));
/** Tabs of stops with the same middle stand side by side. */
const tabs = computed(() =>
  stops.value.map((stop, i) => {
    const { x, y } = boxOf(stop).centre;
    const beside = stops.value
      .slice(0, i)
      .filter((other) => Math.hypot(boxOf(other).centre.x - x, boxOf(other).centre.y - y) < 24).length;
    return { i, stop, x, y, left: x + beside * 26, name: `Stop ${i + 1}, frame ${stop.at + layer.value.span.start}` };
  }),
);
const ground = computed(() => ({
  x: middle.value.x - (source.value.w * scale.value) / 2,
  y: middle.value.y - (source.value.h * scale.value) / 2,
  w: source.value.w * scale.value,
  h: source.value.h * scale.value,
}));
const rectPath = ({ x, y, w, h }: { x: number; y: number; w: number; h: number }) => `M${x} ${y}h${w}v${h}h${-w}Z`;

const write = (next: readonly FramingStop[], gesture?: string): void =>
  edits.editLayer((project, at) => setFraming(project, at, next), gesture);
function change(i: number, part: Partial<FramingStop>, gesture?: string): void {
  const next = stops.value.map((stop, k) =>
    k === i ? { ...stop, ...part, ...inside({ ...stop, ...part }, source.value, shotSize.value) } : stop,
  );
  const sorted = next.toSorted((a, b) => a.at - b.at);
  if (sorted.some((stop, k) => k > 0 && stop.at === sorted[k - 1]!.at)) return;
  write(sorted, gesture);
  index.value = sorted.indexOf(next[i]!);
}
function drag(event: PointerEvent, i: number, part: 'move' | 'size'): void {
  index.value = i;
  const { x, y, width } = stops.value[i]!;
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [(now.clientX - event.clientX) / scale.value, (now.clientY - event.clientY) / scale.value];
      change(i, part === 'move' ? { x: x + dx, y: y + dy } : { width: Math.max(16, width + 2 * dx) }, 'framing');
    },
    () => store.endGesture(),
  );
}
function press(event: KeyboardEvent, i: number): void {
  const step = event.shiftKey ? 10 : 1;
  const { x, y, width } = stops.value[i]!;
  const moves: Record<string, Partial<Framing>> = {
    ArrowLeft: { x: x - step },
    ArrowRight: { x: x + step },
    ArrowUp: { y: y - step },
    ArrowDown: { y: y + step },
    '+': { width: width * 1.02 },
    '-': { width: width / 1.02 },
  };
  const move = moves[event.key];
  if (event.key === 'Enter' || event.key === ' ') index.value = i;
  else if (event.key === 'Delete') remove(i);
  else if (move) change(i, move);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
const preset = (name: FramingMove): void =>
  write(stopsOf(name, source.value, shotSize.value, spanOf(layer.value, bench.shot!)));
const here = computed(() => playhead.frame - layer.value.span.start);
/** A further stop at the playhead, framed as it shows there now. */
function add(): void {
  const framing = framingAt(stops.value, here.value);
  const next = [
    ...stops.value,
    { x: framing.x, y: framing.y, width: framing.width, at: here.value, ease: 'linear' as const },
  ].sort((a, b) => a.at - b.at);
  write(next);
  index.value = next.findIndex((stop) => stop.at === here.value);
}
function remove(i: number): void {
  if (stops.value.length > 1) write(stops.value.filter((_, k) => k !== i));
}

const PACES: { title: string; value: string; ease: Ease }[] = [
  { title: 'at one pace', value: 'linear', ease: 'linear' },
  { title: 'starting gently', value: 'in', ease: EASINGS.in(0.5) },
  { title: 'ending gently', value: 'out', ease: EASINGS.out(0.5) },
  { title: 'starting and ending gently', value: 'both', ease: EASINGS.both(0.5) },
  { title: 'as a jump', value: 'hold', ease: 'hold' },
];
const pace = computed(
  () => PACES.find(({ ease }) => JSON.stringify(ease) === JSON.stringify(chosen.value.ease))?.value ?? null,
);
const setPace = (value: string): void =>
  change(index.value, { ease: PACES.find((entry) => entry.value === value)!.ease });
</script>

<template>
  <div class="framing">
    <svg role="group" aria-label="Framing stops">
      <path class="dimmed" fill-rule="evenodd" :d="rectPath(ground) + rectPath(box)" />
      <rect
        class="box"
        :x="box.x"
        :y="box.y"
        :width="box.w"
        :height="box.h"
        aria-hidden="true"
        @pointerdown.stop="drag($event, index, 'move')"
      />
      <polyline class="way" :points="tabs.map((tab) => `${tab.x},${tab.y}`).join(' ')" />
      <path class="corner" :d="`M${box.x + box.w - 14} ${box.y + box.h} h14 v-14`" />
      <rect
        class="grip"
        :x="box.x + box.w - 12"
        :y="box.y + box.h - 12"
        width="24"
        height="24"
        role="button"
        tabindex="0"
        :aria-label="`Size of stop ${index + 1}`"
        @pointerdown.stop="drag($event, index, 'size')"
        @keydown="press($event, index)"
      />
      <g
        v-for="tab in tabs"
        :key="tab.i"
        class="tab"
        :class="{ chosen: tab.i === index }"
        role="button"
        tabindex="0"
        :aria-label="tab.name"
        :aria-pressed="tab.i === index"
        @pointerdown.stop="drag($event, tab.i, 'move')"
        @keydown="press($event, tab.i)"
      >
        <rect :x="tab.left - 12" :y="tab.y - 12" width="24" height="24" />
        <text :x="tab.left" :y="tab.y + 5" text-anchor="middle">{{ tab.i + 1 }}</text>
      </g>
    </svg>
    <div class="strip" role="group" aria-label="Framing">
      <div class="line">
        <span class="mono">Stop {{ index + 1 }} of {{ stops.length }}</span>
        <NumberField
          label="Frame of the stop"
          unit="f"
          :value="chosen.at + layer.span.start"
          :rate="bench.shot!.rate"
          :min="-1000000"
          :max="1000000"
          :digits="0"
          @change="(v, d) => change(index, { at: Math.round(v) - layer.span.start }, d ? 'stop' : undefined)"
          @end="store.endGesture"
        />
        <v-select
          v-if="index < stops.length - 1"
          class="pace"
          :model-value="pace"
          :items="PACES"
          label="Goes on"
          placeholder="by its own easing"
          @update:model-value="setPace"
        />
        <IconButton
          :label="`Remove stop ${index + 1}`"
          :icon="mdiClose"
          :disabled="stops.length < 2"
          @click="remove(index)"
        />
        <v-btn size="small" :disabled="stops.some((stop) => stop.at === here) || stops.length >= MOST" @click="add"
          >Stop here</v-btn
        >
        <v-menu>
          <template #activator="{ props: menu }"><v-btn v-bind="menu" size="small">Moves</v-btn></template>
          <v-list
            ><v-list-item v-for="move in FRAMING_MOVES" :key="move.name" :title="move.label" @click="preset(move.name)"
          /></v-list>
        </v-menu>
        <v-btn size="small" color="primary" variant="flat" @click="viewing.framing = false">Done</v-btn>
      </div>
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
.dimmed {
  fill: rgb(0 0 0 / 58%);
  pointer-events: none;
}
.box {
  fill: transparent;
  stroke: #f2f2f2;
  stroke-width: 1;
  cursor: move;
  touch-action: none;
}
.corner {
  fill: none;
  stroke: #f2f2f2;
  stroke-width: 3;
  pointer-events: none;
}
.grip {
  fill: transparent;
  cursor: nwse-resize;
  touch-action: none;
}
.way {
  fill: none;
  stroke: #86b6ef;
  stroke-width: 1.5;
  pointer-events: none;
}
.tab {
  cursor: move;
  touch-action: none;
}
.tab rect {
  fill: #1b1b1b;
  stroke: #86b6ef;
}
.tab text {
  font:
    600 12px 'JetBrains Mono Variable',
    monospace;
  fill: #cfe2fa;
  pointer-events: none;
}
.chosen rect {
  fill: #d8a84a;
  stroke: #d8a84a;
}
.chosen text {
  fill: #161616;
}
.strip {
  position: absolute;
  left: 8px;
  right: 8px;
  bottom: 8px;
  display: grid;
  justify-content: center;
  pointer-events: none;
}
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: center;
  align-items: center;
  gap: 6px;
  padding: 10px 8px 5px; /* the label stands on the upper border of its field */
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  pointer-events: auto;
}
.line > .mono {
  white-space: nowrap;
}
.pace {
  flex: 0 0 11.875rem;
}
</style>
