<script setup lang="ts">
import { computed } from 'vue';
import { useBench } from '../stores/bench';
import type { LayersParam } from '../../core/params/reference';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<LayersParam, string[]>>();
const emit = defineEmits<DialEmits<string[]>>();
const bench = useBench();
/** Layers under the chosen one. */
const below = computed(() => {
  const { layers } = bench.shot!;
  return layers.slice(layers.findIndex((layer) => layer.id === bench.layerId) + 1);
});
</script>

<template>
  <div :title="param.help">
    <v-select
      multiple
      chips
      persistent-placeholder
      :model-value="value"
      :items="below"
      item-title="name"
      item-value="id"
      :label="param.label"
      placeholder="all that lie below"
      :disabled="disabled"
      @update:model-value="emit('change', $event)"
    />
  </div>
</template>

<style scoped>
.v-select {
  margin-block: 6px;
}
</style>
