<script setup lang="ts" generic="T extends string | number">
import { computed } from 'vue';
import { sameItems } from '../base/same';

/** One of a few things, small enough for a row of dials. */
const props = defineProps<{
  label: string;
  value: T | null;
  options: readonly { value: T; title: string }[];
  disabled?: boolean;
  /** what stands there while none of them is chosen */
  placeholder?: string;
}>();
defineEmits<{ change: [value: T] }>();
const items = computed<typeof props.options>((before) => sameItems(props.options, before));
</script>

<template>
  <v-select
    class="choice"
    single-line
    hide-details
    :aria-label="label"
    :model-value="value"
    :items="items"
    :disabled="disabled"
    :placeholder="placeholder"
    @update:model-value="(value: T) => $emit('change', value)"
  />
</template>

<style scoped>
.choice {
  flex: 0 1 auto;
  min-width: 5.5rem;
  max-width: 10rem;
}
</style>
