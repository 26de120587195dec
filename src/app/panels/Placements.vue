<script setup lang="ts">
import { computed } from 'vue';
import { useSessionStorage } from '@vueuse/core';
import { putLayer, resetPlace } from '../../core/document/edits/layers';
import { PLACEMENTS, placement, type PlacementName } from '../../core/place/place';
import Check from '../controls/Check.vue';
import NumberField from '../controls/NumberField.vue';
import { newId } from '../base/ids';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** One-click placements of the chosen layer: into the shot, its halves and corners. */
const bench = useBench();
const viewing = useViewing();
const edits = useEdits();
const store = useProject();
const locked = computed(() => bench.layer!.locked || store.readOnly);
/** the widest border that leaves something of the parts */
const most = computed(() => Math.floor(Math.min(bench.shot!.width, bench.shot!.height) / 4));
const framed = computed(() => !!bench.layer!.place.framing);
/** How the one-click placements fill their part of the shot; kept until the tab is closed. */
const placing = useSessionStorage('jackplane placements', { fills: true, border: 0 });
function put(name: PlacementName): void {
  const { shot, size } = bench;
  if (!shot || !size) return;
  const placed = placement(name, size, { w: shot.width, h: shot.height }, placing.value);
  const { label } = PLACEMENTS.find((entry) => entry.name === name)!;
  edits.editLayer((project, at) => putLayer(project, at, placed, `${label}:`, newId()));
}
</script>

<template>
  <div>
    <div class="placing">
      <Check label="Fill their part" :value="placing.fills" @change="placing.fills = !placing.fills" />
      <span>Border</span>
      <NumberField
        label="Border of placements"
        unit="px"
        :value="placing.border"
        :min="0"
        :max="most"
        :digits="0"
        @change="(border) => (placing.border = border)"
      />
    </div>
    <div class="puts" role="group" aria-label="One-click placements">
      <v-btn
        size="small"
        variant="outlined"
        v-for="entry in PLACEMENTS"
        :key="entry.name"
        :disabled="locked || framed"
        :class="entry.name"
        :aria-label="entry.label"
        :title="entry.label"
        @click="put(entry.name)"
      >
        <span class="pad"><span /></span>{{ entry.name.includes('-') ? '' : entry.label }}
      </v-btn>
      <v-btn size="small" variant="outlined" :disabled="locked" @click="edits.editLayer(resetPlace)">Reset</v-btn>
      <v-btn
        size="small"
        variant="outlined"
        class="framing"
        :disabled="locked"
        :aria-pressed="viewing.framing"
        title="Move over a still: show what fills the shot at the start and at the end"
        @click="viewing.framing = !viewing.framing"
      >
        Framing
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.placing > :deep(.number) {
  width: 100%;
}
.puts {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
}
.placing {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 4.3rem;
  align-items: center;
  gap: 6px;
  margin: 10px 0 4px;
}
.puts button {
  min-width: 0;
  min-height: 2.5rem;
  padding: 3px 0;
  font-size: 0.6875rem;
}
.puts :deep(.v-btn__content) {
  white-space: normal;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
}
.puts .framing {
  grid-column: 1 / -1;
  min-height: 1.625rem;
}
.puts .framing[aria-pressed='true'] {
  border-color: var(--brass);
  color: var(--brass);
}
.pad {
  position: relative;
  width: 1.625rem;
  height: 0.9375rem;
  border: 1px solid var(--dim);
}
.pad span {
  position: absolute;
  background: var(--dim);
  inset: 2px;
}
.fill .pad span {
  inset: -3px 0;
}
.fit .pad span {
  inset: 0 4px;
}
.centre .pad span {
  inset: 3px 7px;
}
.left .pad span,
.top-left .pad span,
.bottom-left .pad span {
  inset: 0 50% 0 0;
}
.right .pad span,
.top-right .pad span,
.bottom-right .pad span {
  inset: 0 0 0 50%;
}
.top .pad span {
  inset: 0 0 50%;
}
.bottom .pad span {
  inset: 50% 0 0;
}
.top-left .pad span,
.top-right .pad span {
  bottom: 50%;
}
.bottom-left .pad span,
.bottom-right .pad span {
  top: 50%;
}
</style>
