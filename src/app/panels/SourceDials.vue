<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { stockOf } from '../../core/document/schema';
import { levelText } from '../../core/sound/level';
import { renameLayer, setGain, setMuted, setSourceValue } from '../../core/document/edits/layers';
import { moveLayer, trimEnd } from '../../core/document/edits/time';
import { stockIn } from '../../core/document/find';
import { rateLabel } from '../../core/time/rate';
import { sourceOf } from '../../core/sources/registry';
import { steadyAt } from '../../core/time/values';
import Dial from '../controls/Dial.vue';
import ClipEncoding from './ClipEncoding.vue';
import SpeedDials from './SpeedDials.vue';
import ParamDials from '../dials/ParamDials.vue';
import NumberField from '../controls/NumberField.vue';
import Check from '../controls/Check.vue';
import TextField from '../controls/TextField.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

const ShapeDials = defineAsyncComponent(() => import('./ShapeDials.vue'));
const TitleDials = defineAsyncComponent(() => import('./TitleDials.vue'));

/** What a layer shows and when, and its sound. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const layer = computed(() => bench.layer!);
const locked = computed(() => layer.value.locked || store.readOnly);
const stock = computed(() => {
  const item = stockOf(layer.value);
  return store.project && item ? stockIn(store.project, item) : null;
});
const rows = computed(() => {
  const item = stock.value;
  if (!item) return [];
  const { facts } = item;
  return [
    ['File', item.file],
    ['Size', facts.width ? `${facts.width}×${facts.height}` : null],
    ['Rate', facts.rate === 'variable' ? 'variable' : facts.rate ? rateLabel(facts.rate) : null],
    ['Length', facts.seconds === undefined ? null : `${facts.seconds.toFixed(2)} s`],
    ['Codec', facts.codec],
    ['Alpha', facts.width ? (facts.alpha ? 'yes' : 'no') : null],
    ['Sound', facts.sound ? `${facts.sound.codec}, ${facts.sound.channels} ch` : facts.width ? 'none' : null],
  ].filter((row): row is [string, string] => row[1] !== null);
});
const declared = computed(() => sourceOf(layer.value.source.type));
/** What of them says something for this layer. */
const params = computed(() => {
  const { bare, ...others } = declared.value?.params ?? {};
  return bare && stock.value?.line.length ? { ...others, bare } : others;
});
const setValue = (name: string, value: unknown, dragging: boolean): void =>
  edits.editLayer((project, at) => setSourceValue(project, at, name, value), dragging ? `source ${name}` : undefined);
function rename(text: string): void {
  const name = text.trim();
  if (name && name !== layer.value.name) edits.editLayer((project, at) => renameLayer(project, at, name));
}
</script>

<template>
  <div>
    <div class="dial-row">
      Name
      <TextField class="name" label="Layer name" :value="layer.name" :disabled="locked" @change="rename" />
    </div>
    <div class="dial-row">
      Starts at frame
      <NumberField
        label="Start"
        unit="f"
        :value="layer.span.start"
        :rate="bench.shot!.rate"
        :min="-1000000"
        :max="1000000"
        :digits="0"
        :disabled="locked"
        @change="(v, d) => edits.editLayer((p, at) => moveLayer(p, at, v), d ? 'start' : undefined)"
        @end="store.endGesture"
      />
    </div>
    <div class="dial-row">
      Length
      <NumberField
        label="Length"
        unit="f"
        :value="layer.span.length"
        :rate="bench.shot!.rate"
        :min="1"
        :max="1000000"
        :digits="0"
        :disabled="locked"
        @change="(v, d) => edits.editLayer((p, at) => trimEnd(p, at, layer.span.start + v), d ? 'length' : undefined)"
        @end="store.endGesture"
      />
    </div>
    <p v-if="!declared" class="dim" role="note">
      This version does not know what this layer shows ({{ layer.source.type }}). It is kept as it is.
    </p>
    <TitleDials v-if="layer.source.type === 'title'" :disabled="locked" />
    <ShapeDials v-if="layer.source.type === 'shape'" :disabled="locked" />
    <ParamDials
      v-if="declared"
      :params="params"
      :values="layer.source.values"
      path="source"
      :disabled="locked"
      @change="setValue"
    />
    <ClipEncoding v-if="stock?.facts.width" :key="stock.id" :stock="stock" :disabled="locked" />
    <template v-if="stock && stock.kind !== 'image'">
      <hr />
      <SpeedDials />
    </template>
    <template v-if="stock?.facts.sound">
      <hr />
      <Dial
        path="sound.gain"
        label="Level"
        :note="levelText(steadyAt(layer.sound.gain, playhead.frame - layer.span.start))"
        unit="%"
        help="Loudness of this layer’s sound; 100 %, 0 dB, is as recorded."
        :value="steadyAt(layer.sound.gain, playhead.frame - layer.span.start) * 100"
        :reset="100"
        :min="0"
        :max="800"
        :slider="[0, 200]"
        :disabled="locked"
        @change="(v, d) => edits.editLayer((p, at) => setGain(p, at, v / 100), d ? 'level' : undefined)"
        @end="store.endGesture"
      />
      <Check
        label="Muted"
        :value="layer.sound.muted"
        :disabled="locked"
        @change="edits.editLayer((p, at) => setMuted(p, at, !layer.sound.muted))"
      />
    </template>
    <dl v-if="rows.length">
      <template v-for="[name, value] in rows" :key="name">
        <dt class="dim">{{ name }}</dt>
        <dd class="mono">{{ value }}</dd>
      </template>
    </dl>
  </div>
</template>

<style scoped>
.name {
  flex: 0 1 10.625rem;
}
.check {
  display: flex;
  gap: 8px;
  padding: 4px 0;
}
dl {
  display: grid;
  grid-template-columns: 4.375rem 1fr;
  gap: 3px 8px;
  margin-top: 12px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  font-size: 0.75rem;
}
dd {
  overflow-wrap: anywhere;
}
</style>
