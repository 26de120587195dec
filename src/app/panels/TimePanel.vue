<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useElementSize, useScroll } from '@vueuse/core';
import { VueDraggable } from 'vue-draggable-plus';
import { orderLayer } from '../../core/document/edits/layers';
import type { KeyRef } from '../../core/document/edits/keys';
import type { Layer } from '../../core/document/schema';
import { valueIn } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import { useAnswer } from '../base/asks';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { CURVE_FROM, useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';
import LayerRow from '../time/LayerRow.vue';
import Ruler from '../time/Ruler.vue';
import Transport from '../time/Transport.vue';
import { stackStock } from '../time/actions';
import { followPointer } from '../controls/pointer';
import { rem } from '../controls/rem';

const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const rows = useRows();
const selection = useSelection();
const area = ref<HTMLElement>();
const { width, height } = useElementSize(area);
const { x: scrollX, y: scrollY } = useScroll(area);
const LABELS = rem(224);
const HEAD = rem(20);
/** times the width at which the whole shot shows */
const zoom = ref(1);

const shot = computed(() => bench.shot!);
const perFrame = computed(() => Math.max(0.02, ((width.value - LABELS - 24) / shot.value.length) * zoom.value));
const playheadX = computed(() => LABELS + (playhead.frame + 0.5) * perFrame.value);
/** Left out where the names are; it lies over the ruler elsewhere. */
const playheadSeen = computed(() => playheadX.value >= scrollX.value + LABELS);
/** Frames in view, with some to spare. */
const view = computed(() => ({
  from: Math.floor(scrollX.value / perFrame.value) - 5,
  to: Math.ceil((scrollX.value + width.value - LABELS) / perFrame.value) + 5,
}));

/** Where every layer's block begins and how high it is, so that only the blocks in view are made. */
const blocks = computed(() => {
  let top = 0;
  return shot.value.layers.map((layer) => {
    const block = {
      layer,
      top,
      height: rem(selection.rowHeight + rows.openedHeight(layer)),
    };
    top += block.height;
    return block;
  });
});
const total = computed(() => (blocks.value.at(-1)?.top ?? 0) + (blocks.value.at(-1)?.height ?? 0));
const SPARE = 60;
const window = computed(() => {
  const inView = blocks.value.filter(
    (block) => block.top + block.height >= scrollY.value - SPARE && block.top <= scrollY.value + height.value + SPARE,
  );
  const first = inView[0];
  return {
    first: first ? blocks.value.indexOf(first) : 0,
    above: first?.top ?? 0,
    below: total.value - ((inView.at(-1)?.top ?? 0) + (inView.at(-1)?.height ?? 0)),
    layers: inView.map((block) => block.layer),
  };
});
const order = ref<Layer[]>([]);
watch(
  () => window.value.layers,
  (layers) => (order.value = [...layers]),
  { immediate: true },
);

function reordered({ oldIndex, newIndex }: { oldIndex?: number; newIndex?: number }): void {
  const layer = window.value.layers[oldIndex ?? -1];
  if (layer && newIndex !== undefined)
    store.edit(orderLayer(store.current(), { shot: shot.value.id, layer: layer.id }, window.value.first + newIndex));
}
const frameAt = (clientX: number) =>
  (clientX - area.value!.getBoundingClientRect().left + area.value!.scrollLeft - LABELS) / perFrame.value;
function drop(event: DragEvent): void {
  const item = store.project?.stock.find(
    (entry) => entry.id === event.dataTransfer?.getData('application/x-jackplane-stock'),
  );
  if (item) stackStock(item, Math.max(0, Math.round(frameAt(event.clientX))));
}
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey) return;
  event.preventDefault();
  const at = frameAt(event.clientX);
  const left = event.clientX - area.value!.getBoundingClientRect().left;
  zoom.value = Math.min(60, Math.max(1, zoom.value * 1.25 ** -Math.sign(event.deltaY)));
  void nextTick(() => (area.value!.scrollLeft = at * perFrame.value + LABELS - left));
}

