<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { computed } from 'vue';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import { hexOf } from '../../core/base/hex';
import ColourField from '../controls/ColourField.vue';
import type { Colour } from '../../core/params/define';
import { MOST_STOPS, type RampParam, type RampStop } from '../../core/params/ramp';
import type { DialEmits, DialProps } from './define';

const props = defineProps<DialProps<RampParam, RampStop[]>>();
const emit = defineEmits<DialEmits<RampStop[]>>();
const strip = computed(
  () => `linear-gradient(90deg, ${props.value.map(([at, colour]) => `${hexOf(colour)} ${at * 100}%`).join(', ')})`,
);
const put = (i: number, stop: RampStop, dragging = false): void => emit('change', props.value.with(i, stop), dragging);
/** A colour between the last two. */
function add(): void {
  const [[from, a], [to, b]] = props.value.slice(-2) as [RampStop, RampStop];
  const between = a.map((part, c) => (part + b[c]!) / 2) as unknown as Colour;
  emit('change', props.value.toSpliced(-1, 0, [(from + to) / 2, between]));
}
</script>

<template>
  <div class="ramp" role="group" :aria-label="param.label" :title="param.help">
    <span class="dial-row">{{ param.label }} <Peg :path="path" /></span>
    <span class="strip" :style="{ background: strip }" aria-hidden="true" />
    <span v-for="([at, colour], i) in value" :key="i" class="dial-row">
      <ColourField
        :label="`Colour ${i + 1} of ${param.label}`"
        :value="colour"
        :disabled="disabled"
        @change="(next) => put(i, [at, next], true)"
        @end="emit('end')"
      />
      <NumberField
        :label="`Place of colour ${i + 1}`"
        unit="%"
        :value="at * 100"
        :min="(value[i - 1]?.[0] ?? 0) * 100"
        :max="(value[i + 1]?.[0] ?? 1) * 100"
        :digits="1"
        :disabled="disabled"
        @change="(v, dragging) => put(i, [v / 100, colour], dragging)"
        @end="emit('end')"
      />
      <IconButton
        :label="`Remove colour ${i + 1}`"
        :icon="mdiClose"
        :disabled="disabled || value.length < 3"
        @click="emit('change', value.toSpliced(i, 1))"
      />
    </span>
    <v-btn size="small" :disabled="disabled || value.length >= MOST_STOPS" @click="add">One more colour</v-btn>
  </div>
</template>

<style scoped>
.ramp {
  display: grid;
  gap: 4px;
  padding: 4px 0 8px;
}
.strip {
  height: 14px;
  border: 1px solid var(--line);
  border-radius: 2px;
}
</style>
