<script setup lang="ts">
import { computed } from 'vue';
import { mdiHistory } from '@mdi/js';
import { PROJECT_SCOPE } from '../../core/document/edit';
import IconButton from '../controls/IconButton.vue';
import { useProject } from '../stores/project';

/** Every step of the open shot and of the project by name, the newest on top; a click goes to the moment after it. */
const store = useProject();
const steps = computed(() => {
  const { done = [], undone = [] } = store.history ?? {};
  const own = [...done, ...undone].filter(
    (step) => store.scope === null || step.scope === store.scope || step.scope === PROJECT_SCOPE,
  );
  return [{ id: null, name: 'As it was opened' }, ...own].reverse();
});
const now = computed(() => store.undoStep?.id ?? null);
const isUndone = (id: number | null) => id !== null && !!store.history?.undone.some((step) => step.id === id);
</script>

<template>
  <v-menu>
    <template #activator="{ props: menu }"><IconButton v-bind="menu" label="History" :icon="mdiHistory" /></template>
    <v-list class="history" max-height="420" aria-label="History">
      <v-list-item
        v-for="step in steps"
        :key="step.id ?? 'first'"
        :title="step.name"
        :active="step.id === now"
        :class="{ undone: isUndone(step.id) }"
        :disabled="store.readOnly"
        @click="store.jumpTo(step.id)"
      />
    </v-list>
  </v-menu>
</template>

<style scoped>
.history {
  min-width: 260px;
}
.undone {
  opacity: 0.62;
}
</style>
