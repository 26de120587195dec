<script setup lang="ts">
import Dial from '../controls/Dial.vue';
import type { AngleParam } from '../../core/params/angle';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<AngleParam, number>>();
const emit = defineEmits<DialEmits<number>>();
</script>

<template>
  <Dial
    v-bind="{ path, label: param.label, help: param.help, value, disabled }"
    unit="°"
    :reset="param.default"
    :min="-36000"
    :max="36000"
    :slider="[-180, 180]"
    :digits="1"
    @change="(v, dragging) => emit('change', v, dragging)"
    @end="emit('end')"
  />
</template>
