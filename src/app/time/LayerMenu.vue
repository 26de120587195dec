<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { freezeHere, relateLayer, reverseLayer, type TimeRelation } from '../../core/document/edits/time';
import { partsThere } from '../../core/document/edits/part-jigs';
import { replaceSource } from '../../core/document/edits/parts';
import { groupOf, LAYER_PARTS, stockOf, type LayerPart } from '../../core/document/schema';
import { parseQuantity } from '../../core/time/quantity';
import { ask, useAnswer } from '../base/asks';
import ShortField from '../controls/ShortField.vue';
import { ALIGNMENTS } from '../../core/document/edits/align';
import SubMenu from '../controls/SubMenu.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import LooksSheet from './LooksSheet.vue';
import { TABLE_SIZES, useGradeFiles } from '../stores/grade-files';
import { useGrades } from '../stores/grades';
import { useJigs } from '../stores/jigs';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';

/** What can be done with the chosen layer in time. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const selection = useSelection();
const group = computed(() => bench.layer && groupOf(bench.layer));
const grades = useGrades();
const files = useGradeFiles();
const open = ref(false);
const looks = ref(false);
const jigs = useJigs();
watch(
  () => selection.menuAt,
  (at) => {
    if (at) open.value = true;
  },
);
watch(open, (shown) => {
  if (!shown) selection.menuAt = null;
});
/** Choices of the parts of a layer. */
const CHOICES: readonly { title: string; parts: ReadonlySet<LayerPart> }[] = [
  { title: 'All of these', parts: new Set(LAYER_PARTS.map(({ name }) => name)) },
  ...LAYER_PARTS.map(({ name, label }) => ({ title: `Its ${label}`, parts: new Set([name]) })),
];
/** What can be pasted of a layer that was copied. */
const pastes = computed(() => {
  const held = selection.clipboard;
  if (held?.kind !== 'layers') return [];
  return CHOICES.map(({ title, parts }) => ({
    title,
    subtitle: `of ${held.layers[0]!.name}`,
    run: () => closing(() => selection.pasteParts(parts)),
  }));
});
/** What of the chosen layer can be kept to be put on others. */
const keeps = computed(() => {
  const there = new Set(bench.layer && bench.size ? partsThere(bench.layer) : []);
  return CHOICES.filter(({ parts }) => [...parts].some((part) => there.has(part))).map(({ title, parts }) => ({
    title,
    run: () => closing(() => jigs.keepParts(parts)),
  }));
});
/** What the chosen layers can be put in line by. */
const alignments = ALIGNMENTS.map(({ name, label }) => ({
  title: label,
  run: () => closing(() => selection.align(name)),
}));
/** Stock that the layer could show instead. */
const replacements = computed(() => {
  const own = bench.layer && stockOf(bench.layer);
  if (!own || !store.project) return [];
  return store.project.stock
    .filter(({ id, facts }) => id !== own && !!facts.width === !!bench.size)
    .map(({ id, name }) => ({
      title: name,
      run: () => closing(() => edits.editLayer((project, at) => replaceSource(project, at, id))),
    }));
});
const offset = ref('5f');
const length = ref('1.5s');
function closing(act: () => void): void {
  open.value = false;
  act();
}
useAnswer('looks', () => (looks.value = !!bench.size));
const others = computed(() => bench.shot!.layers.filter((layer) => layer.id !== bench.layerId));
const frames = (text: string) => parseQuantity(text, { current: 0, rate: bench.shot!.rate });
const relate = (relation: TimeRelation) =>
  edits.editLayer((project, at) => relateLayer(project, { ...at, frame: playhead.frame }, relation));
