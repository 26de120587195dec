<script setup lang="ts">
import { watchDebounced } from '@vueuse/core';
import { computed, inject, ref } from 'vue';
import type { Colour } from '../../core/params/define';
import type { NumberParam } from '../../core/params/number';
import { plateInWords, type Reading, type ReadingParam } from '../../core/params/reading';
import { planBefore } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { latestOnly } from '../base/latest';
import Dial from '../controls/Dial.vue';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import type { DialProps } from './define';
import { readInto } from '../stores/read-plate';
import { SIBLINGS } from './siblings';

/** What a key makes of likeness to the screen: the frame's pixels by that, and the matte's way from clear to solid, whose ends are dragged. */
const props = defineProps<DialProps<ReadingParam, Reading | null>>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const player = usePlayer();
const notices = useNotices();
const beside = inject(SIBLINGS)!;

const [WIDE, TALL] = [240, 64];
const svg = ref<SVGSVGElement>();
const histogram = ref<number[]>([]);
const screen = computed(() => beside.now(props.param.of) as readonly Colour[]);

const refresh = latestOnly(
  async () => {
    const { layer, shot, pass } = bench;
    const plan = layer && shot && pass && planBefore(store.current(), shot, layer, pass.id, playhead.frame);
    const found =
      plan && screen.value.length
        ? await (
            await useEngine()
          ).measure(plan, 'keyPlate', { screen: screen.value, balance: beside.now(props.param.balance) as number })
        : null;
    histogram.value = found?.histogram ?? [];
  },
  (error) => notices.problem(error),
);
// while frames are stepped through or played, other work comes first
watchDebounced(
  [() => playhead.frame, screen, () => player.playing, () => beside.now(props.param.balance)],
  () => {
    if (!player.playing) void refresh();
  },
  { debounce: 300, immediate: true },
);

/** Bars by the logarithm, since edges are few beside screen and subject. */
const bars = computed(() => {
  const most = Math.log1p(Math.max(1, ...histogram.value));
  const wide = WIDE / Math.max(1, histogram.value.length);
  return histogram.value.map((count, i) => ({
    x: i * wide,
    width: wide - 0.5,
    height: (Math.log1p(count) / most) * (TALL - 8),
  }));
});

/** An older key counts its ends on a ramp of its own. */
const from = computed(() => (beside.now(props.param.ramp[0]) as number | undefined) ?? 0);
const long = computed(() => (beside.now(props.param.ramp[1]) as number | undefined) ?? 1);
const ends = computed(() =>
  (['clear', 'solid'] as const).map((end) => {
    const name = props.param[end];
    const param = beside.params[name] as NumberParam;
    const value = beside.now(name) as number;
    return { end, name, param, value, at: Math.min(1, Math.max(0, from.value + value * long.value)) };
  }),
);
/** Where the value of an end comes from, once a plate has been read. */
const origin = (end: 'clear' | 'solid', value: number): string =>
  props.value === null ? '' : Math.abs(props.value[end] - value) < 1e-6 ? 'measured' : 'by hand';
const line = computed(() => {
  const [clear, solid] = ends.value.map(({ at }) => at * WIDE) as [number, number];
  return `0,${TALL} ${clear},${TALL} ${solid},2 ${WIDE},2`;
});

const LEAST = 0.01;
function put(end: (typeof ends.value)[number], at: number, dragging: boolean): void {
  const [clear, solid] = ends.value;
  const low = end.end === 'clear' ? 0 : clear!.at + LEAST;
  const high = end.end === 'clear' ? solid!.at - LEAST : 1;
  const value = (Math.min(high, Math.max(low, at)) - from.value) / long.value;
  const { min, max } = end.param;
  beside.change(end.name, Math.round(Math.min(max, Math.max(min, value)) * 1000) / 1000, dragging);
}
function drag(event: PointerEvent, index: number): void {
  if (props.disabled || event.button !== 0) return;
  const { left, width } = svg.value!.getBoundingClientRect();
  followPointer(
    event,
    (now) => put(ends.value[index]!, (now.clientX - left) / width, true),
    () => beside.end(),
  );
}
function press(event: KeyboardEvent, index: number): void {
  const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (props.disabled || !way) return;
  event.preventDefault();
  event.stopPropagation();
  const end = ends.value[index]!;
  put(end, end.at + way * (event.shiftKey ? 0.1 : 0.01), false);
  beside.end();
}
const read = (): Promise<void> => readInto(bench.pass!.id, props.name, screen.value, true);
</script>

<template>
  <div class="reading" role="group" aria-label="Response">
    <div class="drawing">
      <svg ref="svg" :viewBox="`0 0 ${WIDE} ${TALL}`" preserveAspectRatio="none" :title="param.help">
        <rect v-if="value" class="known" x="0" y="0" :width="value.clear * WIDE" :height="TALL" />
        <rect
          v-if="value"
          class="known"
          :x="value.solid * WIDE"
          y="0"
          :width="(1 - value.solid) * WIDE"
          :height="TALL"
        />
        <rect
          v-for="(bar, i) in bars"
          :key="i"
          class="bar"
          :x="bar.x"
          :y="TALL - bar.height"
          :width="bar.width"
          :height="bar.height"
        />
        <polyline class="matte" :points="line" />
      </svg>
      <span
        v-for="(end, i) in ends"
        :key="end.end"
        class="end"
        :class="end.end"
        role="slider"
        :tabindex="disabled ? -1 : 0"
        :aria-label="`${end.param.label} on the drawing`"
        :aria-disabled="disabled"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="Math.round(end.at * 100)"
        :style="{ left: `${end.at * 100}%` }"
        @pointerdown="drag($event, i)"
        @keydown="press($event, i)"
      />
    </div>
    <span class="axis dim"><span>like the screen</span><span>unlike it</span></span>
    <Dial
      v-for="end in ends"
      :key="end.name"
      :label="end.param.label"
      :note="origin(end.end, end.value)"
      :help="end.param.help"
      unit="%"
      :path="path.replace(/[^.]*$/, end.name)"
      :value="end.value * 100"
      :min="end.param.min * 100"
      :max="end.param.max * 100"
      :digits="1"
      :disabled="disabled"
      @change="(v, dragging) => beside.change(end.name, v / 100, dragging)"
      @end="beside.end()"
    />
    <p v-if="value" class="dim words" role="note">{{ plateInWords(value) }}</p>
    <v-btn size="small" :disabled="disabled || !screen.length" @click="read">Read the plate anew</v-btn>
  </div>
</template>

<style scoped>
.reading {
  margin-bottom: 6px;
}
.drawing {
  position: relative;
  height: 4rem;
  border: 1px solid var(--line);
  background: var(--well, #101010);
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.known {
  fill: var(--raised);
}
.bar {
  fill: var(--dim);
  opacity: 0.55;
}
.matte {
  fill: none;
  stroke: var(--brass);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.end {
  position: absolute;
  width: 13px;
  height: 13px;
  margin: -6px 0 0 -6px;
  cursor: ew-resize;
  background: var(--brass);
  border: 2px solid var(--panel);
  touch-action: none;
}
.end.clear {
  top: 100%;
}
.end.solid {
  top: 0;
}
.axis {
  display: flex;
  justify-content: space-between;
  margin: 6px 0 2px;
  font-size: 0.6875rem;
}
.words {
  margin: 4px 0;
  font-size: 0.75rem;
  line-height: 1.4;
}
</style>
