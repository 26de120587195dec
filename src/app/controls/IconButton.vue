<script setup lang="ts">
import Icon from './Icon.vue';

defineOptions({ inheritAttrs: false });
/** A square button with an icon, a name for screen readers and a tooltip with its shortcut. */
defineProps<{ label: string; icon: string; pressed?: boolean | undefined; disabled?: boolean; keys?: string }>();
defineEmits<{ click: [event: MouseEvent] }>();
</script>

<template>
  <v-tooltip :text="keys ? `${label} (${keys})` : label">
    <template #activator="{ props: tip }">
      <button v-bind="{ ...tip, ...$attrs }" type="button" class="icon-button" :aria-label="label" :aria-pressed="pressed" :disabled="disabled" @click.stop="$emit('click', $event)">
        <Icon :path="icon" />
      </button>
    </template>
  </v-tooltip>
</template>
