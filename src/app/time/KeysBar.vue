<script setup lang="ts">
import { computed, ref } from 'vue';
import { easeKeys, moveKeys, scaleKeys, stretchKeys } from '../../core/document/edits/keys';
import { parseQuantity } from '../../core/time/quantity';
import { valueIn } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import ShortField from '../controls/ShortField.vue';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import Choice from '../controls/Choice.vue';
import { EASE_KINDS, USUAL_STRENGTH } from './easings';

/** What can be done with the chosen keyframes. */
const bench = useBench();
const store = useProject();
const notices = useNotices();
const selection = useSelection();
const strength = ref(USUAL_STRENGTH * 100);
const shift = ref('+12f');
const stretch = ref('200%');
const factor = ref('1');
const add = ref('0');
/** What the chosen keyframes have in common, by its name. */
const common = computed(() => {
  const eases = selection.keys.map((ref) => {
    const layer = bench.shot?.layers.find((item) => item.id === ref.layer);
    const ease = layer && keysOf(valueIn(layer, ref.path) ?? { still: 0 }).find((key) => key.at === ref.at)?.ease;
    if (ease === undefined) return '';
    return typeof ease === 'string'
      ? ease
      : 'bounce' in ease
        ? 'bounce'
        : (EASE_KINDS.find((kind) => JSON.stringify(kind.make(strength.value / 100)) === JSON.stringify(ease))?.name ??
          'own');
  });
  return eases.every((ease) => ease === eases[0]) ? eases[0]! : '';
});
function ease(name: string): void {
  const kind = EASE_KINDS.find((entry) => entry.name === name);
  if (kind && bench.shot) store.edit(easeKeys(bench.shot.id, selection.keys, kind.make(strength.value / 100)));
}
const quantity = (text: string, percent = false) =>
  parseQuantity(text, { current: 0, percent, rate: bench.shot!.rate });
/** What was typed, or a word about it where it says nothing. */
function read(text: string, percent = false): number | null {
  const value = quantity(text, percent);
  if (value === null) notices.say(`“${text}” is no number. Type 12, -12, 1.5s or 50%.`, 'problem');
  return value;
}
function moveAll(): void {
  const by = read(shift.value);
  if (by !== null) selection.moveBy(Math.round(by));
}
function stretchAll(): void {
  const by = read(stretch.value, true);
  if (by === null || by <= 0 || !bench.shot) return;
  const starts = selection.keys.map(
    (ref) => ref.at + bench.shot!.layers.find((item) => item.id === ref.layer)!.span.start,
  );
  store.edit(stretchKeys(bench.shot.id, selection.keys, by / 100, Math.min(...starts)));
  selection.keys = [];
}
function scaleAll(): void {
  // 50% and 0.5 are the same factor, −1 turns the values over
  const percent = factor.value.includes('%');
  const by = read(factor.value, percent);
  const more = by === null ? null : read(add.value);
  const path = selection.keys[0]?.path;
  if (by === null || more === null || !bench.shot || !path) return;
  store.edit(scaleKeys(bench.shot.id, selection.keys, percent ? by / 100 : by, more));
}
/** Puts the chosen keyframes on the shot's markers, in order. */
function toMarkers(): void {
  const { shot } = bench;
  if (!shot?.markers.length) return;
  const first = selection.keys[0]!;
  const start = shot.layers.find((layer) => layer.id === first.layer)!.span.start;
  const ordered = [...selection.keys].sort((a, b) => a.at - b.at);
  const marks = shot.markers.map((marker) => marker.at - start);
  ordered
    .slice(0, marks.length)
    .reverse()
    .forEach((ref, i, list) => {
      const target = marks[list.length - 1 - i]!;
      store.edit(moveKeys(shot.id, [ref], target - ref.at), 'markers');
    });
  store.endGesture();
  selection.keys = [];
}
</script>

<template>
  <span class="bar" role="group" aria-label="Chosen keyframes">
    <span class="chalk">{{ selection.keys.length }} {{ selection.keys.length === 1 ? 'keyframe' : 'keyframes' }}</span>
    <Choice
      label="Easing"
      placeholder="easing…"
      :value="common || null"
      :options="[
        ...(common === 'own' ? [{ value: 'own', title: 'own handles' }] : []),
        ...EASE_KINDS.map(({ name, label }) => ({ value: name, title: label })),
      ]"
      :disabled="store.readOnly"
      @change="ease"
    />
    <div class="strength" title="How strong ease, overshoot and bounce are">
      strength
      <v-text-field
        :model-value="strength"
        class="field"
        single-line
        hide-details
        type="number"
        min="5"
        max="100"
        step="5"
        aria-label="Strength of easing"
        @update:model-value="(value: string) => (strength = Number(value))"
        @keydown.stop
        @change="!['hold', 'linear', 'smooth', '', 'own'].includes(common) && ease(common)"
      />
    </div>
    <v-menu :close-on-content-click="false">
      <template #activator="{ props: menu }"><v-btn v-bind="menu" size="small">Change ▾</v-btn></template>
      <div class="sheet">
        <span
          ><v-btn size="small" @click="moveAll">Shift by</v-btn><ShortField v-model="shift" label="Shift keyframes by"
        /></span>
        <span
          ><v-btn size="small" @click="stretchAll">Stretch in time to</v-btn
          ><ShortField v-model="stretch" label="Stretch keyframes to"
        /></span>
        <span
          ><v-btn size="small" @click="scaleAll">Values × and +</v-btn
          ><ShortField v-model="factor" label="Scale values to" /><ShortField v-model="add" label="Add to values"
        /></span>
        <v-btn size="small" :disabled="!bench.shot?.markers.length" @click="toMarkers">
          Put on the markers, in order
        </v-btn>
        <v-btn size="small" @click="selection.copy()">Copy</v-btn>
        <v-btn size="small" @click="selection.remove()">Delete</v-btn>
      </div>
    </v-menu>
  </span>
</template>

<style scoped>
.bar > .choice {
  flex: none;
  width: 7.25rem;
}
.strength {
  display: flex;
  gap: 6px;
  align-items: center;
}
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-left: 10px;
}
.chalk {
  color: var(--chalk);
}
.field {
  flex: none;
  width: 4rem;
}
.sheet {
  display: grid;
  gap: 6px;
  padding: 10px;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.sheet span {
  display: flex;
  gap: 6px;
}
.sheet span .v-btn {
  flex: 1;
  text-align: left;
}
</style>
