<script setup lang="ts">
import { computed } from 'vue';
import { toFreePath } from '../../core/document/edits/figures';
import { isFreePath } from '../../core/sources/shape';
import { newId } from '../base/ids';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { saveDrawing } from '../stores/drawings';
import { useMasking } from '../stores/masking';

/** What is done with a shape as a whole. */
defineProps<{ disabled: boolean }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const masking = useMasking();
const free = computed(() => isFreePath(bench.layer!.source));
function toPaths(): void {
  edits.editLayer((project, at) => toFreePath(project, at, newId));
  masking.show();
}
</script>

<template>
  <div class="dial-row shape">
    <v-btn
      v-if="free"
      size="small"
      :disabled="disabled || !playhead.layerHere"
      @click="masking.addShape('path', 'points')"
      >Draw another path</v-btn
    >
    <v-btn
      v-else
      size="small"
      title="Its outline can then be drawn on, as a mask’s is"
      :disabled="disabled"
      @click="toPaths"
      >Turn into a free path</v-btn
    >
    <v-btn size="small" title="The chosen shapes as they stand on this frame" @click="saveDrawing">Save as SVG</v-btn>
  </div>
</template>

<style scoped>
.shape {
  flex-wrap: wrap;
  gap: 6px;
}
</style>
