<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiClose } from '@mdi/js';
import {
  bakeFollow,
  carriersOf,
  followableAs,
  followOf,
  followTrack,
  setFollow,
  unfollow,
} from '../../core/document/edits/follow';
import { entriesOf, valueIn } from '../../core/document/edits/values';
import type { LayerId } from '../../core/document/schema';
import type { TrackId } from '../../core/document/track';
import { samplesOf, TRACK_POINTS } from '../../core/track/samples';
import type { Follow } from '../../core/time/drivers/follow';
import Dial from '../controls/Dial.vue';
import IconButton from '../controls/IconButton.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { BAKED, useTracking } from '../stores/tracking';

/** What some values of the chosen layer follow, all together or each by itself: a track, and how; written as keyframes or let go. */
const props = defineProps<{ paths: readonly string[]; label?: string }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const tracking = useTracking();

const layer = computed(() => bench.layer!);
const locked = computed(() => layer.value.locked || store.readOnly);
const able = computed(() => props.paths.filter((path) => followableAs(layer.value, path)));
const ALL = 'all';
/** which of them are looked at here */
const which = ref(ALL);
const whichItems = computed(() => {
  const entries = entriesOf(layer.value);
  return [
    { value: ALL, title: 'all together' },
    ...able.value.map((path) => ({
      value: path,
      title: `${entries.find((entry) => entry.path === path)?.label ?? path}${linkNames.value.get(path) ?? ''}`,
    })),
  ];
});
/** the track that each value follows, as it is added to the value's name */
const linkNames = computed(
  () =>
    new Map(
      able.value.flatMap((path) => {
        const id = followOf(valueIn(layer.value, path))?.track;
        const name = id && store.project?.tracks.find((item) => item.id === id)?.name;
        return name ? [[path, ` → ${name}`] as const] : [];
      }),
    ),
);
const own = computed(() => (able.value.includes(which.value) ? [which.value] : able.value));
/** Looked at together they show what the first of them follows. */
const differ = computed(() => new Set(own.value.map((path) => linkNames.value.get(path) ?? '')).size > 1);
const linked = computed(() => own.value.filter((path) => followOf(valueIn(layer.value, path))));
const link = computed(() => followOf(valueIn(layer.value, linked.value[0] ?? '')));
const track = computed(() => store.project?.tracks.find((item) => item.id === link.value?.track));
/** Every measured track of the project by every layer of this shot that shows its clip. */
const choices = computed(() =>
  (store.project?.tracks ?? [])
    .filter((item) => item.samples.rows)
    .flatMap((item) => {
      const carriers = carriersOf(bench.shot!, item);
      return carriers.map((via) => ({
        value: `${item.id} ${via.id}`,
        title: carriers.length > 1 ? `${item.name} in ${via.name}` : item.name,
      }));
    }),
);
const shown = computed(() => own.value.length > 0 && (choices.value.length > 0 || !!link.value));
const chosen = computed(() => (link.value ? `${link.value.track} ${link.value.layer}` : null));

function choose(value: string | null): void {
  if (!value) return letGo();
  const [id, via] = value.split(' ') as [TrackId, LayerId];
  edits.editLayer((project, at) =>
    followTrack(project, { ...at, frame: playhead.frame }, { track: id, via, paths: own.value }),
  );
}
const letGo = (): void => edits.editLayer((project, at) => unfollow(project, at, linked.value));
const bake = (): void => edits.editLayer((project, at) => bakeFollow(project, at, linked.value, BAKED));
const set = (change: Parameters<typeof setFollow>[2], dragging = false): void =>
  edits.editLayer((_, at) => setFollow(at, linked.value, change), dragging ? 'follow' : undefined);

