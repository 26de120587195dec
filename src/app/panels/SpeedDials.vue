<script setup lang="ts">
import { computed } from 'vue';
import { useStorage } from '@vueuse/core';
import {
  conformLayer,
  fitLength,
  freezeHere,
  reverseLayer,
  setBetween,
  setKeepPitch,
  setTargetLength,
  speedHere,
} from '../../core/document/edits/time';
import { stockIn } from '../../core/document/find';
import { stockOf, type Layer } from '../../core/document/schema';
import { isKeyed } from '../../core/document/edits/values';
import { sourceSeconds } from '../../core/plan/sources';
import { rateLabel, sameRate, secondsAt } from '../../core/time/rate';
import { sourceFrameAt } from '../../core/time/speed';
import { steadyAt } from '../../core/time/values';
import Dial from '../controls/Dial.vue';
import NumberField from '../controls/NumberField.vue';
import Choice from '../controls/Choice.vue';
import Check from '../controls/Check.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';

/** How fast a layer's own time runs. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const preview = usePreview();
/** whether its length changes with its speed, so that it goes on showing all it showed */
const fit = useStorage('jackplane length follows speed', true);
const layer = computed(() => bench.layer!);
const local = computed(() => playhead.frame - layer.value.span.start);
const locked = computed(() => layer.value.locked || store.readOnly);
const item = computed(() => {
  const id = stockOf(layer.value);
  return store.project && id ? stockIn(store.project, id) : null;
});
const ramp = computed(() => isKeyed(layer.value.time.speed));
/** Frames of the clip itself, at its own rate, within what it has; of a clip without one rate the second. */
const sourceFrame = computed(() => {
  const { rate, seconds = Infinity } = item.value?.facts ?? {};
  const at = Math.min(seconds, Math.max(0, sourceSeconds(bench.shot!, layer.value, local.value)));
  if (!rate || rate === 'variable') return `${at.toFixed(3)} s`;
  return Math.min(at * (rate.num / rate.den), seconds * (rate.num / rate.den) - 1).toFixed(2);
});
/** The clip's own rate, when it is another than the shot's. */
const otherRate = computed(() => {
  const { rate } = item.value?.facts ?? {};
  return item.value?.kind === 'video' && rate && rate !== 'variable' && !sameRate(rate, bench.shot!.rate) ? rate : null;
});
const clipFrames = computed(() => ((item.value?.facts.seconds ?? 0) * bench.shot!.rate.num) / bench.shot!.rate.den);
const between: { value: Layer['time']['between']; label: string }[] = [
  { value: 'nearest', label: 'the frame that is due' },
  { value: 'blend', label: 'a mix of both frames' },
  { value: 'flow', label: 'follow movement' },
];
/** What the layer asks of its source that is not there. */
const beyond = computed(() => {
  const seconds = item.value?.facts.seconds;
  if (seconds === undefined) return null;
  const { rate } = bench.shot!;
  const frames = Array.from({ length: 65 }, (_, i) =>
    sourceFrameAt(layer.value.time, (i / 64) * (layer.value.span.length - 1)),
  );
  const end = Math.max(...frames.map((frame) => secondsAt(frame, rate)));
  if (end > seconds + 1e-6) return 'The clip ends before the layer does; its last frame holds.';
  return Math.min(...frames) < -1e-6 ? 'The layer begins before the clip does; its first frame holds.' : null;
});
function set(percent: number, dragging: boolean): void {
  preview.touching = dragging;
  edits.editLayer((project, at) => speedHere(project, at, percent / 100, fit.value), dragging ? 'speed' : undefined);
}
function end(): void {
  preview.touching = false;
  store.endGesture();
}
</script>

<template>
  <div>
    <Dial
      path="time.speed"
      label="Speed"
      unit="%"
      help="100 % is as recorded, 0 stands still, negative runs backwards. Keyframes make a ramp."
      :value="steadyAt(layer.time.speed, local) * 100"
      :reset="100"
      :min="-10000"
      :max="10000"
      :slider="[-200, 400]"
      :digits="1"
      :disabled="locked"
      @change="set"
      @end="end"
    />
    <div class="dial-row">
      Runs in
      <NumberField
        label="Runs in"
        unit="f"
        :value="layer.span.length"
        :rate="bench.shot!.rate"
        :min="1"
        :max="1000000"
        :digits="0"
        :disabled="locked || isKeyed(layer.time.speed)"
        @change="(v) => edits.editLayer((project, at) => setTargetLength(project, at, Math.round(v)))"
        @end="store.endGesture"
      />
    </div>
    <Check v-if="!ramp" label="Length follows the speed" :value="fit" @change="(on) => (fit = on)" />
    <div v-else class="dial-row">
      <span>Length stays on a ramp</span
      ><v-btn
        size="small"
        :disabled="locked"
        @click="edits.editLayer((project, at) => fitLength(project, at, clipFrames))"
        >To the clip’s end</v-btn
      >
    </div>
    <div class="dial-row">
      <span>Source frame here</span>
      <output class="mono" aria-label="Source frame">{{ sourceFrame }}</output>
    </div>
    <div v-if="item?.kind === 'video'" class="dial-row">
      Between frames
      <Choice
        label="Between frames"
        :value="layer.time.between"
        :options="between.map(({ value, label }) => ({ value, title: label }))"
        :disabled="locked"
        @change="(way) => edits.editLayer((project, at) => setBetween(project, at, way))"
      />
    </div>
    <Check
      v-if="item?.facts.sound"
      label="Keep the pitch"
      :value="layer.time.keepPitch"
      :disabled="locked"
      @change="edits.editLayer((project, at) => setKeepPitch(project, at, !layer.time.keepPitch))"
    />
    <div class="dial-row buttons">
      <v-btn size="small" :disabled="locked" @click="edits.editLayer(reverseLayer)">Play backwards</v-btn>
      <v-btn size="small" :disabled="locked" @click="edits.editLayer(freezeHere)">Freeze from here</v-btn>
    </div>
    <div v-if="otherRate" class="dial-row">
      <span
        >Clip runs at <span class="mono">{{ rateLabel(otherRate) }}</span></span
      >
      <v-btn
        size="small"
        :disabled="locked"
        @click="edits.editLayer((project, at) => conformLayer(project, at, otherRate!, item!.facts.seconds ?? 1))"
        >Every frame once</v-btn
      >
    </div>
    <p v-if="beyond" class="hint" role="note">{{ beyond }}</p>
  </div>
</template>

<style scoped>
.buttons {
  gap: 6px;
}
.buttons button {
  flex: 1;
}
.hint {
  padding: 4px 8px;
  border-left: 2px solid var(--dim);
  font-size: 0.75rem;
  color: var(--dim);
}
</style>
