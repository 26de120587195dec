<script setup lang="ts">
import type { MaskId } from '../../core/document/mask';
import { useMasking } from '../stores/masking';
import { MASK_HUES } from '../theme/mask-hues';

/** Chooses among the layer's masks. */
const props = defineProps<{ label: string; chosen: readonly MaskId[]; disabled?: boolean }>();
const emit = defineEmits<{ change: [ids: MaskId[]] }>();
const masking = useMasking();
const toggle = (id: MaskId): void =>
  emit('change', props.chosen.includes(id) ? props.chosen.filter((other) => other !== id) : [...props.chosen, id]);
</script>

<template>
  <span class="picker" role="group" :aria-label="label">
    <v-btn
      size="small"
      variant="outlined"
      v-for="mask in masking.masks"
      :key="mask.id"
      :aria-pressed="chosen.includes(mask.id)"
      :disabled="disabled"
      @click="toggle(mask.id)"
    >
      <span class="dot" :style="{ background: MASK_HUES[mask.colour] }" />{{ mask.name }}
    </v-btn>
    <v-btn size="small" variant="outlined" class="more" :disabled="disabled" @click="masking.show()">
      {{ masking.masks.length ? 'Masks…' : 'Draw a mask…' }}
    </v-btn>
  </span>
</template>

<style scoped>
.picker {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 2px 0 6px;
}
button {
  max-width: 100%;
  padding: 1px 8px;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 3px;
  color: var(--dim);
  text-overflow: ellipsis;
  white-space: nowrap;
}
button[aria-pressed='true'] {
  border-color: var(--brass);
  color: var(--text);
  background: var(--brass-soft);
}
.more {
  border-style: dashed;
}
.dot {
  display: inline-block;
  width: 8px;
  height: 8px;
  margin-right: 6px;
  border-radius: 2px;
}
</style>
