<script setup lang="ts">
import { computed, provide } from 'vue';
import type { Holder } from '../../core/document/edits/jig-dials';
import { NO_PEGS } from '../controls/peg';
import { dialOf } from '../dials/define';
import ParamList from '../dials/ParamList.vue';
import { SIBLINGS } from '../dials/siblings';

/** Some dials of a part of a jig, which is in no shot yet. */
const props = defineProps<{ holder: Holder; names: readonly string[] }>();
const emit = defineEmits<{ change: [name: string, value: unknown] }>();
const dials = computed(() =>
  props.names.flatMap((name) => {
    const param = props.holder.params[name];
    const dial = param && dialOf(param.kind);
    return dial ? [{ name, param, dial }] : [];
  }),
);
provide(NO_PEGS, true);
provide(SIBLINGS, {
  get params() {
    return props.holder.params;
  },
  now: (name) => (props.holder.values[name] as { still?: unknown } | undefined)?.still,
  change: (name, value) => emit('change', name, value),
  end: () => undefined,
});
</script>

<template>
  <section :aria-label="holder.title">
    <h3 class="dim">{{ holder.title }}</h3>
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
