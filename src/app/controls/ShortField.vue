<script setup lang="ts">
/** A short text that is taken as it is typed: a number with its unit, a sum. Its keys are its own. */
defineProps<{ label: string }>();
const text = defineModel<string>({ required: true });
</script>

<template>
  <v-text-field v-model="text" class="field mono" single-line hide-details :aria-label="label" @keydown.stop />
</template>
