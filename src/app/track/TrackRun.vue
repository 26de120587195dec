<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiStop } from '@mdi/js';
import { sampleAt } from '../../core/track/samples';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { useTrackRuns, type Extent, type Way } from '../stores/track-runs';
import { useTracking, WEAK } from '../stores/tracking';
import MaskPicker from '../controls/MaskPicker.vue';
import type { Track } from '../../core/document/track';
import GlimpseStrip from './GlimpseStrip.vue';

/** Runs of the chosen track: which way, how far, how they end, and what can be done then. */
const masking = useMasking();
const store = useProject();
const runs = useTrackRuns();
const tracking = useTracking();
const extent = ref<Extent>('clip');
const EXTENTS = [
  { value: 'clip', title: 'to the end of the clip' },
  { value: 'range', title: 'to the end of the range' },
  { value: 'frame', title: 'one frame' },
];
type Side = NonNullable<Track['looks']>['side'];
const LOOKS = [
  { value: 'everywhere', title: 'everywhere' },
  { value: 'inside', title: 'only inside masks' },
  { value: 'outside', title: 'not inside masks' },
];
/** The first choice of a side takes the mask that was worked on last. */
function lookFrom(side: string): void {
  const first = masking.maskId ?? masking.masks[0]?.id;
  const masks = track.value.looks?.masks ?? (first ? [first] : []);
  tracking.look(side === 'everywhere' ? null : { masks, side: side as Side });
}
const WAYS: readonly { way: Way; label: string }[] = [
  { way: 'backward', label: 'Backward' },
  { way: 'both', label: 'Both ways' },
  { way: 'forward', label: 'Forward' },
];
const track = computed(() => tracking.track!);
const sample = computed(() => sampleAt(tracking.samples, tracking.frame));
const known = computed(() => tracking.samples.rows.filter((row) => row !== null).length);
const fixed = computed(() => track.value.fixed.includes(tracking.frame));
/** What the last run said, unless what it lost is known by now. */
const end = computed(() => {
  const said = tracking.ends[track.value.id];
  const there = said?.lost && sampleAt(tracking.samples, said.lost.frame);
  return there && there.confidence >= WEAK ? undefined : said;
});
const lost = computed(() => end.value?.lost);
const share = computed(() => (tracking.running ? (100 * tracking.running.done) / tracking.running.of : 0));
</script>

<template>
  <div class="run">
    <p v-if="!known" class="dim">
      {{
        track.kind === 'sway'
          ? 'The whole picture is its pattern. Run it.'
          : `Drawn on frame ${track.start} of the clip. Drag the pattern over what should be followed, or draw a new one on the picture; the dashed line is how far it is searched. Then run.`
      }}
    </p>
    <v-select v-model="extent" label="How far" :items="EXTENTS" :disabled="!!tracking.running || store.readOnly" />
    <v-select
      label="Looks"
      :model-value="track.looks?.side ?? 'everywhere'"
      :items="LOOKS"
      :disabled="!!tracking.running || store.readOnly"
      @update:model-value="lookFrom"
    />
    <template v-if="track.looks">
      <MaskPicker
        label="Masks of where it looks"
        :chosen="track.looks.masks"
        :disabled="!!tracking.running || store.readOnly"
        @change="(masks) => tracking.look({ masks, side: track.looks!.side })"
      />
      <p v-if="!track.looks.masks.length" class="dim">
        No mask is chosen yet, so it looks everywhere. Draw one about what passes before the pattern, or about where it
        may be.
      </p>
    </template>
    <div v-if="!tracking.running" class="ways" role="group" aria-label="Run">
      <v-btn
        v-for="entry in WAYS"
        :key="entry.way"
        size="small"
        :disabled="store.readOnly"
        @click="runs.run(entry.way, extent)"
        >{{ entry.label }}</v-btn
      >
    </div>
    <div v-else class="going" role="status">
      <span
        >{{ tracking.running.way > 0 ? 'Forward' : 'Backward' }}:
        <span class="mono">{{ tracking.running.done }}</span> of
        <span class="mono">{{ tracking.running.of }}</span> frames</span
      >
      <v-btn size="small" :prepend-icon="mdiStop" @click="runs.stop()">Stop</v-btn>
      <v-progress-linear :model-value="share" color="primary" height="2" aria-label="Run of the track" />
    </div>
    <GlimpseStrip v-if="tracking.glimpse && track.kind !== 'sway'" :glimpse="tracking.glimpse" />
    <p v-if="end" class="end" :class="{ bad: lost }" role="status">{{ end.saying }}</p>
    <div v-if="lost && !tracking.running" class="ways">
      <v-btn size="small" :disabled="store.readOnly" @click="runs.run('forward', extent, true)"
        >Search on from here</v-btn
      >
      <v-btn size="small" :disabled="store.readOnly" @click="runs.predict()">Predict</v-btn>
    </div>
    <p v-if="known" class="here">
      Frame <span class="mono">{{ tracking.frame }}</span>:
      <template v-if="fixed"
        >mended by hand.
        <v-btn size="x-small" :disabled="store.readOnly" @click="tracking.free()">Measure it again</v-btn></template
      >
      <template v-else-if="sample"
        >confidence <span class="mono">{{ Math.round(sample.confidence * 100) }} %</span>. Drag its point on the picture
        to mend it.</template
      >
      <template v-else>not known. Drag its point on the picture to where it is.</template>
    </p>
  </div>
</template>

<style scoped>
.run {
  display: grid;
  gap: 8px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.going {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  justify-content: space-between;
}
.end {
  padding: 4px 8px;
  border-left: 2px solid var(--violet);
  font-size: 0.75rem;
}
.end.bad {
  border-left-color: var(--red);
}
.here {
  font-size: 0.75rem;
}
</style>
