<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { arrowWay } from '../controls/arrows';
import { mdiEyedropper, mdiRestore } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import { followPointer } from '../controls/pointer';
import { curveOf, MOST_POINTS, NEAREST, type CurveParam, type CurvePoint } from '../../core/params/curve';
import { useBench } from '../stores/bench';
import { histogramPath } from '../scopes/histogram-path';
import { useScopes } from '../stores/scopes';
import type { DialEmits, DialProps } from './define';

/** A curve to bend: a press on it adds a point, points are dragged or moved by arrow keys, Delete takes one away. */
const props = defineProps<DialProps<CurveParam, CurvePoint[]>>();
const emit = defineEmits<DialEmits<CurvePoint[]>>();

/** Side of the drawing in its own units; a margin leaves room for points at the border. */
const SIDE = 100;
const MARGIN = 5;
const svg = ref<SVGSVGElement>();
const bench = useBench();
const scopes = useScopes();
/** It lies over values that the picture's histogram counts. */
const counts = computed(() => !props.param.over || props.param.over === 'brightness');
onMounted(() => counts.value && scopes.lookers++);
onBeforeUnmount(() => counts.value && scopes.lookers--);
/** How much of the shown picture lies at each value, behind the curve. */
const counted = computed(() => {
  const { tone } = props.param;
  if (!scopes.reading || !counts.value) return '';
  const own = scopes.reading.histogram[tone ? { red: 0, green: 1, blue: 2 }[tone] : 3]!;
  return histogramPath(own, x, y);
});
const chosen = ref(0);
const x = (v: number) => MARGIN + v * SIDE;
const y = (v: number) => MARGIN + (1 - v) * SIDE;
const line = computed(() => {
  const of = curveOf(props.value);
  return Array.from({ length: 101 }, (_, i) => {
    const to = Math.min(1, Math.max(0, of(i / 100)));
    return `${x(i / 100).toFixed(2)},${y(to).toFixed(2)}`;
  }).join(' ');
});
const STROKES = { red: 'var(--red)', green: 'var(--moss)', blue: 'var(--chalk)' };
const stroke = computed(() => (props.param.tone ? STROKES[props.param.tone] : 'currentColor'));
/** What lies along the curve of a change, as a strip of colours. */
const STRIPES = 24;
function stripeOf(at: number): string {
  if (props.param.over === 'hue') return `hsl(${at * 360} 70% 55%)`;
  return props.param.over === 'brightness' ? `hsl(0 0% ${at * 100}%)` : `hsl(30 ${at * 90}% 50%)`;
}
const percent = (v: number) => Math.round(v * 1000) / 10;

/** Where a pointer is, in shares of the drawing. */
function placeOf(event: PointerEvent): CurvePoint {
  const { left, top, width, height } = svg.value!.getBoundingClientRect();
  const full = SIDE + 2 * MARGIN;
  return [
    (((event.clientX - left) / width) * full - MARGIN) / SIDE,
    1 - (((event.clientY - top) / height) * full - MARGIN) / SIDE,
  ];
}
const within = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
/** A point between its neighbours, to a thousandth. */
function held(points: readonly CurvePoint[], i: number, [from, to]: CurvePoint): CurvePoint {
  const low = i ? points[i - 1]![0] + NEAREST : 0;
  const high = i < points.length - 1 ? points[i + 1]![0] - NEAREST : 1;
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return [within(round(from), low, high), within(round(to), 0, 1)];
}
const put = (i: number, point: CurvePoint, dragging: boolean): void =>
  emit('change', props.value.with(i, held(props.value, i, point)), dragging);

function drag(event: PointerEvent, i: number): void {
  if (props.disabled || event.button !== 0) return;
  chosen.value = i;
  followPointer(
    event,
    (now) => put(i, placeOf(now), true),
    () => emit('end'),
  );
}
/** A new point where the curve is pressed, which can be dragged at once. */
function add(event: PointerEvent): void {
  if (props.disabled || event.button !== 0 || props.value.length >= MOST_POINTS) return;
  const [from, to] = placeOf(event);
  const i = props.value.findIndex(([at]) => at > from);
  const index = i < 0 ? props.value.length : i;
  const near = [props.value[index - 1], props.value[index]].some(
    (other) => other && Math.abs(other[0] - from) < 2 * NEAREST,
  );
  if (near || from < 0 || from > 1) return;
  emit('change', props.value.toSpliced(index, 0, [within(from, 0, 1), within(to, 0, 1)]), true);
  drag(event, index);
}
function remove(i: number): void {
  if (props.value.length < 3) return;
  chosen.value = Math.max(0, i - 1);
  emit('change', props.value.toSpliced(i, 1));
}
function press(event: KeyboardEvent, i: number): void {
  const step = arrowWay(event);
  const deletes = event.key === 'Delete' || event.key === 'Backspace';
  if (props.disabled || (!step && !deletes)) return;
  event.preventDefault();
  event.stopPropagation();
  if (deletes) return remove(i);
  const far = event.shiftKey ? 0.1 : 0.01;
  const [from, to] = props.value[i]!;
  put(i, [from + step![0] * far, to - step![1] * far], false);
}
/** What stands for a height: the value it becomes, or how much it is changed. */
const changes = computed(() => !!props.param.over && !props.param.heights);
const shown = (to: number): number => (changes.value ? percent(2 * to - 1) : percent(to));
const verb = computed(() => props.param.heights ?? (changes.value ? 'changes by' : 'becomes'));
/** Whether it is as it began. */
const untouched = computed(() => JSON.stringify(props.value) === JSON.stringify(props.param.default));
const point = computed(() => props.value[Math.min(chosen.value, props.value.length - 1)]!);
const index = computed(() => Math.min(chosen.value, props.value.length - 1));
</script>

