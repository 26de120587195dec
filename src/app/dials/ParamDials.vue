<script setup lang="ts">
import { computed } from 'vue';
import type { Value } from '../../core/base/value';
import type { Params } from '../../core/params/registry';
import { steadyAt } from '../../core/time/values';
import { dialOf } from './define';
import { useBench } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';

/** The dials of something declared, each made by the kind of its parameter. @param path of its values */
const props = defineProps<{
  params: Params;
  values: Readonly<Record<string, Value<unknown>>>;
  path: string;
  disabled: boolean;
}>();
const emit = defineEmits<{ change: [name: string, value: unknown, dragging: boolean] }>();
const bench = useBench();
const store = useProject();
const player = usePlayer();

const valueOf = (name: string): unknown => steadyAt(props.values[name]!, bench.moment.frame);
/** Those that have an effect at this frame and are set here. */
const shown = computed(() =>
  Object.entries(props.params).flatMap(([name, param]) => {
    const dial = dialOf(param.kind);
    const counts = !param.when || valueOf(param.when.choice) === param.when.is;
    return dial && counts && name in props.values ? [{ name, param, dial }] : [];
  }),
);
defineExpose({ shown });

function change(name: string, value: unknown, dragging = false): void {
  if (dragging) player.touching = true;
  emit('change', name, value, dragging);
}
function end(): void {
  player.touching = false;
  store.endGesture();
}
</script>

<template>
  <component
    :is="dial"
    v-for="{ name, param, dial } in shown"
    :key="name"
    :name="name"
    :param="param"
    :value="valueOf(name)"
    :path="`${path}.${name}`"
    :disabled="disabled"
    @change="(value: unknown, dragging?: boolean) => change(name, value, dragging)"
    @end="end"
  />
</template>
