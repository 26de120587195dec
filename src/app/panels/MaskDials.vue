<script setup lang="ts">
import { computed } from 'vue';
import { setValues } from '../../core/document/edits/keys';
import { setMask, setShape } from '../../core/document/edits/masks';
import { FEATHER_SIDES, MASK_COLOURS, type Shape } from '../../core/document/mask';
import { entriesOf, valueIn, type ValueEntry } from '../../core/document/edits/values';
import { steadyAt } from '../../core/time/values';
import FollowTrack from '../track/FollowTrack.vue';
import Dial from '../controls/Dial.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import Choice from '../controls/Choice.vue';
import Check from '../controls/Check.vue';
import TextField from '../controls/TextField.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { isSoft, useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { useSelecting } from '../viewer/selecting';
import PathDials from './PathDials.vue';
import { MASK_HUES } from '../theme/mask-hues';

/** The dials of the chosen mask: its edge, its shape in exact numbers, and the tools that draw it. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const masking = useMasking();
const selecting = useSelecting();
const mask = computed(() => masking.mask!);
const shape = computed<Shape>(() => mask.value.shape);
const locked = computed(() => bench.layer!.locked || store.readOnly);
const entries = computed(() =>
  entriesOf(bench.layer!).filter((entry) => entry.path.startsWith(`mask.${mask.value.id}.`)),
);
const numbers = computed(() => entries.value.filter((entry) => entry.parts.length === 1));
const pairs = computed(() => entries.value.filter((entry) => entry.parts.length === 2));
const SLIDERS: Record<string, readonly [number, number]> = {
  feather: [0, 120],
  grow: [-40, 40],
  opacity: [0, 100],
  core: [0, 100],
  radius: [0, 200],
  rotation: [-180, 180],
  height: [10, 400],
};
const HELP: Record<string, string> = {
  feather: 'Width of the soft edge.',
  grow: 'Moves the edge outwards, or inwards when negative. Painted and pictured masks move by their half-way line.',
  opacity: 'How much the mask counts.',
  core: 'Share of the radius that is wholly solid.',
};
const lastPart = (entry: ValueEntry) => entry.path.split('.').at(-1)!;
const at = (entry: ValueEntry) => steadyAt(valueIn(bench.layer!, entry.path)!, masking.frame);

const write = (entry: ValueEntry, value: unknown, dragging: boolean): void =>
  edits.editLayer(
    (_, where) => setValues(where, { [entry.path]: value }, `${entry.label} of ${mask.value.name}`),
    dragging ? entry.path : undefined,
  );
function writePart(entry: ValueEntry, part: number, value: number, dragging: boolean): void {
  write(
    entry,
    (at(entry) as number[]).map((v, i) => (i === part ? value : v)),
    dragging,
  );
}
const change = (part: Parameters<typeof setMask>[3]): void =>
  edits.editLayer((project, where) => setMask(project, where, mask.value.id, part));
function rename(text: string): void {
  const name = text.trim();
  if (name && name !== mask.value.name) change({ name });
}
const reshape = (next: Shape, gesture?: string): void =>
  edits.editLayer((project, where) => setShape(project, where, mask.value.id, next), gesture);

const confidence = computed(() => (shape.value.kind === 'matte' ? steadyAt(shape.value.confidence, masking.frame) : 1));
</script>

<template>
  <div class="mask">
    <hr />
    <div class="dial-row">
      Name <TextField class="title" label="Mask name" :value="mask.name" :disabled="locked" @change="rename" />
    </div>
    <div class="dial-row" role="group" aria-label="Colour of the outline">
      Outline
      <span class="hues"
        ><v-btn
          v-for="colour in MASK_COLOURS"
          :key="colour"
          :aria-label="colour"
          :aria-pressed="mask.colour === colour"
          :style="{ background: MASK_HUES[colour] }"
          :disabled="locked"
          @click="change({ colour })"
      /></span>
    </div>
    <Check label="Inverted" :value="mask.invert" :disabled="locked" @change="(invert) => change({ invert })" />

    <FollowTrack :paths="entries.map((entry) => entry.path)" />

    <Check
      v-if="isSoft(shape)"
      label="Tint what it covers"
      :value="!!masking.tinted"
      @change="(on) => (masking.tinted = on)"
    />

    <PathDials v-if="shape.kind === 'path'" />

    <template v-else-if="shape.kind === 'brush' || shape.kind === 'matte'">
      <div class="segmented" role="group" aria-label="Brush">
        <template v-if="shape.kind === 'brush'">
          <v-btn size="small" variant="text" :aria-pressed="masking.tool === 'paint'" @click="masking.tool = 'paint'"
            >Paint</v-btn
          >
          <v-btn size="small" variant="text" :aria-pressed="masking.tool === 'erase'" @click="masking.tool = 'erase'"
            >Erase</v-btn
          >
        </template>
        <template v-else>
          <v-btn size="small" variant="text" :aria-pressed="masking.tool === 'keep'" @click="masking.tool = 'keep'"
            >Keep</v-btn
          >
          <v-btn size="small" variant="text" :aria-pressed="masking.tool === 'drop'" @click="masking.tool = 'drop'"
            >Drop</v-btn
          >
        </template>
      </div>
      <Dial
        label="Brush size"
        unit="px"
        help="Diameter in pixels of the source."
        :value="masking.brush.size"
        :reset="40"
        :min="1"
        :max="1000"
        :slider="[2, 300]"
        @change="(v) => (masking.brush.size = v)"
      />
      <template v-if="shape.kind === 'brush'">
        <Dial
          label="Hardness"
          unit="%"
          help="100 % has a hard rim."
          :value="masking.brush.hardness * 100"
          :reset="70"
          :min="0"
          :max="100"
          :slider="[0, 100]"
          @change="(v) => (masking.brush.hardness = v / 100)"
        />
        <Dial
          label="Stroke opacity"
          unit="%"
          help="How much one stroke covers."
          :value="masking.brush.opacity * 100"
          :reset="100"
          :min="1"
          :max="100"
          :slider="[1, 100]"
          @change="(v) => (masking.brush.opacity = v / 100)"
        />
        <div class="dial-row"><span class="dim note">Strokes</span><Peg :path="`mask.${mask.id}.strokes`" /></div>
      </template>
      <template v-else-if="shape.hints.length">
        <p class="dim note" role="status">Sure of the border: {{ Math.round(confidence * 100) }} %.</p>
        <div v-if="selecting.progress.value" class="dial-row">
          <v-progress-linear
            aria-label="Carrying the selection on"
            :model-value="(100 * selecting.progress.value.done) / selecting.progress.value.of"
            color="primary"
          /><span class="mono">{{ selecting.progress.value.done }}/{{ selecting.progress.value.of }}</span
          ><v-btn size="small" @click="selecting.cancel">Cancel</v-btn>
        </div>
        <div v-else class="buttons">
          <v-btn size="small" :disabled="locked" @click="selecting.goOn(mask.id, 1)"> On to the next frame </v-btn>
          <v-btn size="small" :disabled="locked" @click="selecting.goOn(mask.id, 100000)"> On to the end </v-btn>
        </div>
      </template>
      <p v-else class="dim note">Draw a stroke over what to keep, then one over what to drop.</p>
    </template>

    <div v-else-if="shape.kind === 'text'" class="dial-row">
      Text
      <TextField
        class="title"
        label="Text"
        :value="shape.text"
        :max="500"
        :disabled="locked"
        @change="(text) => shape.kind === 'text' && reshape({ ...shape, text })"
      />
    </div>
    <div v-else-if="shape.kind === 'picture'" class="dial-row">
      Covers by
      <Choice
        label="Covers by"
        :value="shape.channel"
        :options="[
          { value: 'brightness' as const, title: 'brightness' },
          { value: 'alpha' as const, title: 'alpha' },
        ]"
        :disabled="locked"
        @change="(channel) => shape.kind === 'picture' && reshape({ ...shape, channel })"
      />
    </div>

    <div v-for="entry in pairs" :key="entry.path" class="dial-row">
      {{ entry.label }}
      <span class="pair">
        <NumberField
          v-for="(part, k) in entry.parts"
          :key="part"
          :label="`${entry.label} ${part}`"
          unit="px"
          :value="(at(entry) as number[])[k]!"
          :min="entry.min"
          :max="entry.max"
          :digits="1"
          :disabled="locked"
          @change="(v, d) => writePart(entry, k, v, d)"
          @end="store.endGesture"
        />
        <Peg :path="entry.path" bare />
      </span>
    </div>
    <Dial
      v-for="entry in numbers"
      :key="entry.path"
      :path="entry.path"
      :label="entry.label"
      :unit="entry.unit"
      :help="HELP[lastPart(entry)] ?? ''"
      :value="(at(entry) as number) * entry.factor"
      :reset="
        lastPart(entry) === 'opacity'
          ? 100
          : lastPart(entry) === 'feather' || lastPart(entry) === 'grow' || lastPart(entry) === 'rotation'
            ? 0
            : undefined
      "
      :min="entry.min * entry.factor"
      :max="entry.max * entry.factor"
      :slider="SLIDERS[lastPart(entry)] ?? null"
      :digits="1"
      :disabled="locked"
      @change="(v, d) => write(entry, v / entry.factor, d)"
      @end="store.endGesture"
    />
    <div class="dial-row">
      Feather goes
      <Choice
        label="Feather goes"
        :value="mask.featherSide"
        :options="FEATHER_SIDES.map((side) => ({ value: side, title: side === 'both' ? 'both ways' : side }))"
        :disabled="locked"
        @change="(featherSide) => change({ featherSide })"
      />
    </div>
  </div>
</template>

<style scoped>
.title {
  width: 10rem;
}
.hues {
  display: flex;
  gap: 5px;
}
.hues .v-btn {
  width: 1.5rem;
  min-width: 0;
  height: 1.5rem;
  min-height: 0;
  padding: 0;
  border-radius: 3px;
  border: 2px solid transparent;
}
.hues .v-btn[aria-pressed='true'] {
  border-color: var(--text);
}
.pair,
.buttons {
  display: flex;
  gap: 4px;
  align-items: center;
}
.pair :deep(.number) {
  width: 4.75rem;
}
.buttons {
  flex-wrap: wrap;
  padding: 3px 0;
}
.note {
  font-size: 0.75rem;
  line-height: 1.45;
}
</style>
