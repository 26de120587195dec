<script setup lang="ts">
import { computed } from 'vue';
import { carriersOf } from '../../core/document/edits/follow';
import { TRACK_TITLES, type Track } from '../../core/document/track';
import { samplesOf } from '../../core/track/samples';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useTracking } from '../stores/tracking';

/** Every track of the project by its clip, and the way to it. */
const bench = useBench();
const store = useProject();
const tracking = useTracking();

const clips = computed(() =>
  (store.project?.stock ?? []).flatMap((item) => {
    const tracks = (store.project?.tracks ?? []).filter((track) => track.stock === item.id);
    return tracks.length ? [{ name: item.name, id: item.id, tracks }] : [];
  }),
);
const carrier = (track: Track) => {
  const layers = bench.shot ? carriersOf(bench.shot, track) : [];
  return layers.find((layer) => layer.id === bench.layerId) ?? layers[0];
};
function about(track: Track): string {
  const { rows } = samplesOf(track);
  const known = rows.filter((row) => row !== null).length;
  const measured = known ? `${known} frame${known === 1 ? '' : 's'}` : 'not measured';
  return [TRACK_TITLES[track.kind].toLowerCase(), measured, carrier(track) ? null : 'no layer here shows its clip']
    .filter(Boolean)
    .join(' · ');
}
function show(track: Track): void {
  const layer = carrier(track);
  if (!layer) return;
  bench.choose(layer.id, 'place');
  tracking.show(track.id);
}
</script>

<template>
  <p v-if="!clips.length" class="dim empty">
    Nothing has been tracked. Choose a layer that shows a clip and press T: a track says where something is on every
    frame, and masks, layers and passes can follow it.
  </p>
  <v-list v-else density="compact" aria-label="Tracks of the project">
    <template v-for="clip in clips" :key="clip.id">
      <v-list-subheader>{{ clip.name }}</v-list-subheader>
      <v-list-item
        v-for="track in clip.tracks"
        :key="track.id"
        :title="track.name"
        :subtitle="about(track)"
        :active="tracking.open && track.id === tracking.trackId"
        :disabled="!carrier(track)"
        @click="show(track)"
      />
    </template>
  </v-list>
</template>

<style scoped>
.empty {
  padding: 10px 12px;
}
</style>
