<script setup lang="ts">
import { changeMarker, setRange, toggleMarker } from '../../core/document/edits/markers';
import { MARKER_COLOURS, type Marker, type Shot } from '../../core/document/schema';
import SubMenu from '../controls/SubMenu.vue';
import { usePlayhead } from '../stores/playhead';
import { useProject } from '../stores/project';

/** What can be done with a marker, where it was pointed at. */
const props = defineProps<{ shot: Shot; marker: Marker; at: [number, number] }>();
const emit = defineEmits<{ close: []; rename: [] }>();

const playhead = usePlayhead();
const store = useProject();
/** The in and out points from this marker to the next, or to the end. */
function range(): void {
  const next = props.shot.markers.map(({ at }) => at).filter((at) => at > props.marker.at);
  store.edit(setRange(props.shot.id, { from: props.marker.at, to: Math.min(props.shot.length, ...next) }));
}
</script>

<template>
  <v-menu :model-value="true" :target="at" :aria-label="`Marker ${marker.name}`" @update:model-value="emit('close')">
    <v-list>
      <v-list-item title="Go there" @click="playhead.seek(marker.at)" />
      <v-list-item title="Name it…" :disabled="store.readOnly" @click="emit('rename')" />
      <SubMenu
        title="Colour"
        :disabled="store.readOnly"
        :items="
          MARKER_COLOURS.map((colour) => ({
            title: colour,
            run: () => store.edit(changeMarker(shot.id, marker.at, { colour })),
          }))
        "
      />
      <v-list-item title="Play from it to the next" :disabled="store.readOnly" @click="range" />
      <v-list-item
        title="Remove"
        :disabled="store.readOnly"
        @click="store.edit(toggleMarker(store.current(), shot.id, marker))"
      />
    </v-list>
  </v-menu>
</template>
