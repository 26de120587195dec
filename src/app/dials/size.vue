<script setup lang="ts">
import NumberField from '../controls/NumberField.vue';
import type { SizeParam } from '../../core/params/size';
import type { DialEmits, DialProps } from './define';

const props = defineProps<DialProps<SizeParam, [number, number]>>();
const emit = defineEmits<DialEmits<[number, number]>>();
const SIDES = ['width', 'height'] as const;
const sized = (i: number, v: number): [number, number] =>
  i ? [props.value[0], Math.round(v)] : [Math.round(v), props.value[1]];
</script>

<template>
  <div class="dial-row" role="group" :aria-label="param.label" :title="param.help">
    {{ param.label }}
    <span class="dial-row">
      <NumberField
        v-for="(side, i) in SIDES"
        :key="side"
        :label="`${param.label} ${side}`"
        unit="px"
        :value="value[i]!"
        :min="1"
        :max="16384"
        :digits="0"
        :disabled="disabled"
        @change="(v, dragging) => emit('change', sized(i, v), dragging)"
        @end="emit('end')"
      />
    </span>
  </div>
</template>
