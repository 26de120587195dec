<script setup lang="ts">
import { HOW_COMPARED, useCompare } from '../stores/compare';

/** What the picture is compared with, and how both are laid out; over the picture's top left. */
const compare = useCompare();
</script>

<template>
  <div class="compare-bar" @pointerdown.stop>
    <v-select v-model="compare.against" label="Compared with" :items="compare.choices" />
    <v-select v-model="compare.how" label="Laid out" :items="[...HOW_COMPARED]" />
  </div>
</template>

<style scoped>
.compare-bar {
  position: absolute;
  z-index: 2;
  top: 8px;
  left: 8px;
  display: grid;
  grid-template-columns: 13rem 9rem;
  gap: 6px;
  padding: 6px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 3px;
}
</style>
