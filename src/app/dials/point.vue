<script setup lang="ts">
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import type { PointParam } from '../../core/params/point';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<PointParam, [number, number]>>();
const emit = defineEmits<DialEmits<[number, number]>>();
const AXES = ['x', 'y'] as const;
</script>

<template>
  <div class="dial-row" role="group" :aria-label="param.label" :title="param.help">
    {{ param.label }}
    <span class="dial-row">
      <NumberField
        v-for="(axis, i) in AXES"
        :key="axis"
        :label="`${param.label} ${axis}`"
        unit="px"
        :value="value[i]!"
        :min="-1000000"
        :max="1000000"
        :digits="1"
        :disabled="disabled"
        @change="(v, dragging) => emit('change', i ? [value[0], v] : [v, value[1]], dragging)"
        @end="emit('end')"
      />
      <Peg :path="path" />
    </span>
  </div>
</template>
