<script setup lang="ts">
import Peg from '../controls/Peg.vue';
import Choice from '../controls/Choice.vue';
import type { ChoiceParam } from '../../core/params/choice';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<ChoiceParam, string>>();
const emit = defineEmits<DialEmits<string>>();
</script>

<template>
  <div class="dial-row" :title="param.help">
    {{ param.label }}
    <Choice
      :label="param.label"
      :value="value"
      :options="param.options.map((option) => ({ value: option.value, title: option.label }))"
      :disabled="disabled"
      @change="(next) => emit('change', next)"
    />
    <Peg :path="path" />
  </div>
</template>
