<script setup lang="ts">
import { computed } from 'vue';
import { stockOf, type Layer } from '../../core/document/schema';
import { useProject } from '../stores/project';
import { useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';
import KeyRow from './KeyRow.vue';
import LayerBar from './LayerBar.vue';
import LayerHead from './LayerHead.vue';
import TrackRow from './TrackRow.vue';

/** One layer: its head, its bar, and the rows under it when it is open. */
const props = defineProps<{
  layer: Layer;
  perFrame: number;
  labels: number;
  /** frames in view */ from: number;
  to: number;
}>();
const rows = useRows();
const selection = useSelection();
const store = useProject();

const chosen = computed(() => selection.layers.includes(props.layer.id));
const values = computed(() => rows.valueRows(props.layer));
const tracks = computed(() => rows.tracks(props.layer));
const opened = computed(() => rows.open.has(props.layer.id));
const isSound = computed(() => {
  const stock = stockOf(props.layer);
  return store.project?.stock.find((item) => item.id === stock)?.kind === 'sound';
});
/** The menu of what can be done with the layer, where it is pointed at. */
function menu(event: MouseEvent): void {
  if (!selection.layers.includes(props.layer.id)) selection.pickLayer(props.layer.id, false);
  selection.menuAt = [event.clientX, event.clientY];
}
</script>

<template>
  <div>
    <div class="row" role="group" :aria-label="`Layer ${layer.name}`" @contextmenu.prevent="menu">
      <LayerHead
        :layer="layer"
        :chosen="chosen"
        :rows="values.length + tracks.length"
        :is-sound="isSound"
        :style="{ width: `${labels}px` }"
      />
      <LayerBar v-bind="{ layer, chosen, perFrame, labels, from, to }" />
    </div>
    <template v-if="opened">
      <KeyRow v-for="row in values" :key="row.id" v-bind="{ layer, row, perFrame, labels, from, to }" />
      <TrackRow v-for="track in tracks" :key="track.id" v-bind="{ layer, track, perFrame, labels, from, to }" />
    </template>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  height: var(--row);
  border-bottom: 1px solid var(--line);
}
</style>
