<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  mdiCrosshairsGps,
  mdiEyeArrowLeftOutline,
  mdiFitToScreenOutline,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiPinOutline,
  mdiVectorCurve,
} from '@mdi/js';
import AidsMenu from './AidsMenu.vue';
import IconButton from '../controls/IconButton.vue';
import Choice from '../controls/Choice.vue';
import { GROUNDS, VIEWS } from '../stores/viewing';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useCompare } from '../stores/compare';
import { pinFrame } from '../stores/stills';

/** What the viewer shows, on what, and how large. */
defineProps<{ scale: number }>();
const emit = defineEmits<{ zoom: [to: number | null]; edge: [] }>();
const readout = defineModel<boolean>('readout', { required: true });
const bench = useBench();
const viewing = useViewing();
const compare = useCompare();
const pinning = ref(false);
async function pin(): Promise<void> {
  pinning.value = true;
  await pinFrame();
  pinning.value = false;
}
const judged = computed(() => (viewing.view === 'alone' || viewing.view === 'matte' ? viewing.view : null));
const empty = computed(() => !bench.shot?.layers.length);
</script>

<template>
  <div class="bar">
    <span class="left">
      <span class="segmented" role="group" aria-label="View">
        <v-btn
          size="small"
          variant="text"
          v-for="(view, i) in VIEWS"
          :key="view.name"
          :aria-pressed="viewing.view === view.name"
          :title="`${view.help} (${i + 1})`"
          @click="viewing.view = view.name"
        >
          {{ view.label }}
        </v-btn>
      </span>
      <Choice
        v-if="judged"
        label="Judged on"
        :value="viewing.ground[judged]"
        :options="GROUNDS[judged].map(({ name, label }) => ({ value: name as string, title: label }))"
        @change="(ground) => (viewing.ground[judged!] = ground)"
      />
    </span>
    <span class="right">
      <IconButton
        label="Pin this frame, to compare others with it"
        :icon="mdiPinOutline"
        :disabled="empty || pinning"
        @click="pin"
      />
      <IconButton
        label="Hold to see the picture from before"
        keys="B"
        :icon="mdiEyeArrowLeftOutline"
        :pressed="compare.held"
        @pointerdown="compare.hold()"
        @keydown.space.prevent="compare.hold()"
      />
      <IconButton
        label="Pixel values under the pointer"
        :icon="mdiCrosshairsGps"
        :pressed="readout"
        @click="readout = !readout"
      />
      <AidsMenu />
      <IconButton label="Edge at 200 %" :icon="mdiVectorCurve" :disabled="!bench.size" @click="emit('edge')" />
      <IconButton label="Zoom out" keys="−" :icon="mdiMagnifyMinusOutline" @click="emit('zoom', scale / 1.25)" />
      <v-btn
        size="small"
        variant="text"
        class="mono zoom"
        title="Show at 100 %"
        :aria-label="`${Math.round(scale * 100)} %: zoom to 100 %`"
        @click="emit('zoom', 1)"
      >
        {{ Math.round(scale * 100) }} %
      </v-btn>
      <IconButton label="Zoom in" keys="+" :icon="mdiMagnifyPlusOutline" @click="emit('zoom', scale * 1.25)" />
      <IconButton label="Fit" keys="F" :icon="mdiFitToScreenOutline" @click="emit('zoom', null)" />
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 10px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  overflow: auto hidden;
  scrollbar-width: thin;
}
.left,
.right {
  display: flex;
  align-items: center;
  gap: 4px;
}
.right {
  gap: 0;
}
.zoom {
  min-width: 3rem;
  min-height: 1.5rem;
  font-size: 0.75rem;
  text-align: center;
}
</style>
