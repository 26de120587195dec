<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { listed, parseQuantity } from '../../core/time/quantity';
import type { FrameRate } from '../../core/time/rate';

/**
 * The one number field: typed (with arithmetic; several numbers go on in the next fields), dragged sideways on its unit, or nudged with the arrow keys.
 * Values are as shown (percent as 50, not 0.5).
 */
const props = withDefaults(
  defineProps<{
    label: string;
    value: number;
    unit?: string;
    min?: number;
    max?: number;
    step?: number;
    digits?: number;
    disabled?: boolean;
    rate?: FrameRate | undefined;
  }>(),
  { unit: '', min: -Infinity, max: Infinity, step: 1, digits: 2, disabled: false, rate: undefined },
);
const emit = defineEmits<{ change: [value: number, dragging: boolean]; end: [] }>();

const shown = computed(() => String(Number(props.value.toFixed(props.digits))));
const text = ref(shown.value);
const problem = ref<string | null>(null);
const editing = ref(false);
watch(shown, (now) => {
  if (!editing.value) text.value = now;
});

const input = ref<HTMLInputElement>();
/** Gives what was typed beyond this field to the number field after it, which does the same. */
async function passOn(rest: readonly string[]): Promise<void> {
  const all = [
    ...(input.value?.closest('[role=tabpanel], form, section')?.querySelectorAll<HTMLInputElement>('.number input') ??
      []),
  ];
  const next = all[all.indexOf(input.value!) + 1];
  if (!next) {
    problem.value = `There is no field after this one for ${rest.join('; ')}.`;
    return;
  }
  await nextTick();
  next.focus();
  next.value = rest.join('; ');
  next.dispatchEvent(new Event('input'));
  next.blur();
}

const limited = (value: number) => Math.min(props.max, Math.max(props.min, value));

function commit(): void {
  editing.value = false;
  if (text.value.trim() === shown.value) {
    problem.value = null;
    return;
  }
  const [first = '', ...rest] = listed(text.value);
  const value =
    rest.length && !first
      ? props.value
      : parseQuantity(first, {
          current: props.value,
          percent: props.unit === '%',
          ...(props.rate ? { rate: props.rate } : {}),
        });
  if (value === null) problem.value = `“${text.value}” is not a number; ${shown.value} stays.`;
  else if (value < props.min || value > props.max)
    problem.value = `${props.label} goes from ${props.min} to ${props.max}; ${shown.value} stays.`;
  else {
    problem.value = null;
    if (first) emit('change', value, false);
    emit('end');
    if (rest.length) void passOn(rest);
  }
  text.value = shown.value;
}

function nudge(event: KeyboardEvent, direction: number): void {
  event.preventDefault();
  problem.value = null;
  emit('change', limited(props.value + direction * props.step * (event.shiftKey ? 10 : 1)), true);
}

function drag(event: PointerEvent): void {
  if (props.disabled) return;
  const handle = event.currentTarget as HTMLElement;
  const [from, x] = [props.value, event.clientX];
  handle.setPointerCapture(event.pointerId);
  const move = (now: PointerEvent) =>
    emit('change', limited(from + Math.round((now.clientX - x) / 2) * props.step), true);
  handle.addEventListener('pointermove', move);
  handle.addEventListener(
    'lostpointercapture',
    () => {
      handle.removeEventListener('pointermove', move);
      emit('end');
    },
    { once: true },
  );
}

function leave(): void {
  commit();
  emit('end');
}
</script>

<template>
  <span class="number" :class="{ wrong: problem, wide: unit.length > 3 }">
    <input
      ref="input"
      v-model="text"
      class="mono"
      inputmode="decimal"
      spellcheck="false"
      :aria-label="unit ? `${label}, ${unit}` : label"
      :aria-invalid="problem !== null"
      :disabled="disabled"
      :title="`A number or a sum: 1920/2. + first changes it: +40, +-40. ${unit === '%' ? '50% is 50.' : '50% is half of what it is.'}${rate ? ' Also 36f and 1.5s.' : ''} 120; 80 fills the next field too.`"
      @focus="((editing = true), ($event.target as HTMLInputElement).select())"
      @blur="leave"
      @keydown.enter="($event.target as HTMLInputElement).blur()"
      @keydown.esc="((text = shown), (problem = null))"
      @keydown.up="nudge($event, 1)"
      @keydown.down="nudge($event, -1)"
    />
    <span class="unit mono" title="Drag sideways to change" @pointerdown.prevent="drag">{{ unit || '↔' }}</span>
    <span v-if="problem" class="said" role="alert">{{ problem }}</span>
  </span>
</template>

<style scoped>
.number {
  position: relative;
  display: inline-flex;
  align-items: center;
  width: 5.25rem;
  height: 1.625rem;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.number.wide {
  width: 6.25rem;
}
.number:focus-within {
  border-color: var(--brass);
}
.number.wrong {
  border-color: var(--red);
}
input {
  flex: 1;
  min-width: 0;
  height: 100%;
  padding: 0 2px 0 6px;
  text-align: right;
  font-size: 0.75rem;
  color: inherit;
  outline: none;
}
.unit {
  padding: 0 6px 0 3px;
  font-size: 0.6875rem;
  color: var(--dim);
  cursor: ew-resize;
  user-select: none;
  touch-action: none;
}
.said {
  position: absolute;
  z-index: 5;
  right: 0;
  top: 26px;
  width: max-content;
  max-width: 13.75rem;
  padding: 4px 8px;
  background: var(--raised);
  border: 1px solid var(--red);
  border-radius: 3px;
  font-size: 0.75rem;
  color: var(--red);
}
</style>
