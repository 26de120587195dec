<script setup lang="ts">
import { computed, ref } from 'vue';
import {
  mdiArrowExpandVertical,
  mdiChartBellCurve,
  mdiChevronLeft,
  mdiChevronRight,
  mdiContentCut,
  mdiFastForwardOutline,
  mdiPlay,
  mdiRepeat,
  mdiSkipNext,
  mdiSkipPrevious,
  mdiStop,
} from '@mdi/js';
import { rangeOf } from '../../core/document/edits/markers';
import { frameTyped, timecode } from '../../core/time/timecode';
import IconButton from '../controls/IconButton.vue';
import Choice from '../controls/Choice.vue';
import { type PreviewScale } from '../stores/viewing';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { usePlayer } from '../stores/player';
import { usePreview } from '../stores/preview';
import { useReady } from '../stores/ready';
import { useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';
import LayerMenu from './LayerMenu.vue';
import KeysBar from './KeysBar.vue';

/** Playing, where the playhead is, what the preview does, and what can be done with what is chosen. */
const zoom = defineModel<number>('zoom', { required: true });
const bench = useBench();
const playhead = usePlayhead();
const viewing = useViewing();
const notices = useNotices();
const player = usePlayer();
const preview = usePreview();
const ready = useReady();
const rows = useRows();
const selection = useSelection();
const shot = computed(() => bench.shot!);
// plain facts, so that nothing here is drawn anew with every change of the shot
const length = computed(() => shot.value.length);
const from = computed(() => rangeOf(shot.value).from);
const to = computed(() => rangeOf(shot.value).to);
const time = computed(() => timecode(playhead.frame, shot.value.rate));
const chosen = computed(() => !!bench.layer);
const animated = computed(() => !!bench.layer && rows.valueRows(bench.layer).length > 0);
const first = computed(() => selection.neighbour(-1) === null);
const last = computed(() => selection.neighbour(1) === null);
const SCALES: { value: PreviewScale; label: string }[] = [
  { value: 'auto', label: 'automatic' },
  { value: 1, label: 'full' },
  { value: 2, label: '½' },
  { value: 4, label: '¼' },
];
/** What is being typed in place of the time. */
const typing = ref<string | null>(null);
function go(): void {
  const text = typing.value;
  typing.value = null;
  if (text === null || !text.trim()) return;
  const frame = frameTyped(text, playhead.frame, shot.value.rate);
  if (frame === null) return notices.say(`“${text}” is no frame or time. Type 67, +12, 2.5s or 0:02.12.`, 'problem');
  playhead.seek(frame);
}
const KEEPS = [
  { value: 'time' as const, title: 'in time' },
  { value: 'every' as const, title: 'every frame' },
];
const scaleNow = computed(() => ({ 1: 'full', 2: '½', 4: '¼' })[preview.reduction]);
const scales = computed(() =>
  SCALES.map(({ value, label }) => ({ value, title: value === 'auto' ? `${label} (${scaleNow.value})` : label })),
);
</script>

<template>
  <div class="transport">
    <IconButton label="First frame" keys="Home" :icon="mdiSkipPrevious" @click="playhead.seek(from)" />
    <IconButton
      :label="player.playing ? 'Stop' : 'Play'"
      keys="Space"
      :icon="player.playing ? mdiStop : mdiPlay"
      @click="player.toggle"
    />
    <IconButton label="Last frame" keys="End" :icon="mdiSkipNext" @click="playhead.seek(to - 1)" />
    <IconButton
      label="Previous keyframe of the layer"
      keys=","
      :icon="mdiChevronLeft"
      :disabled="first"
      @click="selection.toNeighbour(-1)"
    />
    <IconButton
      label="Next keyframe of the layer"
      keys="."
      :icon="mdiChevronRight"
      :disabled="last"
      @click="selection.toNeighbour(1)"
    />
    <IconButton label="Loop" :pressed="player.loop" :icon="mdiRepeat" @click="player.loop = !player.loop" />
    <IconButton
      :label="
        ready.readies ? 'Frames ahead are got ready while you work' : 'Frames are computed only when they are shown'
      "
      :pressed="ready.readies"
      :icon="mdiFastForwardOutline"
      @click="ready.readies = !ready.readies"
    />
    <v-text-field
      class="field mono code"
      aria-label="Go to frame or time"
      title="Type a frame (67), a step (+67, −5), seconds (2.5s) or a time (0:02.12)"
      single-line
      hide-details
      :model-value="typing ?? time"
      @update:model-value="(text: string) => (typing = text)"
      @focus="($event.target as HTMLInputElement).select()"
      @keydown.enter.stop="($event.target as HTMLInputElement).blur()"
      @keydown.esc.stop="((typing = null), ($event.target as HTMLInputElement).blur())"
      @blur="go"
    />
    <span class="mono dim"
      >f <span aria-label="Frame" role="status">{{ playhead.frame }}</span> / {{ length }}</span
    >
    <span class="gap" />
    <IconButton
      label="Split at the playhead"
      keys="S"
      :icon="mdiContentCut"
      :disabled="!chosen"
      @click="selection.split()"
    />
    <IconButton
      label="Grow the rows of the layer into curves"
      keys="C"
      :icon="mdiChartBellCurve"
      :disabled="!animated"
      @click="rows.toggleCurves(bench.layer!)"
    />
    <LayerMenu v-if="chosen" />
    <KeysBar v-if="selection.keys.length" />
    <span v-else class="mono dim state" role="status"
      >cached {{ ready.count }} of {{ to - from }} · dropped {{ player.dropped }}</span
    >
    <span class="end">
      <div
        class="dim preview"
        title="When a frame is not ready while playing: leave it out and keep time with the sound, or wait for it, slower and without sound"
      >
        Plays
        <Choice
          label="Playing keeps"
          :value="ready.keeps"
          :options="KEEPS"
          @change="(keeps) => (ready.keeps = keeps)"
        />
      </div>
      <div class="dim preview">
        Preview
        <Choice
          label="Preview scale"
          :value="viewing.scale"
          :options="scales"
          @change="(scale) => (viewing.scale = scale)"
        />
      </div>
      <IconButton label="Row height" :icon="mdiArrowExpandVertical" @click="selection.nextRowHeight()" />
      <div class="dim preview">
        Zoom
        <v-slider
          v-model="zoom"
          class="zoom"
          hide-details
          density="compact"
          thumb-size="10"
          :min="1"
          :max="20"
          :step="0.1"
          aria-label="Zoom of the time panel"
          @keydown.stop
        />
      </div>
    </span>
  </div>
</template>

<style scoped>
.transport {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 10px;
  border-bottom: 1px solid var(--line);
  font-size: 0.75rem;
  white-space: nowrap;
  overflow: auto hidden;
  scrollbar-width: thin;
  contain: strict;
}
.code {
  flex: none;
  width: 4.75rem;
  margin: 0 6px;
}
.gap {
  width: 2px;
}
.state {
  margin-left: 4px;
}
.end {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: auto;
  padding-left: 10px;
}
.preview {
  display: flex;
  align-items: center;
  gap: 6px;
}
/* as wide as what they say */
.preview .choice {
  flex: none;
  width: 6.25rem;
}
.preview + .preview .choice {
  width: 9rem;
}
.preview :deep(.v-select__selection-text),
.code :deep(input) {
  font-size: 0.75rem;
}
.zoom {
  width: 4.5rem;
}
</style>
