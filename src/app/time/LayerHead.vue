<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  mdiChevronDown,
  mdiChevronRight,
  mdiDragVertical,
  mdiEye,
  mdiEyeOff,
  mdiLock,
  mdiLockOpenVariantOutline,
  mdiMusicNote,
  mdiStar,
  mdiStarOutline,
} from '@mdi/js';
import { orderLayer, renameLayer, switchLayer } from '../../core/document/edits/layers';
import type { Layer } from '../../core/document/schema';
import IconButton from '../controls/IconButton.vue';
import TextField from '../controls/TextField.vue';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';

/** A layer's name and switches, beside its bar. @property rows how many there are to open under it */
const props = defineProps<{ layer: Layer; chosen: boolean; rows: number; isSound: boolean }>();
const bench = useBench();
const rowsOf = useRows();
const selection = useSelection();
const store = useProject();
const renaming = ref(false);
const opened = computed(() => rowsOf.open.has(props.layer.id));
const at = computed(() => ({ shot: bench.shotId!, layer: props.layer.id }));

function rename(text: string): void {
  const name = text.trim();
  if (name && name !== props.layer.name) store.edit(renameLayer(store.current(), at.value, name));
}
function moveInStack(by: number): void {
  const index = bench.shot!.layers.findIndex((layer) => layer.id === props.layer.id);
  store.edit(orderLayer(store.current(), at.value, index + by));
}
const flip = (which: 'shown' | 'solo' | 'locked') => store.edit(switchLayer(store.current(), at.value, which));
</script>

<template>
  <div class="head" :class="{ chosen }">
    <IconButton
      class="grip"
      :label="`Reorder ${layer.name}: arrow up or down`"
      :icon="mdiDragVertical"
      @keydown.up.stop.prevent="moveInStack(-1)"
      @keydown.down.stop.prevent="moveInStack(1)"
    />
    <IconButton
      class="open"
      :class="{ none: !rows }"
      :label="`Animated values of ${layer.name}`"
      :icon="opened ? mdiChevronDown : mdiChevronRight"
      :aria-expanded="opened"
      :disabled="!rows"
      @click="rowsOf.toggleOpen(layer.id)"
    />
    <IconButton
      :label="`${layer.shown ? 'Hide' : 'Show'} ${layer.name}`"
      :icon="layer.shown ? (isSound ? mdiMusicNote : mdiEye) : mdiEyeOff"
      @click="flip('shown')"
    />
    <TextField
      v-if="renaming"
      class="rename"
      autofocus
      :label="`Name of ${layer.name}`"
      :value="layer.name"
      @focus="($event.target as HTMLInputElement).select()"
      @change="rename"
      @blur="renaming = false"
    />
    <button
      v-else
      class="name"
      :aria-pressed="chosen"
      title="Double-click to rename"
      @click="selection.pickLayer(layer.id, $event.shiftKey || $event.ctrlKey)"
      @dblclick="renaming = !layer.locked"
    >
      {{ layer.name }}
    </button>
    <IconButton
      :label="`Solo ${layer.name}`"
      class="switch"
      :class="{ on: layer.solo }"
      :pressed="layer.solo"
      :icon="layer.solo ? mdiStar : mdiStarOutline"
      @click="flip('solo')"
    />
    <IconButton
      :label="`${layer.locked ? 'Unlock' : 'Lock'} ${layer.name}`"
      class="switch"
      :class="{ on: layer.locked }"
      :pressed="layer.locked"
      :icon="layer.locked ? mdiLock : mdiLockOpenVariantOutline"
      @click="flip('locked')"
    />
  </div>
</template>

<style scoped>
.head {
  position: sticky;
  z-index: 2;
  left: 0;
  flex: none;
  display: flex;
  align-items: center;
  padding-right: 4px;
  background: var(--panel);
  border-right: 1px solid var(--line);
}
.head.chosen {
  background: var(--raised);
}
.grip {
  width: 1.5rem;
  cursor: grab;
}
.name {
  flex: 1;
  min-height: 1.5rem;
  min-width: 0;
  padding-left: 4px;
  text-align: left;
  font-weight: 550;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chosen .name {
  color: var(--brass);
}
.rename {
  flex: 1;
  min-width: 0;
}
.switch:not(.on) {
  opacity: 0;
}
.head:hover .switch,
.head:focus-within .switch {
  opacity: 1;
}
.open {
  width: 1.5rem;
}
.open.none {
  opacity: 0.25;
}
</style>
