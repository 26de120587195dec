<script setup lang="ts">
import { computed, inject, onBeforeUnmount, onMounted, ref } from 'vue';
import { mdiGestureSwipeVertical } from '@mdi/js';
import type { AnyPass } from '../../core/passes/define';
import { setPassValues } from '../../core/document/edits/passes';
import IconButton from '../controls/IconButton.vue';
import { followPointer } from '../controls/pointer';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { histogramPath } from '../scopes/histogram-path';
import { useScopes } from '../stores/scopes';
import { SIBLINGS } from './siblings';

/** Where dark, middle and bright go over into each other, over the picture's histogram; both borders are dragged. */
const props = defineProps<{ ranges: NonNullable<AnyPass['ranges']>; disabled: boolean }>();
const bench = useBench();
const viewing = useViewing();
const edits = useEdits();
const scopes = useScopes();
const beside = inject(SIBLINGS)!;
const svg = ref<SVGSVGElement>();
const [WIDE, TALL] = [240, 72];
const STEPS = 80;
onMounted(() => scopes.lookers++);
onBeforeUnmount(() => {
  scopes.lookers--;
  viewing.ranging = false;
});

const values = computed(() => Object.fromEntries(Object.keys(beside.params).map((name) => [name, beside.now(name)])));
const counted = computed(() => {
  const counts = scopes.reading?.histogram[3];
  return counts
    ? histogramPath(
        counts,
        (share) => share * WIDE,
        (share) => TALL * (1 - share),
      )
    : '';
});
/** The three shares as lines. */
const lines = computed(() =>
  [0, 1, 2].map((part) =>
    Array.from({ length: STEPS + 1 }, (_, i) => {
      const share = props.ranges.shares(values.value as never, i / STEPS)[part]!;
      return `${((i / STEPS) * WIDE).toFixed(1)},${(TALL - 2 - share * (TALL - 6)).toFixed(1)}`;
    }).join(' '),
  ),
);
const limits = computed(() =>
  props.ranges.limits.map((name) => ({ name, label: beside.params[name]!.label, at: beside.now(name) as number })),
);
function put(index: number, to: number, dragging: boolean): void {
  const [dark, bright] = limits.value;
  const [low, high] = index ? [dark!.at, 1] : [0, bright!.at];
  beside.change(limits.value[index]!.name, Math.round(Math.min(high, Math.max(low, to)) * 1000) / 1000, dragging);
}
function drag(event: PointerEvent, index: number): void {
  if (props.disabled || event.button !== 0) return;
  const { left, width } = svg.value!.getBoundingClientRect();
  followPointer(
    event,
    (now) => put(index, (now.clientX - left) / width, true),
    () => beside.end(),
  );
}
function press(event: KeyboardEvent, index: number): void {
  const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
  if (props.disabled || !way) return;
  event.preventDefault();
  event.stopPropagation();
  put(index, limits.value[index]!.at + way * (event.shiftKey ? 0.1 : 0.01), false);
  beside.end();
}
const preset = (title: string): void => {
  const found = props.ranges.presets.find((item) => item.title === title);
  const { id } = bench.pass!;
  if (found)
    edits.editLayer((project, at) =>
      setPassValues(project, at, id, found.values as Record<string, unknown>, `parts: ${title}`),
    );
};
</script>

<template>
  <div class="ranges" role="group" aria-label="Dark, middle and bright">
    <div class="drawing">
      <svg ref="svg" :viewBox="`0 0 ${WIDE} ${TALL}`" preserveAspectRatio="none" aria-hidden="true">
        <path class="counted" :d="counted" />
        <polyline v-for="(line, i) in lines" :key="i" :points="line" :class="['dark', 'middle', 'bright'][i]" />
      </svg>
      <span
        v-for="(limit, i) in limits"
        :key="limit.name"
        class="limit"
        role="slider"
        tabindex="0"
        :aria-label="limit.label"
        :aria-valuenow="Math.round(limit.at * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
        :style="{ left: `${limit.at * 100}%` }"
        @pointerdown.stop="drag($event, i)"
        @keydown="press($event, i)"
      />
    </div>
    <div class="row">
      <v-select
        label="Parts"
        placeholder="by hand"
        persistent-placeholder
        :model-value="null"
        :items="ranges.presets.map(({ title }) => title)"
        :disabled="disabled"
        @update:model-value="(title: string | null) => title && preset(title)"
      />
      <IconButton
        label="Drag on the picture: up makes the part that you press on brighter, down darker"
        :icon="mdiGestureSwipeVertical"
        :pressed="viewing.ranging"
        :disabled="disabled"
        @click="viewing.ranging = !viewing.ranging"
      />
    </div>
  </div>
</template>

<style scoped>
.ranges {
  display: grid;
  gap: 8px;
  padding-bottom: 8px;
}
.drawing {
  position: relative;
  height: 4.5rem;
  background: var(--well);
  border: 1px solid var(--line);
}
svg {
  width: 100%;
  height: 100%;
}
.counted {
  fill: var(--dim);
  opacity: 0.35;
}
polyline {
  fill: none;
  stroke: var(--text);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
.dark {
  stroke-dasharray: 2 3;
}
.bright {
  stroke-dasharray: 7 3;
}
.limit {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 11px;
  margin-left: -5.5px;
  cursor: ew-resize;
  touch-action: none;
  background: linear-gradient(var(--brass), var(--brass)) center / 2px 100% no-repeat;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  align-items: center;
}
</style>
