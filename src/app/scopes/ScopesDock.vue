<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiArrowExpand, mdiClose } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import { useBench } from '../stores/bench';
import { SCOPES, useScopes, type ScopeKind, type WaveKind } from '../stores/scopes';
import MeanColour from './MeanColour.vue';
import ScopeView from './ScopeView.vue';

/** The scopes under the dials: one at a time, or all of them large. */
const scopes = useScopes();
const bench = useBench();
const large = ref(false);
const reading = computed(() => (bench.shot?.layers.length && scopes.reading?.pixels ? scopes.reading : null));
const CHOICES = [
  { value: 'waveform luma', title: 'How bright where' },
  { value: 'waveform parade', title: 'How bright where, channels side by side' },
  { value: 'waveform overlay', title: 'How bright where, channels together' },
  { value: 'histogram', title: 'How much of each' },
  { value: 'vector', title: 'Which colours' },
];
const STRIPES = [
  { value: 'none', title: 'none' },
  { value: 'clipped', title: 'where clipped' },
  { value: 'video', title: 'beyond video range' },
];
const choice = computed({
  get: () => (scopes.kind === 'waveform' ? `waveform ${scopes.waves}` : scopes.kind),
  set: (value) => {
    const [kind, waves] = value.split(' ') as [ScopeKind, WaveKind?];
    scopes.kind = kind;
    if (waves) scopes.waves = waves;
  },
});
</script>

<template>
  <section class="scopes" aria-label="Scopes">
    <header>
      <v-btn size="small" variant="text" :aria-expanded="scopes.open" @click="scopes.open = !scopes.open">{{
        scopes.open ? 'Scopes' : 'Show scopes'
      }}</v-btn>
      <v-select v-model="scopes.stripes" class="stripes" label="Stripes" :items="STRIPES" />
      <IconButton v-if="scopes.open" label="All scopes, large" :icon="mdiArrowExpand" @click="large = true" />
    </header>
    <template v-if="scopes.open">
      <div class="choices">
        <v-select v-model="choice" label="Scope" :items="CHOICES" />
        <v-select v-model="scopes.of" label="Of" :items="scopes.things" />
      </div>
      <template v-if="reading">
        <ScopeView :kind="scopes.kind" :waves="scopes.waves" :reading="reading" />
        <MeanColour :mean="reading.mean" />
      </template>
      <p v-else class="dim">There is nothing of it on this frame.</p>
    </template>
    <v-dialog v-model="large" max-width="64rem" aria-label="Scopes">
      <v-card v-if="reading" title="Scopes">
        <template #append><IconButton label="Close" :icon="mdiClose" @click="large = false" /></template>
        <v-card-text class="all">
          <div v-for="scope in SCOPES" :key="scope.kind">
            <p class="panel-title">{{ scope.title }}</p>
            <ScopeView :kind="scope.kind" :waves="scopes.waves" :reading="reading" />
          </div>
          <MeanColour :mean="reading.mean" />
        </v-card-text>
      </v-card>
    </v-dialog>
  </section>
</template>

<style scoped>
.scopes {
  display: grid;
  gap: 6px;
  padding: 4px 12px 8px;
  border-top: 1px solid var(--line);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
  align-items: center;
  justify-content: space-between;
}
header :deep(.v-label) {
  white-space: nowrap;
}
.choices {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.all {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
}
</style>
