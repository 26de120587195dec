<script setup lang="ts">
import { computed } from 'vue';
import type { Plate, PlateParam } from '../../core/passes/define';
import { sourceSeconds } from '../../core/plan/plan';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** Chooses a clean plate: none, a frame of this clip, the median over it, or other stock. */
const props = defineProps<{ param: PlateParam; plate: Plate; disabled: boolean }>();
const emit = defineEmits<{ change: [plate: Plate] }>();
const bench = useBench();
const store = useProject();
const own = computed(() => (bench.layer?.source.kind === 'stock' ? bench.layer.source.stock : null));
const stock = computed(() =>
  (store.project?.stock ?? []).filter((item) => item.kind !== 'sound' && item.id !== own.value),
);
const moving = computed(() => store.project?.stock.find((item) => item.id === own.value)?.kind === 'video');
const value = computed(() => {
  if (!props.plate) return 'none';
  if (props.plate.stock !== own.value) return props.plate.stock;
  return props.plate.median ? 'median' : 'frame';
});
const label = computed(() =>
  value.value === 'frame' ? `this clip at ${props.plate!.seconds.toFixed(2)} s` : 'this clip at the playhead',
);
function choose(choice: string): void {
  if (choice === 'none') emit('change', null);
  else if (choice === 'median') emit('change', { stock: own.value!, seconds: 0, median: true });
  else if (choice === 'frame')
    emit('change', {
      stock: own.value!,
      seconds: Math.max(0, sourceSeconds(bench.shot!, bench.layer!, bench.frame - bench.layer!.span.start)),
      median: false,
    });
  else emit('change', { stock: choice, seconds: 0, median: false });
}
</script>

<template>
  <label class="dial-row" :title="param.help">
    {{ param.label }}
    <select
      :value="value"
      :disabled="disabled"
      :aria-label="param.label"
      @change="choose(($event.target as HTMLSelectElement).value)"
    >
      <option value="none">none</option>
      <option v-if="own && moving" value="frame">{{ label }}</option>
      <option v-if="own && moving" value="median">median over this clip</option>
      <option v-for="item in stock" :key="item.id" :value="item.id">{{ item.name }}</option>
    </select>
  </label>
</template>