const RELATIONS = [
  { kind: 'start-with', label: 'Start with' },
  { kind: 'end-with', label: 'End with' },
  { kind: 'after', label: 'Begin after' },
  { kind: 'before', label: 'End before' },
] as const;
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" :target="selection.menuAt ?? undefined">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" size="small" :disabled="store.readOnly">Layer ▾</v-btn>
    </template>
    <v-list class="sheet">
      <v-list-item title="Split at the playhead" subtitle="S" @click="selection.split()" />
      <v-list-item title="Copy" subtitle="Ctrl+C" @click="selection.copy()" />
      <v-list-item
        title="Paste at the playhead"
        subtitle="Ctrl+V"
        :disabled="!selection.clipboard"
        @click="selection.paste()"
      />
      <v-list-item
        title="Paste keyframes reversed"
        subtitle="Ctrl+Shift+V"
        :disabled="selection.clipboard?.kind !== 'keys'"
        @click="selection.paste(true)"
      />
      <SubMenu title="Paste onto these layers…" :items="pastes" :disabled="!pastes.length || !bench.size" />
      <SubMenu title="Align…" :items="alignments" :disabled="!bench.size || store.readOnly" />
      <SubMenu title="Replace its source…" :items="replacements" :disabled="!replacements.length" />
      <div class="line">
        <v-btn size="small" @click="frames(offset) !== null && selection.duplicate(Math.round(frames(offset)!))">
          Duplicate, later by
        </v-btn>
        <ShortField v-model="offset" label="Offset of the duplicate" />
      </div>
      <v-list-item title="Delete, leave the gap" subtitle="Delete" @click="selection.remove()" />
      <v-list-item title="Delete and close the gap" subtitle="Shift+Delete" @click="selection.remove(true)" />
      <v-divider />
      <v-list-item
        :title="selection.layers.length > 1 ? `Group these ${selection.layers.length} layers` : 'Group this layer'"
        subtitle="Ctrl+G"
        :disabled="!bench.layer"
        @click="closing(selection.group)"
      />
      <template v-if="group">
        <v-list-item title="Open the group" @click="closing(() => playhead.step(group!))" />
        <v-list-item title="Ungroup" subtitle="Ctrl+Shift+G" @click="closing(selection.apart)" />
      </template>
      <v-list-item title="Keep as a jig" subtitle="made layers" :disabled="!bench.layer" @click="closing(jigs.keep)" />
      <SubMenu title="Keep what was done as a jig…" :items="keeps" :disabled="!keeps.length" />
      <v-list-item title="Jigs…" @click="closing(() => ask('jigs'))" />
      <v-list-item
        title="Looks…"
        subtitle="several at a glance"
        :disabled="!bench.size"
        @click="closing(() => (looks = true))"
      />
      <v-list-item title="Copy its grade" :disabled="!bench.size" @click="closing(grades.copy)" />
      <v-list-item title="Paste a grade" :disabled="!grades.clipboard || !bench.size" @click="closing(grades.paste)" />
      <SubMenu
        title="Save its grade as a table…"
        :disabled="!bench.size"
        :items="
          TABLE_SIZES.map((side) => ({
            title: `.cube, ${side} points a side`,
            run: () => closing(() => void files.saveTable(side)),
          }))
        "
      />
      <v-divider />
      <v-list-item title="Play backwards" @click="edits.editLayer(reverseLayer)" />
      <v-list-item title="Freeze from here" @click="edits.editLayer(freezeHere)" />
      <v-list-item title="Fill the shot" @click="relate({ kind: 'fill' })" />
      <div class="line">
        <v-btn size="small" @click="frames(length) !== null && relate({ kind: 'from-here', frames: frames(length)! })">
          From here, for
        </v-btn>
        <ShortField v-model="length" label="Length from here" />
      </div>
      <v-list-item title="In time with…" :disabled="!others.length">
        <v-menu activator="parent" location="end" submenu>
          <v-list>
            <SubMenu
              v-for="relation in RELATIONS"
              :key="relation.kind"
              :title="`${relation.label}…`"
              :items="
                others.map(({ id, name }) => ({ title: name, run: () => relate({ kind: relation.kind, other: id }) }))
              "
            />
          </v-list>
        </v-menu>
      </v-list-item>
    </v-list>
  </v-menu>
  <LooksSheet v-model="looks" />
</template>

<style scoped>
.sheet {
  width: 270px;
}
/* keys stand at the right */
.sheet > .v-list-item :deep(.v-list-item__content) {
  display: flex;
  gap: 12px;
  align-items: baseline;
  justify-content: space-between;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 3px 16px;
}
.field {
  flex: none;
  width: 5rem;
}
</style>
