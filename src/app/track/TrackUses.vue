<script setup lang="ts">
import { computed } from 'vue';
import { useProject } from '../stores/project';
import { useTracking } from '../stores/tracking';
import { useSurfaceMatch } from './match-surface';
import { useTrackUses } from './track-uses';

/** What can be made of a track in one gesture, and who follows it. */
const store = useProject();
const tracking = useTracking();
const uses = useTrackUses();
const matching = useSurfaceMatch();
const followers = computed(() => tracking.followers(tracking.track!.id).map((layer) => layer.name));
</script>

<template>
  <div class="uses">
    <p class="panel-title">Use it</p>
    <div class="actions">
      <v-menu v-for="use in uses.shown" :key="use.title">
        <template #activator="{ props: menu }">
          <v-btn
            v-bind="use.others ? menu : {}"
            size="small"
            :disabled="store.readOnly || !!tracking.running || !!matching.going || use.others?.length === 0"
            @click="use.others || use.run()"
            >{{ use.title }}</v-btn
          >
        </template>
        <v-list v-if="use.others">
          <v-list-item v-for="layer in use.others" :key="layer.id" :title="layer.name" @click="use.run(layer.id)" />
        </v-list>
      </v-menu>
    </div>
    <div v-if="matching.going" class="going" role="status">
      <span
        >Reading the surface: <span class="mono">{{ matching.going.done }}</span> of
        <span class="mono">{{ matching.going.of }}</span> frames</span
      >
      <v-btn size="small" @click="matching.stop()">Stop</v-btn>
    </div>
    <p class="dim">
      {{ followers.length ? `Followed by ${followers.join(', ')}.` : 'Nothing follows it yet.' }} Any place, mask,
      point, angle or size can: choose the track in its dials.
    </p>
  </div>
</template>

<style scoped>
.uses {
  display: grid;
  gap: 6px;
  margin-top: 10px;
  font-size: 0.75rem;
}
.going {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
