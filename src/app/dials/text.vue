<script setup lang="ts">
import type { TextParam } from '../../core/params/text';
import Peg from '../controls/Peg.vue';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<TextParam, string>>();
const emit = defineEmits<DialEmits<string>>();
</script>

<template>
  <div class="text">
    <v-textarea
      :model-value="value"
      :label="param.label"
      :title="param.help"
      :maxlength="param.most"
      :disabled="disabled"
      rows="2"
      max-rows="8"
      auto-grow
      hide-details
      @update:model-value="(typed: string) => emit('change', typed, true)"
      @blur="emit('end')"
      @keydown.stop
      @keydown.esc="($event.target as HTMLElement).blur()"
    />
    <Peg :path="path" />
  </div>
</template>

<style scoped>
.text {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px;
  align-items: start;
  padding: 6px 0;
}
</style>
