<script setup lang="ts">
import { computed, provide } from 'vue';
import type { Layer } from '../../core/document/schema';
import { sourceOf } from '../../core/sources/registry';
import { NO_PEGS } from '../controls/peg';
import { dialOf } from '../dials/define';
import ParamList from '../dials/ParamList.vue';
import { SIBLINGS } from '../dials/siblings';

/** Some dials of a layer that is in no shot yet. */
const props = defineProps<{ layer: Layer; names: readonly string[] }>();
const emit = defineEmits<{ change: [name: string, value: unknown] }>();
const params = computed(() => sourceOf(props.layer.source.type)?.params ?? {});
const dials = computed(() =>
  props.names.flatMap((name) => {
    const param = params.value[name];
    const dial = param && dialOf(param.kind);
    return dial ? [{ name, param, dial }] : [];
  }),
);
provide(NO_PEGS, true);
provide(SIBLINGS, {
  get params() {
    return params.value;
  },
  now: (name) => (props.layer.source.values[name] as { still?: unknown } | undefined)?.still,
  change: (name, value) => emit('change', name, value),
  end: () => undefined,
});
</script>

<template>
  <section :aria-label="layer.name">
    <h3 class="dim">{{ layer.name }}</h3>
    <ParamList :dials="dials" path="source" :disabled="false" />
  </section>
</template>

<style scoped>
h3 {
  margin: 6px 0 2px;
  font-size: 0.75rem;
  font-weight: 400;
}
</style>
