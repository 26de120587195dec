<script setup lang="ts">
import { ARRIVALS } from '../../core/document/edits/arrive';
import { useBench } from '../stores/bench';
import { letTitleArrive } from '../time/actions';

/** What is done with a title as a whole. */
defineProps<{ disabled: boolean }>();
const bench = useBench();
</script>

<template>
  <div class="dial-row title">
    <v-btn
      size="small"
      title="Also by a double click on its letters, or Enter"
      :disabled="disabled || !bench.layerHere"
      @click="bench.typeText"
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
