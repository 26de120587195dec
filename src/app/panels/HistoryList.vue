<script setup lang="ts">
import { computed } from 'vue';
import { mdiHistory } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import { useProject } from '../stores/project';

/** Every step of the work by name, the newest on top; a click goes to the moment after it. */
const store = useProject();
const steps = computed(() => {
  const { done = [], undone = [] } = store.history ?? {};
  const all = [{ name: 'As it was opened', count: 0 }, ...[...done, ...undone].map((step, i) => ({ name: step.name, count: i + 1 }))];
  return all.reverse();
});
const now = computed(() => store.history?.done.length ?? 0);
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }"><IconButton v-bind="menu" label="History" :icon="mdiHistory" /></template>
    <v-list class="history" max-height="420" aria-label="History">
      <v-list-item v-for="step in steps" :key="step.count" :title="step.name" :active="step.count === now" :class="{ undone: step.count > now }" :disabled="store.readOnly" @click="store.jumpTo(step.count)" />
    </v-list>
  </v-menu>
</template>

<style scoped>
.history {
  min-width: 260px;
}
.undone {
  opacity: 0.5;
}
</style>
