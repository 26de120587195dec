<script setup lang="ts">
import { computed } from 'vue';
import { useBench } from '../stores/bench';
import { showing } from '../../core/document/shown-layers';
import { sourceSize } from '../../core/document/find';
import { useProject } from '../stores/project';
import type { PicturesParam } from '../../core/params/pictures';
import type { DialEmits, DialProps } from './define';

/** Chooses layers of the shot whose pictures are used: those that have one, and do not show this one themselves. */
const props = defineProps<DialProps<PicturesParam, string[]>>();
const emit = defineEmits<DialEmits<string[]>>();
const bench = useBench();
const store = useProject();
const offered = computed(() => {
  const { layers } = bench.shot!;
  const round = bench.layerId ? showing(layers, bench.layerId) : new Set();
  return layers.filter(
    (layer) =>
      !round.has(layer.id) &&
      layer.source.type !== 'adjustment' &&
      sourceSize(store.project!, bench.shot!, layer) !== null,
  );
});
/** Of chosen ones those that are still there. */
const chosen = computed(() => props.value.filter((id) => bench.shot!.layers.some((layer) => layer.id === id)));
const choose = (ids: string | string[] | null) => emit('change', [ids ?? []].flat());
</script>

<template>
  <div :title="param.help">
    <v-select
      :multiple="param.most > 1"
      :chips="param.most > 1"
      :clearable="param.most === 1"
      persistent-placeholder
      :model-value="param.most > 1 ? chosen : (chosen[0] ?? null)"
      :items="offered"
      item-title="name"
      item-value="id"
      :label="param.label"
      :placeholder="param.none"
      :disabled="disabled"
      no-data-text="no other layer of this shot has a picture"
      @update:model-value="choose"
    />
  </div>
</template>

<style scoped>
.v-select {
  margin-block: 6px;
}
</style>
