<script setup lang="ts">
import { computed } from 'vue';
import {
  mdiAlignHorizontalCenter,
  mdiAlignHorizontalDistribute,
  mdiAlignHorizontalLeft,
  mdiAlignHorizontalRight,
  mdiAlignVerticalBottom,
  mdiAlignVerticalCenter,
  mdiAlignVerticalDistribute,
  mdiAlignVerticalTop,
} from '@mdi/js';
import { ALIGNMENTS, type Alignment, type Axis } from '../../core/document/edits/align';
import IconButton from '../controls/IconButton.vue';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';

/** Puts the chosen layers in line with each other, a single one with the shot, and spreads three or more evenly. */
const store = useProject();
const selection = useSelection();
const ICONS: Record<Alignment, string> = {
  left: mdiAlignHorizontalLeft,
  centre: mdiAlignHorizontalCenter,
  right: mdiAlignHorizontalRight,
  top: mdiAlignVerticalTop,
  middle: mdiAlignVerticalCenter,
  bottom: mdiAlignVerticalBottom,
};
const SPREADS: readonly { axis: Axis; label: string; icon: string }[] = [
  { axis: 'sideways', label: 'Equal gaps sideways', icon: mdiAlignHorizontalDistribute },
  { axis: 'upright', label: 'Equal gaps upright', icon: mdiAlignVerticalDistribute },
];
const several = computed(() => selection.layers.length > 1);
</script>

<template>
  <div class="align" role="group" :aria-label="several ? 'Align the chosen layers' : 'Align with the shot'">
    <IconButton
      v-for="{ name, label } in ALIGNMENTS"
      :key="name"
      :label="`${label} ${several ? 'of the chosen layers in line' : 'to the shot'}`"
      :icon="ICONS[name]"
      :disabled="store.readOnly"
      @click="selection.align(name)"
    />
    <IconButton
      v-for="{ axis, label, icon } in SPREADS"
      :key="axis"
      :label="`${label} between three or more chosen layers`"
      :icon="icon"
      :disabled="store.readOnly || selection.layers.length < 3"
      @click="selection.spread(axis)"
    />
  </div>
</template>

<style scoped>
.align {
  display: flex;
  justify-content: space-between;
  margin-top: 10px;
}
</style>
