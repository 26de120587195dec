<script setup lang="ts">
import { ref } from 'vue';
import { useAnswer } from '../base/asks';
import { shortcutTable, type Shortcut } from './shortcuts';

const open = ref(false);
const table = ref<Shortcut[]>([]);
const show = () => {
  table.value = shortcutTable();
  open.value = true;
};
useAnswer('shortcuts', show);
</script>

<template>
  <v-dialog v-model="open" max-width="640" aria-label="Shortcuts">
    <v-card title="Shortcuts">
      <v-card-text>
        <dl>
          <template v-for="entry in table" :key="entry.keys">
            <dt class="mono">{{ entry.shown }}</dt>
            <dd>{{ entry.does }}</dd>
          </template>
        </dl>
        <p class="dim note">
          In number fields: arithmetic such as 1920/2, a step such as +40, a share such as 50%; ↑ and ↓ nudge, Shift
          makes ten of it. While dragging in time, Alt suspends snapping.
        </p>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: 6.875rem 1fr 6.875rem 1fr;
  gap: 6px 12px;
  font-size: 0.8125rem;
}
dt {
  color: var(--brass);
  font-size: 0.75rem;
}
.note {
  margin-top: 16px;
  font-size: 0.75rem;
}
</style>
