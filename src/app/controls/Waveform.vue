<script setup lang="ts">
import { computed } from 'vue';

/** A sound's peaks as a filled outline, as high as they are or with the loudest at full height. */
const props = defineProps<{ peaks: readonly number[]; absolute?: boolean }>();
const path = computed(() => {
  const loudest = props.absolute ? 1 : Math.max(0.05, ...props.peaks);
  const top = props.peaks.map((peak, i) => `${i} ${(50 - (48 * peak) / loudest).toFixed(1)}`);
  const low = props.peaks.map((peak, i) => `${i} ${(50 + (48 * peak) / loudest).toFixed(1)}`).reverse();
  return `M${[...top, ...low].join('L')}z`;
});
</script>

<template>
  <svg class="wave" :viewBox="`0 0 ${peaks.length} 100`" preserveAspectRatio="none" aria-hidden="true">
    <path :d="path" />
  </svg>
</template>

<style scoped>
.wave {
  width: 100%;
  height: 100%;
  min-height: 0;
}
path {
  fill: var(--dim);
}
</style>
