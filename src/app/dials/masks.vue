<script setup lang="ts">
import MaskPicker from '../controls/MaskPicker.vue';
import type { MaskId } from '../../core/document/mask';
import type { MasksParam } from '../../core/params/masks';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<MasksParam, MaskId[]>>();
const emit = defineEmits<DialEmits<MaskId[]>>();
</script>

<template>
  <div :title="param.help">
    <span class="dial-row"
      >{{ param.label }}
      <span v-if="!value.length" class="dim">{{ param.empty === 'all' ? 'all of them' : 'none' }}</span></span
    >
    <MaskPicker :label="param.label" :chosen="value" :disabled="disabled" @change="(ids) => emit('change', ids)" />
  </div>
</template>