const PARTS: readonly { name: keyof Follow['parts']; label: string; least: number }[] = [
  { name: 'position', label: 'position', least: 1 },
  { name: 'rotation', label: 'rotation', least: 2 },
  { name: 'scale', label: 'scale', least: 2 },
  { name: 'perspective', label: 'perspective', least: 3 },
];
/** The frames on which the track is known. */
const whole = computed(() => {
  const { first, rows } = track.value ? samplesOf(track.value) : { first: 0, rows: [] };
  return { from: first, to: first + Math.max(0, rows.length - 1) };
});
const parts = computed(() => PARTS.filter(({ least }) => track.value && TRACK_POINTS[track.value.kind] >= least));
</script>

<template>
  <div v-if="shown" class="follow" :class="{ linked: !!link }">
    <div class="head">
      <v-select
        :label="label ?? 'Follows track'"
        :model-value="chosen"
        :items="choices"
        :disabled="locked"
        :placeholder="track ? '' : 'nothing'"
        persistent-placeholder
        @update:model-value="choose"
      />
      <IconButton v-if="link" label="Follow nothing" :icon="mdiClose" :disabled="locked" @click="letGo" />
    </div>
    <v-select v-if="able.length > 1" v-model="which" label="Which values" :items="whichItems" />
    <template v-if="link">
      <p v-if="differ" class="dim">
        They follow different things. What is changed here is changed for all that follow.
      </p>
      <p v-if="!track" class="problem">Its track is not in the project any more; it stays where it is without it.</p>
      <div v-if="parts.length > 1" class="parts" role="group" aria-label="What it takes from the track">
        <v-checkbox
          v-for="part in parts"
          :key="part.name"
          :label="part.label"
          :model-value="link.parts[part.name]"
          :disabled="locked"
          @update:model-value="set({ parts: { ...link.parts, [part.name]: !!$event } })"
        />
      </div>
      <Dial
        label="Strength"
        unit="%"
        help="How much of the track’s motion is taken on."
        :value="link.strength * 100"
        :reset="100"
        :min="0"
        :max="200"
        :slider="[0, 100]"
        :digits="0"
        :disabled="locked"
        @change="(v, d) => set({ strength: v / 100 }, d)"
        @end="store.endGesture"
      />
      <Dial
        label="Delay"
        help="Frames of the shot by which it lags behind the track."
        :value="link.delay"
        :reset="0"
        :min="-1000"
        :max="1000"
        :slider="[0, 24]"
        :disabled="locked"
        @change="(v, d) => set({ delay: v }, d)"
        @end="store.endGesture"
      />
      <Dial
        label="Smoothing"
        help="Frames of the clip over which its motion is averaged."
        :value="link.smooth"
        :reset="0"
        :min="0"
        :max="1000"
        :slider="[0, 48]"
        :digits="0"
        :disabled="locked"
        @change="(v, d) => set({ smooth: v }, d)"
        @end="store.endGesture"
      />
      <v-checkbox
        label="Only between two frames of the clip"
        :model-value="link.range !== null"
        :disabled="locked || !track"
        @update:model-value="set({ range: $event ? whole : null })"
      />
      <template v-if="link.range">
        <Dial
          v-for="end in ['from', 'to'] as const"
          :key="end"
          :label="end === 'from' ? 'From frame' : 'To frame'"
          help="Of the clip; before and after it holds."
          :value="link.range[end]"
          :reset="whole[end]"
          :min="0"
          :max="1e7"
          :digits="0"
          :disabled="locked"
          @change="(v, d) => set({ range: { ...link!.range!, [end]: Math.round(v) } }, d)"
          @end="store.endGesture"
        />
      </template>
      <div class="actions">
        <v-btn size="small" :disabled="locked || !track" @click="bake">As keyframes</v-btn>
        <v-btn v-if="track && tracking.clip" size="small" @click="tracking.show(track.id)">Open the track</v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.follow {
  display: grid;
  gap: 8px;
  margin: 8px 0;
  padding: 6px 0 4px;
}
.linked {
  padding-left: 8px;
  border-left: 2px solid var(--violet);
}
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
}
.parts,
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  margin: 4px 0;
}
</style>
