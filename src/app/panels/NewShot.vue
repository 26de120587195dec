<script setup lang="ts">
import type { Shot } from '../../core/document/schema';
import ShotForm from './ShotForm.vue';

/** Makes a shot, or changes the settings of one: on the page as long as there is none, else in a dialog. */
defineProps<{ shot?: Shot; first?: boolean }>();
const emit = defineEmits<{ close: [] }>();
</script>

<template>
  <main v-if="first" class="first" aria-label="New shot"><ShotForm first /></main>
  <v-dialog
    v-else
    :model-value="true"
    :aria-label="shot ? 'Shot settings' : 'New shot'"
    @update:model-value="emit('close')"
  >
    <ShotForm :shot="shot" @close="emit('close')" />
  </v-dialog>
</template>

<style scoped>
.first {
  width: 480px;
  max-width: 94vw;
  margin: 10vh auto;
}
</style>
