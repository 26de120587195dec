<script setup lang="ts">
import type { Colour } from '../../core/params/define';
import { fromHex, hexOf } from '../../core/base/hex';

/** A colour, by the browser's own chooser. */
defineProps<{ label: string; value: Colour; disabled?: boolean }>();
const emit = defineEmits<{ change: [colour: Colour]; end: [] }>();
const read = (event: Event): Colour => fromHex((event.target as HTMLInputElement).value);
</script>

<template>
  <input
    type="color"
    :value="hexOf(value)"
    :disabled="disabled"
    :aria-label="label"
    @input="emit('change', read($event))"
    @change="emit('end')"
  />
</template>

<style scoped>
input {
  width: 2.5rem;
  height: 1.5rem;
}
</style>
