<script setup lang="ts">
import { nextTick, ref, watch } from 'vue';

/** A line of text that counts once it is left or Enter is pressed; Escape gives back what was there. */
const props = defineProps<{ label: string; value: string; max?: number; disabled?: boolean }>();
const emit = defineEmits<{ change: [text: string] }>();
const text = ref(props.value);
watch(
  () => props.value,
  (value) => (text.value = value),
);
/** What was not taken goes away again. */
async function commit(): Promise<void> {
  if (text.value === props.value) return;
  emit('change', text.value);
  await nextTick();
  text.value = props.value;
}
function escape(event: KeyboardEvent): void {
  text.value = props.value;
  (event.target as HTMLInputElement).blur();
}
</script>

<template>
  <v-text-field
    v-model="text"
    class="field"
    single-line
    hide-details
    :aria-label="label"
    :maxlength="max ?? 200"
    :disabled="disabled"
    @blur="commit"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
    @keydown.esc="escape"
  />
</template>
