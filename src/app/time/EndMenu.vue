<script setup lang="ts">
import { onBeforeUnmount } from 'vue';
import { fadesOf, setFade, transitionAt, type Fades } from '../../core/document/edits/ends';
import type { Layer } from '../../core/document/schema';
import { TRANSITIONS } from '../../core/transitions/registry';
import { useEdits } from '../stores/edits';
import { takeTransition } from './actions';

/** What a layer can begin or end with; what is highlighted is seen half way through on the current frame. */
const props = defineProps<{ layer: Layer; end: keyof Fades; at: [number, number] }>();
const emit = defineEmits<{ close: [] }>();
const edits = useEdits();
// an adjustment layer has no picture of its own that could move
const offered = props.layer.source.type === 'adjustment' ? [] : TRANSITIONS;

const current = (type: string | null): boolean =>
  fadesOf(props.layer)[props.end] > 0 && (transitionAt(props.layer, props.end)?.type ?? null) === type;
function close(): void {
  edits.tried = null;
  emit('close');
}
function take(type: string | null): void {
  close();
  takeTransition(props.end, type);
}
function none(): void {
  close();
  edits.editLayer((project, at) => setFade(project, at, props.end, 0));
}
onBeforeUnmount(() => (edits.tried = null));
</script>

<template>
  <v-menu
    :model-value="true"
    :target="at"
    :aria-label="`${layer.name} ${end === 'in' ? 'begins' : 'ends'} with`"
    max-height="420"
    @update:model-value="close"
  >
    <v-list :disabled="layer.locked">
      <v-list-item
        v-for="choice in [null, ...offered]"
        :key="choice?.type ?? 'fade'"
        :title="choice?.title ?? 'Fade'"
        :active="current(choice?.type ?? null)"
        @pointerenter="edits.tried = { transition: choice?.type ?? null }"
        @focus="edits.tried = { transition: choice?.type ?? null }"
        @click="take(choice?.type ?? null)"
      />
      <v-divider />
      <v-list-item title="Nothing" :disabled="!fadesOf(layer)[end]" @pointerenter="edits.tried = null" @click="none" />
    </v-list>
  </v-menu>
</template>
