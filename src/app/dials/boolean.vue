<script setup lang="ts">
import type { BooleanParam } from '../../core/params/boolean';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<BooleanParam, boolean>>();
const emit = defineEmits<DialEmits<boolean>>();
</script>

<template>
  <v-switch
    :model-value="value"
    :label="param.label"
    :title="param.help"
    :disabled="disabled"
    @update:model-value="emit('change', $event === true)"
  />
</template>

<style scoped>
/* its knob stands out of its track */
.v-switch {
  padding-left: 6px;
}
.v-switch :deep(.v-selection-control:not(.v-selection-control--dirty) .v-switch__thumb) {
  background: var(--dim);
}
</style>
