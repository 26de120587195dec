<script setup lang="ts">
import { computed } from 'vue';
import Dial from '../controls/Dial.vue';
import type { NumberParam } from '../../core/params/number';
import type { DialEmits, DialProps } from './define';

const props = defineProps<DialProps<NumberParam, number>>();
const emit = defineEmits<DialEmits<number>>();
/** Percent is stored as a share of one. */
const factor = computed(() => (props.param.unit === '%' ? 100 : 1));
</script>

<template>
  <Dial
    v-bind="{ path, label: param.label, help: param.help, unit: param.unit, disabled }"
    :value="value * factor"
    :reset="param.default * factor"
    :min="param.min * factor"
    :max="param.max * factor"
    :slider="[param.slider[0] * factor, param.slider[1] * factor]"
    :digits="factor === 100 ? 1 : 2"
    @change="(v, dragging) => emit('change', v / factor, dragging)"
    @end="emit('end')"
  />
</template>
