<script setup lang="ts">
import { computed } from 'vue';
import type { Plate, PlateParam } from '../../core/params/plate';
import { isSeen, stockOf } from '../../core/document/schema';
import { sourceSeconds } from '../../core/plan/sources';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import type { DialEmits, DialProps } from './define';
import { useProject } from '../stores/project';
import Choice from '../controls/Choice.vue';

/** Chooses a clean plate: none, a frame of this clip, the median over it, or other stock. */
const props = defineProps<DialProps<PlateParam, Plate>>();
const emit = defineEmits<DialEmits<Plate>>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const own = computed(() => bench.layer && stockOf(bench.layer));
const stock = computed(() => (store.project?.stock ?? []).filter((item) => isSeen(item) && item.id !== own.value));
const moving = computed(() => store.project?.stock.find((item) => item.id === own.value)?.kind === 'video');
const chosen = computed(() => {
  if (!props.value) return 'none';
  if (props.value.stock !== own.value) return props.value.stock;
  return props.value.median ? 'median' : 'frame';
});
const label = computed(() =>
  chosen.value === 'frame' ? `this clip at ${props.value!.seconds.toFixed(2)} s` : 'this clip at the playhead',
);
function choose(choice: string): void {
  if (choice === 'none') emit('change', null);
  else if (choice === 'median') emit('change', { stock: own.value!, seconds: 0, median: true });
  else if (choice === 'frame')
    emit('change', {
      stock: own.value!,
      seconds: Math.max(0, sourceSeconds(bench.shot!, bench.layer!, playhead.frame - bench.layer!.span.start)),
      median: false,
    });
  else emit('change', { stock: choice, seconds: 0, median: false });
}
</script>

<template>
  <div class="dial-row" :title="param.help">
    {{ param.label }}
    <Choice
      :label="param.label"
      :value="chosen"
      :options="[
        { value: 'none', title: 'none' },
        ...(own && moving
          ? [
              { value: 'frame', title: label },
              { value: 'median', title: 'median over this clip' },
            ]
          : []),
        ...stock.map(({ id, name }) => ({ value: id as string, title: name })),
      ]"
      :disabled="disabled"
      @change="choose"
    />
  </div>
</template>
