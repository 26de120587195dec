<script setup lang="ts">
import { onMounted, shallowRef } from 'vue';
import { resetPlace } from '../../core/document/edits/layers';
import type { Layer } from '../../core/document/schema';
import { useBench } from '../stores/bench';
import { useEdits } from '../stores/edits';
import { usePlayhead } from '../stores/playhead';
import { pinFrame, pinLayer } from '../stores/stills';
import { useSelection } from '../stores/selection';
import { layersAt } from './click-choice';
import type { XY } from './frame';

/** What can be done at a place of the picture. @property spot in shot pixels from its top left */
const props = defineProps<{ at: [number, number]; spot: XY }>();
const emit = defineEmits<{ close: []; zoom: [scale: number | null] }>();
const bench = useBench();
const edits = useEdits();
const playhead = usePlayhead();
const selection = useSelection();
const here = shallowRef<Layer[]>([]);
onMounted(async () => {
  const ids = await layersAt(props.spot).catch(() => []);
  here.value = ids.flatMap((id) => bench.shot?.layers.find((layer) => layer.id === id) ?? []);
});
</script>

<template>
  <v-menu :model-value="true" :target="at" aria-label="The picture here" @update:model-value="emit('close')">
    <v-list>
      <v-list-item
        v-for="layer in here"
        :key="layer.id"
        :title="layer.name"
        subtitle="choose this layer"
        :active="layer.id === bench.layerId"
        @click="bench.choose(layer.id)"
      />
      <v-divider v-if="here.length" />
      <v-list-item v-if="bench.layer" :title="`Copy ${bench.layer.name}`" subtitle="Ctrl+C" @click="selection.copy()" />
      <v-list-item
        v-if="bench.layer && !bench.layer.locked"
        :title="`Reset the place of ${bench.layer.name}`"
        @click="edits.editLayer(resetPlace)"
      />
      <v-list-item title="Pin this frame to the stock" @click="pinFrame" />
      <v-list-item v-if="playhead.layerHere && bench.size" title="Pin the layer alone" @click="pinLayer" />
      <v-divider />
      <v-list-item title="Fit" subtitle="F" @click="emit('zoom', null)" />
      <v-list-item title="100 %" @click="emit('zoom', 1)" />
    </v-list>
  </v-menu>
</template>
