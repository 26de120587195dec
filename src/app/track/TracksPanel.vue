<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue';
import { mdiClose, mdiDotsVertical, mdiPlus } from '@mdi/js';
import type { TrackId } from '../../core/document/track';
import IconButton from '../controls/IconButton.vue';
import FilePick from '../controls/FilePick.vue';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useTrackRuns } from '../stores/track-runs';
import { OFFERED_TRACKS } from './offered';
import { useTracking } from '../stores/tracking';
import TrackChart from './TrackChart.vue';
import TrackRun from './TrackRun.vue';
import TrackUses from './TrackUses.vue';
import { useTrackFiles } from './track-files';

/** The tracks of the chosen layer's clip: made, measured, looked at, used. */
const bench = useBench();
const store = useProject();
const runs = useTrackRuns();
const tracking = useTracking();
const files = useTrackFiles();
const busy = computed(() => store.readOnly || !!tracking.running);
/** There is something to look at and to use. While a first run goes on nothing is built for it, which would take the main thread. */
const measured = ref(false);
watchEffect(() => {
  measured.value = tracking.samples.rows.length > 0 && (measured.value || !tracking.running);
});

const fileInput = ref<InstanceType<typeof FilePick>>();
/** the track that is asked about before it is deleted */
const leaving = ref<TrackId | null>(null);
const leaver = computed(() => tracking.tracks.find((item) => item.id === leaving.value));
/** the track whose name is being typed */
const naming = ref<TrackId | null>(null);
function named(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim();
  if (naming.value && name && name !== tracking.track?.name) tracking.rename(name);
  naming.value = null;
}
function remove(id: TrackId): void {
  if (tracking.followers(id).length) leaving.value = id;
  else tracking.remove(id, false);
}
function removed(bake: boolean): void {
  if (leaving.value) tracking.remove(leaving.value, bake);
  leaving.value = null;
}
async function good(): Promise<void> {
  const [spot] = await runs.findGood(1);
  if (spot) tracking.add('point', [spot]);
}
</script>

<template>
  <p v-if="!tracking.clip" class="dim">
    Tracks are measured in clips. Choose a layer that shows one, and its motion can be measured here.
  </p>
  <div v-else>
    <div class="adding">
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn v-bind="menu" :prepend-icon="mdiPlus" :disabled="busy">Add a track</v-btn>
        </template>
        <v-list>
          <v-list-item
            v-for="entry in OFFERED_TRACKS"
            :key="entry.kind"
            :title="entry.title"
            :subtitle="entry.help"
            @click="tracking.add(entry.kind)"
          />
          <v-divider />
          <v-list-item
            title="Point on a good spot"
            subtitle="Where this frame is easiest to find again"
            @click="good"
          />
          <v-divider />
          <v-list-item title="From a file…" subtitle="CSV or JSON" @click="fileInput?.pick()" />
        </v-list>
      </v-menu>
      <v-menu v-if="tracking.track">
        <template #activator="{ props: menu }"
          ><IconButton v-bind="menu" label="More for this track" :icon="mdiDotsVertical"
        /></template>
        <v-list>
          <v-list-item title="Rename" @click="naming = tracking.trackId" />
          <v-list-item title="Save as CSV" @click="files.saveCsv()" />
          <v-list-item title="Save as JSON" @click="files.saveJson()" />
          <v-divider />
          <v-list-item title="Copy" :disabled="busy" @click="files.copy()" />
          <v-list-item
            title="Fill its gaps"
            subtitle="In straight lines from what is known"
            :disabled="busy"
            @click="files.fill()"
          />
          <v-list-item title="Smooth" subtitle="Over five frames" :disabled="busy" @click="files.smooth(5)" />
          <v-list-item
            title="Reverse"
            subtitle="As if the clip ran backwards"
            :disabled="busy"
            @click="files.reverse()"
          />
          <v-list-item
            v-if="files.alike.length > 1"
            title="Average with the others of its kind"
            :disabled="busy"
            @click="files.average()"
          />
          <v-list-item
            v-if="files.alike.length > 1"
            title="Join with the others of its kind"
            subtitle="They fill what this one lacks"
            :disabled="busy"
            @click="files.join()"
          />
        </v-list>
      </v-menu>
      <FilePick
        ref="fileInput"
        label="CSV or JSON file with a track"
        accept=".csv,.json"
        @files="([file]) => void files.open(file!)"
      />
    </div>
    <p v-if="files.problem" class="problem" role="alert">{{ files.problem }}</p>
    <p v-if="!tracking.tracks.length" class="dim">
      Nothing of this clip has been measured. A track says where something is on every frame; layers, masks and passes
      can follow it.
    </p>
    <ul v-else class="chosen-list" aria-label="Tracks">
      <li v-for="item in tracking.tracks" :key="item.id" :class="{ chosen: item.id === tracking.trackId }">
        <v-text-field
          v-if="naming === item.id"
          autofocus
          hide-details
          :model-value="item.name"
          :aria-label="`Name of track ${item.name}`"
          maxlength="200"
          @blur="named"
          @keydown.enter.stop="named"
          @keydown.esc.stop="naming = null"
        />
        <button
          v-else
          class="name"
          :aria-pressed="item.id === tracking.trackId"
          @click="tracking.show(item.id)"
          @dblclick="naming = item.id"
        >
          {{ item.name }} <span class="dim">{{ item.kind }}</span>
        </button>
        <IconButton :label="`Delete track ${item.name}`" :icon="mdiClose" :disabled="busy" @click="remove(item.id)" />
      </li>
    </ul>
    <template v-if="tracking.track">
      <TrackRun />
      <TrackChart v-if="measured" />
      <TrackUses v-if="measured" :key="`${tracking.trackId} ${bench.layerId}`" />
    </template>
    <v-dialog :model-value="!!leaver" aria-label="Delete a track that is followed" @update:model-value="leaving = null">
      <v-card v-if="leaver" :title="`Delete ${leaver.name}?`">
        <v-card-text>
          It is followed by
          {{
            tracking
              .followers(leaver.id)
              .map((layer) => layer.name)
              .join(', ')
          }}. Written as keyframes, that stays as it is; otherwise it goes back to where it is without the track.
        </v-card-text>
        <v-card-actions>
          <v-btn @click="leaving = null">Cancel</v-btn>
          <v-btn @click="removed(false)">Delete only</v-btn>
          <v-btn color="primary" variant="flat" @click="removed(true)">Keyframes, then delete</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.adding {
  display: flex;
  justify-content: space-between;
  margin-bottom: 8px;
}
.problem {
  margin-bottom: 8px;
}
</style>
