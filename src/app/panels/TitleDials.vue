<script setup lang="ts">
import { ARRIVALS } from '../../core/document/edits/arrive';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { letTitleArrive } from '../time/actions';

/** What is done with a title as a whole. */
defineProps<{ disabled: boolean }>();
const playhead = usePlayhead();
const viewing = useViewing();
</script>

<template>
  <div class="dial-row title">
    <v-btn
      size="small"
      title="Also by a double click on its letters, or Enter"
      :disabled="disabled || !playhead.layerHere"
      @click="viewing.typeText"
      >Type on the picture</v-btn
    >
    <v-menu>
      <template #activator="{ props: menu }">
        <v-btn v-bind="menu" size="small" :disabled="disabled">Let it arrive ▾</v-btn>
      </template>
      <v-list>
        <v-list-item v-for="way in ARRIVALS" :key="way.name" :title="way.title" @click="letTitleArrive(way)" />
      </v-list>
    </v-menu>
  </div>
</template>

<style scoped>
.title {
  flex-wrap: wrap;
  gap: 6px;
}
</style>
