<script setup lang="ts">
import { computed } from 'vue';
import NumberField from './NumberField.vue';
import Peg from './Peg.vue';

/** A named number with a field and, where a useful range is known, a slider. Double-click the name to reset. */
const props = withDefaults(
  defineProps<{
    label: string;
    /** said below its name */
    note?: string;
    value: number;
    unit?: string;
    help?: string;
    reset?: number | undefined;
    min?: number;
    max?: number;
    slider?: readonly [number, number] | null;
    digits?: number;
    disabled?: boolean;
    /** of the animatable value behind it */
    path?: string | undefined;
  }>(),
  {
    note: '',
    unit: '',
    help: '',
    reset: undefined,
    min: -Infinity,
    max: Infinity,
    slider: null,
    digits: 2,
    disabled: false,
    path: undefined,
  },
);
const emit = defineEmits<{ change: [value: number, dragging: boolean]; end: [] }>();

const step = computed(() => (props.slider && props.slider[1] - props.slider[0] <= 10 ? 0.05 : 1));
const filled = computed(() => {
  if (!props.slider) return '0%';
  const [low, high] = props.slider;
  return `${Math.min(100, Math.max(0, ((props.value - low) / (high - low)) * 100))}%`;
});

function resetValue(): void {
  if (props.reset === undefined || props.disabled) return;
  emit('change', props.reset, false);
  emit('end');
}
</script>

<template>
  <div class="dial">
    <v-tooltip :text="reset === undefined ? help : `${help} Double-click resets.`" location="start" :disabled="!help">
      <template #activator="{ props: tip }">
        <span class="name" v-bind="tip" @dblclick="resetValue"
          >{{ label }}<small v-if="note" class="dim">{{ note }}</small></span
        >
      </template>
    </v-tooltip>
    <NumberField
      v-bind="{ label, value, unit, min, max, step, digits, disabled }"
      @change="(v, d) => emit('change', v, d)"
      @end="emit('end')"
    />
    <Peg v-if="path" :path="path" />
    <input
      v-if="slider"
      type="range"
      :style="{ '--filled': filled }"
      :aria-label="`${label} slider`"
      :min="slider[0]"
      :max="slider[1]"
      :step="step / 5"
      :value="value"
      :disabled="disabled"
      @input="emit('change', Number(($event.target as HTMLInputElement).value), true)"
      @change="emit('end')"
      @keydown.stop
    />
  </div>
</template>

<style scoped>
.dial {
  display: grid;
  grid-template-columns: minmax(4.5rem, 1fr) auto auto;
  align-items: center;
  column-gap: 8px;
  padding: 3px 0;
}
.name small {
  display: block;
  font-size: 0.6875rem;
  line-height: 1;
}
.name {
  cursor: default;
  user-select: none;
  overflow: hidden;
  text-overflow: ellipsis;
}
input[type='range'] {
  grid-column: 1 / -1;
  margin-top: 3px;
}
</style>