<template>
  <div class="curve" role="group" :aria-label="param.label" :title="param.help">
    <span class="dial-row">
      {{ param.label }}
      <span class="ends">
        <IconButton
          v-if="param.over !== 'life'"
          :label="`Pick a point of ${param.label} on the picture`"
          :icon="mdiEyedropper"
          :disabled="disabled"
          :aria-pressed="bench.picking === name"
          @click="bench.picking = bench.picking === name ? null : name"
        />
        <IconButton
          :label="param.heights ? `${param.label} as it began` : `Straighten ${param.label}`"
          :icon="mdiRestore"
          :disabled="disabled || untouched"
          @click="emit('change', [...param.default])"
        />
        <Peg :path="path" />
      </span>
    </span>
    <svg ref="svg" :viewBox="`0 0 ${SIDE + 2 * MARGIN} ${SIDE + 2 * MARGIN}`" @pointerdown="add">
      <rect class="well" :x="MARGIN" :y="MARGIN" :width="SIDE" :height="SIDE" />
      <path v-if="counted" class="counted" :d="counted" />
      <template v-if="param.over && param.over !== 'life'">
        <rect
          v-for="i in STRIPES"
          :key="i"
          :x="x((i - 1) / STRIPES)"
          :y="y(0) - 5"
          :width="SIDE / STRIPES + 0.2"
          height="5"
          :fill="stripeOf((i - 0.5) / STRIPES)"
        />
      </template>
      <path
        class="grid"
        :d="`M${x(0.5)} ${y(0)}V${y(1)}M${x(0)} ${y(0.5)}H${x(1)}${param.over ? '' : `M${x(0)} ${y(0)}L${x(1)} ${y(1)}`}`"
      />
      <polyline :points="line" :style="{ stroke }" />
      <g
        v-for="([from, to], i) in value"
        :key="i"
        role="button"
        :tabindex="disabled ? -1 : 0"
        :aria-label="`Point ${i + 1} of ${param.label}`"
        :aria-description="`${percent(from)} % ${verb} ${shown(to)} %`"
        :transform="`translate(${x(from)} ${y(to)})`"
        @pointerdown.stop="drag($event, i)"
        @focus="chosen = i"
        @keydown="press($event, i)"
      >
        <circle r="6" class="room" />
        <circle r="2.6" class="mark" :class="{ chosen: i === index }" />
      </g>
    </svg>
    <span class="dial-row">
      <NumberField
        :label="`${param.label}, point ${index + 1} from`"
        unit="%"
        :value="percent(point[0])"
        :min="0"
        :max="100"
        :digits="1"
        :disabled="disabled"
        @change="(v, dragging) => put(index, [v / 100, point[1]], dragging)"
        @end="emit('end')"
      />
      <span class="dim">{{ verb }}</span>
      <NumberField
        :label="`${param.label}, point ${index + 1} to`"
        unit="%"
        :value="shown(point[1])"
        :min="changes ? -100 : 0"
        :max="100"
        :digits="1"
        :disabled="disabled"
        @change="(v, dragging) => put(index, [point[0], changes ? v / 200 + 0.5 : v / 100], dragging)"
        @end="emit('end')"
      />
    </span>
  </div>
</template>

<style scoped>
.curve {
  display: grid;
  gap: 4px;
  padding: 4px 0 10px;
}
.ends {
  display: flex;
}
svg {
  width: 100%;
  max-height: 11rem;
  touch-action: none;
  cursor: crosshair;
}
.well {
  fill: var(--well);
  stroke: var(--line);
  stroke-width: 0.6;
}
.counted {
  fill: var(--line);
  pointer-events: none;
}
.grid {
  fill: none;
  stroke: var(--line);
  stroke-width: 0.5;
  stroke-dasharray: 2 2;
}
polyline {
  fill: none;
  stroke-width: 1.4;
  pointer-events: none;
}
[role='button'] {
  cursor: move;
}
.room {
  fill: transparent;
}
.mark {
  fill: var(--well);
  stroke: currentColor;
  stroke-width: 1.1;
}
.mark.chosen {
  fill: var(--brass);
}
</style>
