<script setup lang="ts">
import { computed, inject, onBeforeUnmount, onMounted, ref } from 'vue';
import { arrowWay } from '../controls/arrows';
import { mdiRestore } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import { followPointer } from '../controls/pointer';
import type { Wheel } from '../../core/base/wheeled';
import type { WheelParam } from '../../core/params/wheel';
import { useScopes } from '../stores/scopes';
import type { DialProps } from './define';
import { SIBLINGS } from './siblings';

/** One ring for several colours: the picture's own colours as a cloud on it, and a handle for each, so that their relation is seen. */
const props = defineProps<DialProps<WheelParam, Wheel>>();
const beside = inject(SIBLINGS)!;
const scopes = useScopes();
onMounted(() => scopes.lookers++);
onBeforeUnmount(() => scopes.lookers--);
const svg = ref<SVGSVGElement>();
const R = 46;
/** The names of all values on the ring, this one first. */
const names = computed(() => [
  props.name,
  ...Object.entries(beside.params).flatMap(([name, param]) => (param.within === props.name ? [name] : [])),
]);
const paramOf = (name: string) => beside.params[name] as WheelParam;
const valueOf = (name: string) => beside.now(name) as Wheel;
const chosen = ref(props.name);
const SEGMENTS = 48;
/** A piece of the rim, of the hue that lies there. */
function piece(i: number): string {
  const at = (k: number, r: number) => {
    const a = (k / SEGMENTS) * 2 * Math.PI;
    return `${(r * Math.cos(a)).toFixed(2)} ${(-r * Math.sin(a)).toFixed(2)}`;
  };
  return `M${at(i, R)}L${at(i + 1.05, R)}L${at(i + 1.05, R + 4)}L${at(i, R + 4)}Z`;
}
/** The picture's colours, each as far out as it is strong. */
const cloud = computed(() => scopes.cloud.map(({ x, y, share }) => ({ x: x * R, y: -y * R, share })));
const round = (v: number): number => Math.round(v * 1000) / 1000 + 0;
function put(name: string, [x, y, level]: Wheel, dragging: boolean): void {
  const far = Math.max(1, Math.hypot(x, y));
  beside.change(name, [round(x / far), round(y / far), Math.min(1, Math.max(-1, round(level)))], dragging);
}
function drag(event: PointerEvent, name: string): void {
  chosen.value = name;
  if (props.disabled || event.button !== 0) return;
  const unit = (svg.value!.getBoundingClientRect().width / 110) * R;
  const [x, y, level] = valueOf(name);
  followPointer(
    event,
    (now) => {
      const [dx, dy] = [(now.clientX - event.clientX) / unit, (event.clientY - now.clientY) / unit];
      put(name, [x + dx, y + dy, level], true);
    },
    () => beside.end(),
  );
}
function press(event: KeyboardEvent, name: string): void {
  const step = arrowWay(event);
  if (props.disabled || !step) return;
  event.preventDefault();
  event.stopPropagation();
  const by = event.shiftKey ? 0.1 : 0.01;
  const [x, y, level] = valueOf(name);
  put(name, [x + step[0] * by, y - step[1] * by, level], false);
}
const set = (name: string, part: 0 | 1 | 2, v: number, dragging: boolean): void =>
  put(name, valueOf(name).with(part, v) as unknown as Wheel, dragging);
/** Handles without a colour wait about the middle, and those nearly alike stand beside each other, so that each can be taken. */
const WAIT = 10;
const APART = 12.6;
function truePlace(name: string): [number, number] {
  const [x, y] = valueOf(name);
  if (x !== 0 || y !== 0) return [x * R, -y * R];
  const a = ((names.value.indexOf(name) + 0.5) / names.value.length) * 2 * Math.PI;
  return [WAIT * Math.cos(a), -WAIT * Math.sin(a)];
}
const ROUNDS = 30;
const places = computed(() => {
  const all = names.value.map(truePlace);
  for (let round = 0; round < ROUNDS; round++)
    for (let i = 0; i < all.length; i++)
      for (let k = 0; k < i; k++) {
        const [p, q] = [all[i]!, all[k]!];
        const far = Math.hypot(p[0] - q[0], p[1] - q[1]);
        if (far >= APART) continue;
        // two in one place part along a way of their own
        const a = far > 0.01 ? Math.atan2(p[1] - q[1], p[0] - q[0]) : i * 2.4;
        const by = (APART - far) / 2;
        all[i] = [p[0] + by * Math.cos(a), p[1] + by * Math.sin(a)];
        all[k] = [q[0] - by * Math.cos(a), q[1] - by * Math.sin(a)];
      }
  return Object.fromEntries(names.value.map((name, i) => [name, all[i]!]));
});
const isPlain = (name: string): boolean => valueOf(name).every((v) => v === 0);
const PARTS = ['x', 'y', 'level'] as const;
</script>

