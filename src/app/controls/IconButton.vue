<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue';
import Icon from './Icon.vue';

defineOptions({ inheritAttrs: false });
/** A square button with an icon, a name for screen readers and a tooltip with its shortcut. */
defineProps<{ label: string; icon: string; pressed?: boolean | undefined; disabled?: boolean; keys?: string }>();
defineEmits<{ click: [event: MouseEvent] }>();

/** The tooltip is made only when someone stays: there are hundreds of these buttons. */
const DELAY = 350;
const told = ref(false);
let timer: ReturnType<typeof setTimeout> | undefined;
function near(): void {
  clearTimeout(timer);
  timer = setTimeout(() => (told.value = true), DELAY);
}
/** Focus that comes back to it, as from a menu that was used with the mouse, asks for nothing. */
function focused({ target }: FocusEvent): void {
  if ((target as HTMLElement).matches(':focus-visible')) near();
}
function away(): void {
  clearTimeout(timer);
  told.value = false;
}
onBeforeUnmount(() => clearTimeout(timer));
</script>

<template>
  <button
    v-bind="$attrs"
    type="button"
    class="icon-button"
    :aria-label="label"
    :aria-pressed="pressed"
    :disabled="disabled"
    @pointerenter="near"
    @pointerleave="away"
    @focus="focused"
    @blur="away"
    @click.stop="(away(), $emit('click', $event))"
  >
    <Icon :path="icon" />
    <v-tooltip v-if="told" :model-value="true" activator="parent" :text="keys ? `${label} (${keys})` : label" />
  </button>
</template>
