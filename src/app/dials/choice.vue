<script setup lang="ts">
import Peg from '../controls/Peg.vue';
import type { ChoiceParam } from '../../core/params/choice';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<ChoiceParam, string>>();
const emit = defineEmits<DialEmits<string>>();
</script>

<template>
  <label class="dial-row" :title="param.help">
    {{ param.label }}
    <select
      :value="value"
      :disabled="disabled"
      :aria-label="param.label"
      @change="emit('change', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="option in param.options" :key="option.value" :value="option.value">{{ option.label }}</option>
    </select>
    <Peg :path="path" />
  </label>
</template>