<template>
  <div class="wheels">
    <svg ref="svg" viewBox="-55 -55 110 110" role="group" aria-label="Colours of the ranges">
      <path v-for="i in SEGMENTS" :key="i" :d="piece(i - 1)" :fill="`hsl(${((i - 0.5) / SEGMENTS) * 360} 65% 52%)`" />
      <circle :r="R" class="disc" />
      <path class="grid" :d="`M${-R} 0H${R}M0 ${-R}V${R}`" />
      <circle
        v-for="(dot, i) in cloud"
        :key="`dot ${i}`"
        :cx="dot.x"
        :cy="dot.y"
        r="0.9"
        class="dot"
        :opacity="Math.min(0.9, 0.15 + dot.share * 20)"
      />
      <path
        v-for="name in names"
        :key="`lead ${name}`"
        class="lead"
        :d="`M${truePlace(name).join(' ')}L${places[name]!.join(' ')}`"
      />
      <g
        v-for="name in names"
        :key="name"
        role="button"
        :tabindex="disabled ? -1 : 0"
        :aria-label="`${paramOf(name).label} on the ring`"
        :aria-description="valueOf(name).join(', ')"
        :transform="`translate(${places[name]!.join(' ')})`"
        :class="{ chosen: chosen === name }"
        @pointerdown.stop="drag($event, name)"
        @focus="chosen = name"
        @keydown="press($event, name)"
      >
        <circle r="6" class="handle" />
        <text y="2.4">{{ paramOf(name).mark }}</text>
      </g>
    </svg>
    <div
      v-for="name in names"
      :key="`row ${name}`"
      role="group"
      :aria-label="paramOf(name).label"
      :class="{ chosen: chosen === name }"
      @focusin="chosen = name"
    >
      <div class="row" :title="paramOf(name).help">
        <v-btn class="name" size="small" variant="text" :aria-expanded="chosen === name" @click="chosen = name">
          <span class="badge">{{ paramOf(name).mark }}</span> {{ paramOf(name).label }}
        </v-btn>
        <IconButton
          :label="`Reset ${paramOf(name).label}`"
          :icon="mdiRestore"
          :disabled="disabled || isPlain(name)"
          @click="(beside.change(name, [0, 0, 0], false), beside.end())"
        />
        <Peg :path="path.replace(/[^.]+$/, name)" />
      </div>
      <div v-if="chosen === name" class="parts">
        <label v-for="(part, i) in PARTS" :key="part"
          >{{ part }}
          <NumberField
            :label="`${paramOf(name).label} ${part}`"
            :value="valueOf(name)[i]!"
            :min="-1"
            :max="1"
            :digits="3"
            :disabled="disabled"
            @change="(v, dragging) => set(name, i as 0 | 1 | 2, v, dragging)"
            @end="beside.end()"
        /></label>
      </div>
    </div>
  </div>
</template>

<style scoped>
.wheels {
  display: grid;
  gap: 4px;
  padding-bottom: 8px;
}
svg {
  justify-self: center;
  width: min(100%, 13rem);
  touch-action: none;
}
.disc {
  fill: var(--well);
}
.grid {
  fill: none;
  stroke: var(--line);
  stroke-width: 0.5;
}
.lead {
  stroke: var(--dim);
  stroke-width: 0.8;
}
.dot {
  fill: var(--dim);
}
.handle {
  fill: var(--panel);
  stroke: var(--text);
  stroke-width: 1;
}
[role='button'] {
  cursor: move;
}
.chosen .handle {
  stroke: var(--brass);
  stroke-width: 1.6;
}
text {
  fill: var(--text);
  font-size: 6.5px;
  text-anchor: middle;
  pointer-events: none;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
}
.name {
  justify-self: start;
  padding: 0 4px;
}
.badge {
  display: inline-grid;
  place-items: center;
  width: 1.125rem;
  margin-right: 6px;
  height: 1.125rem;
  border: 1px solid var(--line);
  border-radius: 50%;
  font-size: 0.6875rem;
}
.chosen .badge {
  border-color: var(--brass);
}
.parts {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  padding-bottom: 4px;
  font-size: 0.6875rem;
  color: var(--dim);
}
</style>
