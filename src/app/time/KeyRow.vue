<script setup lang="ts">
import { computed, ref } from 'vue';
import type { Layer } from '../../core/document/schema';
import { valueIn, type ValueEntry } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import Peg from '../controls/Peg.vue';
import { rem } from '../controls/rem';
import { useBench } from '../stores/bench';
import { useRows, type ValueRow } from '../stores/rows';
import RowCurve from './RowCurve.vue';
import RowEdge from './RowEdge.vue';
import RowMenu from './RowMenu.vue';
import ValueNow from './ValueNow.vue';

/** An animated value under its layer: a curve at any height, with its keyframes as pegs on it. */
const props = defineProps<{
  layer: Layer;
  row: ValueRow;
  perFrame: number;
  labels: number;
  from: number;
  to: number;
}>();
const DRAGGED = 'application/x-jackplane-row';
const bench = useBench();
const rows = useRows();
const curve = ref<InstanceType<typeof RowCurve>>();
const menuAt = ref<[number, number] | null>(null);
const overIt = ref(false);

const lead = computed(() => props.row.entries[0]!);
const height = computed(() => rem(rows.height(props.row.id)));
const grown = computed(() => rows.isGrown(props.row.id));
const look = computed(() => rows.look(props.row.id));
const chosen = computed(() => bench.layerId === props.layer.id);
const others = computed(() => rows.valueRows(props.layer).filter(({ id }) => id !== props.row.id));
/** Keyframes that no frame of the layer shows; they still shape the way to them. */
const outside = computed(
  () =>
    keysOf(valueIn(props.layer, lead.value.path)!).filter((key) => key.at < 0 || key.at >= props.layer.span.length)
      .length,
);
/** Values of passes and masks say whose they are. */
const titleOf = ({ group, label }: ValueEntry): string => (group === 'Place' ? label : `${group}: ${label}`);
const round = (v: number): string => String(Math.abs(v) < 10 ? Math.round(v * 100) / 100 : Math.round(v));
/** Each curve with the range that it is drawn over. */
const legend = computed(() =>
  (curve.value?.curves ?? []).map((one) => {
    const [low, high] = curve.value!.ranges.get(one.id)!;
    const most = curve.value!.changes.find((change) => change.curve.id === one.id)?.most;
    return {
      ...one,
      range: `${low === high ? round(low) : `${round(low)} … ${round(high)}`}${one.entry.unit && ` ${one.entry.unit}`}`,
      most: most === undefined ? '' : `±${round(most)} a frame`,
    };
  }),
);
function drop(event: DragEvent): void {
  overIt.value = false;
  const moved = event.dataTransfer?.getData(DRAGGED);
  if (moved && others.value.some(({ id }) => id === moved)) rows.layOver(props.layer, moved, props.row.id);
}
function dragOver(event: DragEvent): void {
  if (!event.dataTransfer?.types.includes(DRAGGED)) return;
  event.preventDefault();
  overIt.value = true;
}
</script>

<template>
  <div
    class="value-row"
    :class="{ over: overIt }"
    :style="{ height: `${height}px` }"
    role="group"
    :aria-label="`${row.entries.map(({ label }) => label).join(', ')} of ${layer.name}`"
    @dragover.stop="dragOver"
    @dragleave="overIt = false"
    @drop.stop.prevent="drop"
    @contextmenu.prevent="menuAt = [$event.clientX, $event.clientY]"
  >
    <div
      class="label"
      :style="{ width: `${labels}px` }"
      draggable="true"
      @dragstart="$event.dataTransfer?.setData(DRAGGED, row.id)"
    >
      <div class="head">
        <span
          class="name"
          :title="`${lead.group}: ${lead.label}${outside ? `; ${outside} keyframes lie outside the layer and are kept` : ''}. Double-click to grow, drag onto another row to lay it over`"
          @dblclick="rows.grow(row.id)"
          >{{ row.entries.map(titleOf).join(' · ') }}<template v-if="outside"> · {{ outside }} outside</template></span
        >
        <Peg v-if="chosen" :path="lead.path" bare />
      </div>
      <ul v-if="grown" class="legend">
        <li v-for="one in legend" :key="one.id">
          <svg width="16" height="8" aria-hidden="true">
            <line x1="0" y1="4" x2="16" y2="4" :stroke="one.stroke" :stroke-dasharray="one.dash" stroke-width="2" />
          </svg>
          <span class="of">{{ one.name }}</span>
          <span class="mono range">{{ one.range }}</span>
          <span v-if="one.most" class="mono range change">{{ one.most }}</span>
        </li>
      </ul>
      <template v-if="grown && curve">
        <span v-for="line in curve.axis" :key="line.v" class="mono tick" :style="{ top: `${line.y}px` }">{{
          round(line.v)
        }}</span>
      </template>
    </div>
    <RowCurve
      ref="curve"
      v-bind="{ layer, perFrame, height, from, to, grown }"
      :entries="row.entries"
      :one-scale="look.oneScale"
      :change="look.change"
    >
      <ValueNow v-bind="{ layer, perFrame, from, to }" :entries="row.entries" />
    </RowCurve>
    <RowEdge :row="row.id" :name="`${lead.label} of ${layer.name}`" />
    <RowMenu v-if="menuAt" v-bind="{ layer, row, others }" :at="menuAt" @close="menuAt = null" />
  </div>
</template>

<style scoped>
.value-row {
  contain: layout style;
  position: relative;
  display: flex;
  border-bottom: 1px solid color-mix(in srgb, var(--line) 55%, transparent);
}
.value-row.over .label {
  outline: 1px dashed var(--brass);
  outline-offset: -1px;
}
.label {
  position: sticky;
  z-index: 2;
  left: 0;
  flex: none;
  padding: 0 2px 0 26px;
  background: var(--panel);
  border-right: 1px solid var(--line);
  font-size: 0.75rem;
  overflow: hidden;
}
.head {
  display: flex;
  align-items: center;
  gap: 6px;
  height: 1.4375rem;
}
.name {
  flex: 1;
  min-width: 0;
  color: var(--dim);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.legend {
  display: grid;
  gap: 2px;
  margin: 0;
  padding: 0 2rem 0 0;
  list-style: none;
  font-size: 0.6875rem;
}
.legend li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
}
.of {
  flex: 1;
  white-space: nowrap;
}
.range {
  color: var(--dim);
  font-size: 0.625rem;
}
.change {
  flex-basis: 100%;
  text-align: right;
}
.tick {
  position: absolute;
  right: 4px;
  font-size: 0.625rem;
  line-height: 1;
  color: var(--chalk);
  transform: translateY(-50%);
}
</style>