/** A frame dragged over empty ground picks every keyframe in it. */
const box = ref<{ left: number; top: number; width: number; height: number } | null>(null);
function marquee(event: PointerEvent): void {
  const target = event.target as HTMLElement;
  if (event.button !== 0 || !target.closest('.track') || target.closest('.bar, button')) return;
  const bounds = area.value!.getBoundingClientRect();
  const at = (now: PointerEvent) => ({
    x: now.clientX - bounds.left + area.value!.scrollLeft,
    y: now.clientY - bounds.top + area.value!.scrollTop - HEAD,
  });
  const start = at(event);
  const before = event.shiftKey ? selection.keys : [];
  followPointer(
    event,
    (now) => {
      const end = at(now);
      box.value = {
        left: Math.min(start.x, end.x),
        top: Math.min(start.y, end.y) + HEAD,
        width: Math.abs(end.x - start.x),
        height: Math.abs(end.y - start.y),
      };
    },
    () => {
      selection.keys = box.value ? [...before, ...keysIn(box.value)] : [];
      box.value = null;
    },
  );
}
function keysIn({
  left,
  top,
  width: wide,
  height: high,
}: {
  left: number;
  top: number;
  width: number;
  height: number;
}): KeyRef[] {
  const [from, to] = [(left - LABELS) / perFrame.value - 0.5, (left + wide - LABELS) / perFrame.value - 0.5];
  const [y0, y1] = [top - HEAD, top - HEAD + high];
  return blocks.value.flatMap(({ layer, top: blockTop }) => {
    if (layer.locked || !rows.open.has(layer.id)) return [];
    let bottom = blockTop + rem(selection.rowHeight);
    return rows.valueRows(layer).flatMap(({ id, entries }) => {
      const rowTop = bottom;
      bottom += rem(rows.height(id));
      if (bottom < y0 || rowTop > y1) return [];
      return entries.flatMap(({ path }) =>
        keysOf(valueIn(layer, path)!)
          .filter((key) => key.at + layer.span.start >= from && key.at + layer.span.start <= to)
          .map((key) => ({ layer: layer.id, path, at: key.at })),
      );
    });
  });
}
const fit = () => (zoom.value = 1);
// the view follows the playhead, a page at a time
watch(
  () => playhead.frame,
  () => {
    const [first, wide] = [scrollX.value, width.value - LABELS];
    const x = playheadX.value - LABELS;
    if (x < first) area.value!.scrollLeft = x - wide * 0.85;
    else if (x > first + wide) area.value!.scrollLeft = x - wide * 0.15;
  },
);
// rows that have grown are brought into view
watch([() => bench.layerId, () => (bench.layer ? rows.openedHeight(bench.layer) : 0)], ([id, now], [was, before]) => {
  const block = blocks.value.find(({ layer }) => layer.id === id);
  if (!block || id !== was || now < before + CURVE_FROM / 2) return;
  void nextTick(() => {
    const over = block.top + block.height - (scrollY.value + height.value - HEAD);
    if (over > 0) area.value!.scrollTop = Math.min(block.top, scrollY.value + over);
  });
});
useAnswer('fit-time', fit);
</script>

<template>
  <section class="time" aria-label="Time">
    <Transport v-model:zoom="zoom" />
    <div ref="area" class="area" @wheel="wheel" @dragover.prevent @drop.stop.prevent="drop" @pointerdown="marquee">
      <div
        class="sheet"
        :style="{ width: `${LABELS + shot.length * perFrame + 24}px`, '--row': `${rem(selection.rowHeight)}px` }"
      >
        <div class="head">
          <span class="corner dim"
            >{{ shot.layers.length }} {{ shot.layers.length === 1 ? 'layer' : 'layers' }}, top first</span
          >
          <Ruler :shot="shot" :frame="playhead.frame" :per-frame="perFrame" v-bind="view" @seek="playhead.seek" />
        </div>
        <div :style="{ height: `${window.above}px` }" />
        <VueDraggable v-model="order" handle=".grip" :animation="120" @end="reordered">
          <LayerRow
            v-for="layer in order"
            :key="layer.id"
            :layer="layer"
            :per-frame="perFrame"
            :labels="LABELS"
            v-bind="view"
          />
        </VueDraggable>
        <div :style="{ height: `${window.below}px` }" />
        <p v-if="!shot.layers.length" class="dim none">
          An empty shot. Drag stock here; where you drop it is where it begins.
        </p>
        <div
          v-if="box"
          class="box"
          :style="{ left: `${box.left}px`, top: `${box.top}px`, width: `${box.width}px`, height: `${box.height}px` }"
        />
        <div
          v-if="selection.snapAt !== null"
          class="snap"
          :style="{ left: `${LABELS + selection.snapAt * perFrame}px` }"
        />
        <div
          v-show="playheadSeen"
          class="playhead"
          :style="{ transform: `translateX(${playheadX}px)` }"
          aria-hidden="true"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.time {
  display: grid;
  grid-template-rows: 1.8125rem 1fr;
  height: 100%;
  background: var(--panel);
  contain: strict;
}
.area {
  contain: content;
  overflow: auto;
  scroll-padding-top: 1.25rem; /* what is brought into view is not left under the ruler */
  background: var(--bg);
}
.sheet {
  position: relative;
  min-height: 100%;
}
.head {
  position: sticky;
  z-index: 4;
  top: 0;
  display: flex;
  height: 1.25rem;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.corner {
  position: sticky;
  z-index: 5;
  left: 0;
  flex: none;
  width: 14rem;
  padding: 1px 12px;
  font-size: 0.6875rem;
  background: var(--panel);
  border-right: 1px solid var(--line);
}
.box {
  position: absolute;
  z-index: 3;
  border: 1px solid var(--brass);
  background: var(--brass-soft);
  pointer-events: none;
}
.snap {
  position: absolute;
  z-index: 3;
  top: 0;
  bottom: 0;
  border-left: 1px dashed var(--chalk);
  pointer-events: none;
}
.playhead {
  position: absolute;
  z-index: 5;
  top: 0;
  bottom: 0;
  left: 0;
  width: 1px;
  background: var(--brass);
  pointer-events: none;
  will-change: transform; /* it moves with every frame; the rows under it are not painted anew */
}
.playhead::before {
  content: '';
  position: sticky;
  top: 0;
  display: block;
  width: 11px;
  height: 0.75rem;
  margin-left: -5px;
  background: var(--brass);
  clip-path: polygon(0 0, 100% 0, 100% 60%, 50% 100%, 0 60%);
}
.none {
  padding: 24px 220px;
}
</style>
