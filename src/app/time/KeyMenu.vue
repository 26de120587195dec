<script setup lang="ts">
import { easeKeys } from '../../core/document/edits/keys';
import SubMenu from '../controls/SubMenu.vue';
import { useBench } from '../stores/bench';
import { usePlayhead } from '../stores/playhead';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { EASE_KINDS, USUAL_STRENGTH } from './easings';

/** What can be done with the chosen keyframes, where one of them was pointed at. @property frame of the shot, the one's */
defineProps<{ at: [number, number]; frame: number }>();
const emit = defineEmits<{ close: [] }>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const selection = useSelection();
const count = selection.keys.length;
</script>

<template>
  <v-menu
    :model-value="true"
    :target="at"
    :aria-label="count === 1 ? 'Keyframe' : `${count} keyframes`"
    @update:model-value="emit('close')"
  >
    <v-list :disabled="store.readOnly">
      <v-list-item title="Go there" @click="playhead.seek(frame)" />
      <SubMenu
        title="Goes on"
        :items="
          EASE_KINDS.map(({ label, make }) => ({
            title: label,
            run: () => store.edit(easeKeys(bench.shot!.id, selection.keys, make(USUAL_STRENGTH))),
          }))
        "
      />
      <v-list-item title="Choose all of the layer" @click="selection.all()" />
      <v-list-item title="Copy" @click="selection.copy()" />
      <v-list-item title="Cut" @click="(selection.copy(), selection.remove())" />
      <v-list-item title="Delete" @click="selection.remove()" />
    </v-list>
  </v-menu>
</template>
