<script setup lang="ts">
import Peg from '../controls/Peg.vue';
import ColourField from '../controls/ColourField.vue';
import type { Colour } from '../../core/params/define';
import type { ColourParam } from '../../core/params/colour';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<ColourParam, Colour>>();
const emit = defineEmits<DialEmits<Colour>>();
</script>

<template>
  <div class="dial-row" :title="param.help">
    {{ param.label }}
    <span class="dial-row"
      ><ColourField
        :label="param.label"
        :value="value"
        :disabled="disabled"
        @change="(colour) => emit('change', colour, true)"
        @end="emit('end')" /><Peg :path="path"
    /></span>
  </div>
</template>
