<script setup lang="ts">
import { computed } from 'vue';
import type { TextParam } from '../../core/params/text';
import Peg from '../controls/Peg.vue';
import type { DialEmits, DialProps } from './define';

const props = defineProps<DialProps<TextParam, string>>();
const emit = defineEmits<DialEmits<string>>();
// measuring a long text at each letter would hold up typing
const rows = computed(() =>
  Math.min(8, Math.max(2, props.value.split('\n').length + (props.value.length > 80 ? 2 : 0))),
);
</script>

<template>
  <div class="text">
    <v-textarea
      :model-value="value"
      :label="param.label"
      :title="param.help"
      :maxlength="param.most"
      :disabled="disabled"
      :rows="rows"
      no-resize
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
