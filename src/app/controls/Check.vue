<script setup lang="ts">
/** Something that is so or not, in a row of dials. */
defineProps<{ label: string; value: boolean; disabled?: boolean }>();
defineEmits<{ change: [value: boolean] }>();
</script>

<template>
  <v-checkbox
    class="check"
    :label="label"
    :model-value="value"
    :disabled="disabled"
    @update:model-value="(value: boolean | null) => $emit('change', !!value)"
  />
</template>

<style scoped>
.check {
  --v-input-control-height: 1.625rem;
  flex: none;
}
.check :deep(.v-selection-control) {
  --v-selection-control-size: 1.5rem;
  min-height: 1.625rem;
}
.check :deep(.v-label) {
  padding-left: 4px;
  color: var(--text);
}
.check :deep(.v-icon) {
  font-size: 1.125rem;
}
</style>
