<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useElementSize } from '@vueuse/core';
import { VueDraggable } from 'vue-draggable-plus';
import { mdiPlay, mdiRepeat, mdiSkipNext, mdiSkipPrevious, mdiStop } from '@mdi/js';
import { orderLayer } from '../../core/document/edits/layers';
import type { Layer } from '../../core/document/schema';
import { timecode } from '../../core/time/timecode';
import IconButton from '../controls/IconButton.vue';
import { useBench, type PreviewScale } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import LayerRow from '../time/LayerRow.vue';
import Ruler from '../time/Ruler.vue';
import { stackStock } from '../time/actions';

const bench = useBench();
const player = usePlayer();
const store = useProject();
const area = ref<HTMLElement>();
const { width } = useElementSize(area);
const LABELS = 208;
/** times the width at which the whole shot shows */
const zoom = ref(1);
const order = ref<Layer[]>([]);

const shot = computed(() => bench.shot!);
watch(
  () => shot.value.layers,
  (layers) => (order.value = [...layers]),
  { immediate: true },
);
const perFrame = computed(() => Math.max(0.02, ((width.value - LABELS - 24) / shot.value.length) * zoom.value));
const playhead = computed(() => LABELS + (bench.frame + 0.5) * perFrame.value);
const SCALES: { value: PreviewScale; label: string }[] = [
  { value: 'auto', label: 'automatic' },
  { value: 1, label: 'full' },
  { value: 2, label: '½' },
  { value: 4, label: '¼' },
];
const scaleNow = computed(() => ({ 1: 'full', 2: '½', 4: '¼' })[player.reduction]);

function reordered({ oldIndex, newIndex }: { oldIndex?: number; newIndex?: number }): void {
  const layer = shot.value.layers[oldIndex ?? -1];
  if (layer && newIndex !== undefined && shot.value.id) store.edit(orderLayer(store.current(), { shot: shot.value.id, layer: layer.id }, newIndex));
}
const frameAt = (clientX: number) => (clientX - area.value!.getBoundingClientRect().left + area.value!.scrollLeft - LABELS) / perFrame.value;
function drop(event: DragEvent): void {
  const item = store.project?.stock.find((entry) => entry.id === event.dataTransfer?.getData('application/x-jackplane-stock'));
  if (item) stackStock(item, Math.max(0, Math.round(frameAt(event.clientX))));
}
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey) return;
  event.preventDefault();
  const at = frameAt(event.clientX);
  const left = event.clientX - area.value!.getBoundingClientRect().left;
  zoom.value = Math.min(60, Math.max(1, zoom.value * 1.25 ** -Math.sign(event.deltaY)));
  requestAnimationFrame(() => (area.value!.scrollLeft = at * perFrame.value + LABELS - left));
}
</script>

<template>
  <section class="time" aria-label="Time">
    <div class="transport">
      <IconButton label="First frame" keys="Home" :icon="mdiSkipPrevious" @click="bench.seek(0)" />
      <IconButton :label="player.playing ? 'Stop' : 'Play'" keys="Space" :icon="player.playing ? mdiStop : mdiPlay" @click="player.toggle" />
      <IconButton label="Last frame" keys="End" :icon="mdiSkipNext" @click="bench.seek(shot.length - 1)" />
      <IconButton label="Loop" :pressed="player.loop" :icon="mdiRepeat" @click="player.loop = !player.loop" />
      <strong class="mono code">{{ timecode(bench.frame, shot.rate) }}</strong>
      <span class="mono dim">f <span aria-label="Frame" role="status">{{ bench.frame }}</span> / {{ shot.length }}</span>
      <span class="mono dim state" role="status">cached {{ player.cachedCount }} of {{ shot.length }} · dropped {{ player.dropped }}</span>
      <label class="dim preview">
        Preview
        <select v-model="bench.scale" aria-label="Preview scale">
          <option v-for="scale in SCALES" :key="scale.label" :value="scale.value">{{ scale.label }}{{ scale.value === 'auto' ? ` (${scaleNow})` : '' }}</option>
        </select>
      </label>
      <label class="dim preview">Zoom <input v-model.number="zoom" class="zoom" type="range" min="1" max="20" step="0.1" aria-label="Zoom of the time panel" @keydown.stop /></label>
    </div>
    <div ref="area" class="area" @wheel="wheel" @dragover.prevent @drop.stop.prevent="drop">
      <div class="sheet" :style="{ width: `${LABELS + shot.length * perFrame + 24}px` }">
        <div class="head">
          <span class="corner dim">{{ shot.layers.length }} {{ shot.layers.length === 1 ? 'layer' : 'layers' }}, top first</span>
          <Ruler :length="shot.length" :per-frame="perFrame" :rate="shot.rate" @seek="bench.seek" />
        </div>
        <VueDraggable v-model="order" handle=".grip" :animation="120" @end="reordered">
          <LayerRow v-for="layer in order" :key="layer.id" :layer="layer" :per-frame="perFrame" :labels="LABELS" />
        </VueDraggable>
        <p v-if="!order.length" class="dim none">An empty shot. Drag stock here; where you drop it is where it begins.</p>
        <div class="playhead" :style="{ transform: `translateX(${playhead}px)` }" aria-hidden="true" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.time {
  display: grid;
  grid-template-rows: 29px 1fr;
  height: 100%;
  background: var(--panel);
}
.transport {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 10px;
  border-bottom: 1px solid var(--line);
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
}
.code {
  margin: 0 8px;
  font-size: 13px;
}
.state {
  margin: 0 auto;
}
.preview {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: 12px;
}
select {
  height: 22px;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  color: inherit;
}
.zoom {
  width: 90px;
}
.area {
  overflow: auto;
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
  height: 20px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.corner {
  position: sticky;
  z-index: 1;
  left: 0;
  flex: none;
  width: 208px;
  padding: 1px 12px;
  font-size: 11px;
  background: var(--panel);
  border-right: 1px solid var(--line);
}
.playhead {
  position: absolute;
  z-index: 3;
  top: 0;
  bottom: 0;
  left: 0;
  width: 1px;
  background: var(--brass);
  pointer-events: none;
}
.playhead::before {
  content: '';
  position: sticky;
  top: 0;
  display: block;
  width: 11px;
  height: 12px;
  margin-left: -5px;
  background: var(--brass);
  clip-path: polygon(0 0, 100% 0, 100% 60%, 50% 100%, 0 60%);
}
.none {
  padding: 24px 220px;
}
</style>
