<script setup lang="ts">
import Dial from '../controls/Dial.vue';
import type { SeedParam } from '../../core/params/seed';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<SeedParam, number>>();
const emit = defineEmits<DialEmits<number>>();
</script>

<template>
  <Dial
    v-bind="{ path, label: param.label, help: param.help, value, disabled }"
    :reset="param.default"
    :min="0"
    :max="1000000"
    :slider="[0, 100]"
    :digits="0"
    @change="(v, dragging) => emit('change', Math.round(v), dragging)"
    @end="emit('end')"
  />
</template>
