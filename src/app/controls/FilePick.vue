<script setup lang="ts">
import { ref } from 'vue';

/** The browser's own file chooser, opened by `pick`. */
defineProps<{ label: string; accept?: string; multiple?: boolean }>();
const emit = defineEmits<{ files: [files: File[]] }>();
const input = ref<HTMLInputElement>();
function chosen(event: Event): void {
  const own = event.target as HTMLInputElement;
  const files = [...(own.files ?? [])];
  // so that the same file can be chosen again
  own.value = '';
  if (files.length) emit('files', files);
}
defineExpose({ pick: () => input.value?.click() });
</script>

<template>
  <input
    ref="input"
    type="file"
    class="visually-hidden"
    tabindex="-1"
    :accept="accept"
    :multiple="multiple"
    :aria-label="label"
    @change="chosen"
  />
</template>
