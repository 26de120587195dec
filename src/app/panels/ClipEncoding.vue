<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { encodingOf, setEncoding } from '../../core/document/edits/clip-line';
import type { PassId, Stock } from '../../core/document/schema';
import { LOG_CURVES, type LogCurveName } from '../../core/picture/encodings';
import { sourcePlan } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** How a clip was recorded; a hint when it looks as if it had been recorded with a log curve. */
const props = defineProps<{ stock: Stock; disabled: boolean }>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const AS_IT_LOOKS = 'display';
const CHOICES = [
  { value: AS_IT_LOOKS, title: 'as it looks' },
  ...Object.entries(LOG_CURVES).map(([value, { title }]) => ({ value, title })),
];
const encoding = computed({
  get: () => encodingOf(props.stock) ?? AS_IT_LOOKS,
  set: (value) =>
    store.edit(setEncoding(props.stock.id, value === AS_IT_LOOKS ? null : (value as LogCurveName), newId<PassId>())),
});

const flat = ref(false);
watch(
  () => [props.stock.id, props.stock.line.length, playhead.layerHere] as const,
  async ([, passes]) => {
    flat.value = false;
    const { shot, layer } = bench;
    if (passes || !store.project || !shot || !layer || !playhead.layerHere) return;
    const plan = sourcePlan(store.project, shot, layer, playhead.frame, 4);
    // what cannot be shown is said in the viewer
    const read = plan && (await (await useEngine()).measure(plan, 'flatness', null).catch(() => null));
    flat.value = !!read?.flat;
  },
  { immediate: true },
);
</script>

<template>
  <v-select v-model="encoding" label="The clip was recorded" :items="CHOICES" :disabled="disabled" />
  <p v-if="flat && encoding === AS_IT_LOOKS" class="hint" role="note">
    This picture has no black, no white and little colour, as footage recorded with a log curve has. If your camera was
    set to one, choose it here.
  </p>
</template>

<style scoped>
.hint {
  margin-top: 6px;
  padding: 4px 8px;
  border-left: 2px solid var(--brass);
  font-size: 0.75rem;
  color: var(--dim);
}
</style>
