<script setup lang="ts">
import { mdiRuler } from '@mdi/js';
import { NO_GUIDES } from '../../core/document/edits/guides';
import Check from '../controls/Check.vue';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import { useAids } from '../stores/aids';
import { useProject } from '../stores/project';

/** What lines there are on the picture. */
const aids = useAids();
const store = useProject();
const add = (way: 'upright' | 'level'): void =>
  aids.write({ ...aids.guides, [way]: [...aids.guides[way], 0] }, 'Add a guide');
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <IconButton v-bind="menu" label="Lines on the picture" :icon="mdiRuler" :pressed="aids.any" />
    </template>
    <v-card class="aids" role="group" aria-label="Which lines are on the picture">
      <Check label="Rulers and guides" :value="aids.rulers" @change="(on) => (aids.rulers = on)" />
      <div v-if="aids.rulers" class="buttons">
        <v-btn size="small" :disabled="store.readOnly" @click="add('upright')">Upright guide</v-btn>
        <v-btn size="small" :disabled="store.readOnly" @click="add('level')">Level guide</v-btn>
        <v-btn
          size="small"
          :disabled="store.readOnly || !(aids.guides.upright.length + aids.guides.level.length)"
          @click="aids.write(NO_GUIDES, 'Remove all guides')"
          >Remove all</v-btn
        >
        <p class="dim">Or drag one out of a ruler. Arrow keys move it, Delete takes it away.</p>
      </div>
      <Check label="Safe areas, 93 % and 90 %" :value="aids.safe" @change="(on) => (aids.safe = on)" />
      <Check label="Grid" :value="aids.grid" @change="(on) => (aids.grid = on)" />
      <div v-if="aids.grid" class="dial-row">
        Every
        <NumberField
          label="Grid spacing"
          unit="px"
          :value="aids.spacing"
          :min="4"
          :max="4000"
          :digits="0"
          @change="(v) => (aids.spacing = v)"
        />
      </div>
      <p class="dim">A layer that is dragged comes to lie on them. They are not rendered.</p>
    </v-card>
  </v-menu>
</template>

<style scoped>
.aids {
  width: 19rem;
  font-size: 0.8125rem;
  padding: 8px 12px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 2px 0 6px;
}
p {
  margin: 4px 0 0;
  font-size: 0.75rem;
}
</style>
