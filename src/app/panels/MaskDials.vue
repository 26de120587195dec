<script setup lang="ts">
import { computed } from 'vue';
import { setValues } from '../../core/document/edits/keys';
import { setMask, setShape } from '../../core/document/edits/masks';
import { FEATHER_SIDES, MASK_COLOURS, type Mask, type Shape } from '../../core/document/mask';
import { entriesOf, valueIn, type ValueEntry } from '../../core/document/edits/values';
import { steadyAt } from '../../core/time/values';
import FollowTrack from '../track/FollowTrack.vue';
import Dial from '../controls/Dial.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import { useBench } from '../stores/bench';
import { isSoft, useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { useSelecting } from '../viewer/selecting';
import PathDials from './PathDials.vue';
import { MASK_HUES } from '../theme/mask-hues';

/** The dials of the chosen mask: its edge, its shape in exact numbers, and the tools that draw it. */
const bench = useBench();
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
  bench.editLayer(
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
  bench.editLayer((project, where) => setMask(project, where, mask.value.id, part));
function rename(event: Event): void {
  const input = event.target as HTMLInputElement;
  const name = input.value.trim();
  if (name && name !== mask.value.name) change({ name });
  input.value = mask.value.name;
}
const reshape = (next: Shape, gesture?: string): void =>
  bench.editLayer((project, where) => setShape(project, where, mask.value.id, next), gesture);

const confidence = computed(() => (shape.value.kind === 'matte' ? steadyAt(shape.value.confidence, masking.frame) : 1));
</script>

<template>
  <div class="mask">
    <hr />
    <label class="dial-row"
      >Name
      <input
        class="plain-field title"
        :value="mask.name"
        maxlength="200"
        :disabled="locked"
        aria-label="Mask name"
        @change="rename"
    /></label>
    <div class="dial-row" role="group" aria-label="Colour of the outline">
      Outline
      <span class="hues"
        ><button
          v-for="colour in MASK_COLOURS"
          :key="colour"
          :aria-label="colour"
          :aria-pressed="mask.colour === colour"
          :style="{ background: MASK_HUES[colour] }"
          :disabled="locked"
          @click="change({ colour })"
      /></span>
    </div>
    <label class="dial-row"
      ><span>Inverted</span
      ><input
        type="checkbox"
        aria-label="Inverted"
        :checked="mask.invert"
        :disabled="locked"
        @change="change({ invert: !mask.invert })"
    /></label>

    <FollowTrack :paths="entries.map((entry) => entry.path)" />

    <label v-if="isSoft(shape)" class="dial-row"
      ><span>Tint what it covers</span><input v-model="masking.tinted" type="checkbox" aria-label="Tint what it covers"
    /></label>

    <PathDials v-if="shape.kind === 'path'" />

    <template v-else-if="shape.kind === 'brush' || shape.kind === 'matte'">
      <div class="segmented" role="group" aria-label="Brush">
        <template v-if="shape.kind === 'brush'">
          <button :aria-pressed="masking.tool === 'paint'" @click="masking.tool = 'paint'">Paint</button>
          <button :aria-pressed="masking.tool === 'erase'" @click="masking.tool = 'erase'">Erase</button>
        </template>
        <template v-else>
          <button :aria-pressed="masking.tool === 'keep'" @click="masking.tool = 'keep'">Keep</button>
          <button :aria-pressed="masking.tool === 'drop'" @click="masking.tool = 'drop'">Drop</button>
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
          ><button class="plain-button" @click="selecting.cancel">Cancel</button>
        </div>
        <div v-else class="buttons">
          <button class="plain-button" :disabled="locked" @click="selecting.goOn(mask.id, 1)">
            On to the next frame
          </button>
          <button class="plain-button" :disabled="locked" @click="selecting.goOn(mask.id, 100000)">
            On to the end
          </button>
        </div>
      </template>
      <p v-else class="dim note">Draw a stroke over what to keep, then one over what to drop.</p>
    </template>

    <label v-else-if="shape.kind === 'text'" class="dial-row"
      >Text
      <input
        class="plain-field title"
        :value="shape.text"
        maxlength="500"
        :disabled="locked"
        aria-label="Text"
        @change="reshape({ ...shape, text: ($event.target as HTMLInputElement).value })"
    /></label>
    <label v-else-if="shape.kind === 'picture'" class="dial-row"
      >Covers by
      <select
        :value="shape.channel"
        :disabled="locked"
        aria-label="Covers by"
        @change="reshape({ ...shape, channel: ($event.target as HTMLSelectElement).value as 'alpha' })"
      >
        <option value="brightness">brightness</option>
        <option value="alpha">alpha</option>
      </select>
    </label>

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
    <label class="dial-row"
      >Feather goes
      <select
        :value="mask.featherSide"
        :disabled="locked"
        aria-label="Feather goes"
        @change="change({ featherSide: ($event.target as HTMLSelectElement).value as Mask['featherSide'] })"
      >
        <option v-for="side in FEATHER_SIDES" :key="side" :value="side">
          {{ side === 'both' ? 'both ways' : side }}
        </option>
      </select>
    </label>
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
.hues button {
  width: 1.5rem;
  height: 1.5rem;
  border-radius: 3px;
  border: 2px solid transparent;
}
.hues button[aria-pressed='true'] {
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
