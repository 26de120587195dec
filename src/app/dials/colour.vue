<script setup lang="ts">
import Peg from '../controls/Peg.vue';
import { fromHex, hexOf } from '../controls/hex';
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
      ><input
        type="color"
        :value="hexOf(value)"
        :disabled="disabled"
        :aria-label="param.label"
        @input="emit('change', fromHex(($event.target as HTMLInputElement).value), true)"
        @change="emit('end')" /><Peg :path="path"
    /></span>
  </div>
</template>
