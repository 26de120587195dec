<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { coloursOf, partOfWay, type Match, type MatchPart } from '../../core/analysis/match';
import { JackplaneError } from '../../core/base/errors';
import { setPassValues } from '../../core/document/edits/passes';
import type { StockId } from '../../core/document/schema';
import { passOf } from '../../core/passes/registry';
import { planBefore, planBehind, stillPlan } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { TEXTURES, useTextureMatch } from './match-texture';

/** Takes the chosen pass's values from what brings the layer's colours near those behind it, or of a picture of the stock. They are ordinary values then. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const preview = usePreview();
const notices = useNotices();
const BEHIND = 'behind';
const to = ref<typeof BEHIND | StockId>(BEHIND);
const part = ref<MatchPart>('all');
const PARTS = [
  { value: 'all', title: 'all of it' },
  { value: 'dark', title: 'the dark' },
  { value: 'middle', title: 'the middle' },
  { value: 'bright', title: 'the bright' },
];
const goals = computed(() => {
  const pictures = (store.project?.stock ?? []).filter((item) => item.kind === 'image');
  const [pinned, others] = [pictures.filter((item) => item.still), pictures.filter((item) => !item.still)];
  return [
    { value: BEHIND, title: 'what lies behind it' },
    ...[...pinned, ...others].map((item) => ({ value: item.id, title: item.name })),
  ];
});
watch(goals, (list) => {
  if (!list.some(({ value }) => value === to.value)) to.value = BEHIND;
});
const texture = useTextureMatch();
/** What the layer is matched to, as a picture and in words. */
const goalPlan = (reduction: 1 | 4) => {
  const { shot, layer } = bench;
  const { frame } = playhead;
  if (!shot || !layer) return null;
  const project = store.current();
  return to.value === BEHIND
    ? planBehind(project, shot, layer, frame, reduction)
    : stillPlan(project, shot, to.value, reduction);
};
const named = computed(() => goals.value.find(({ value }) => value === to.value)!.title);
const going = ref(false);
const found = shallowRef<Match | null>(null);
const strength = ref(1);
const disabled = computed(() => bench.layer!.locked || store.readOnly);

function set(match: Match, dragging: boolean): void {
  const { pass } = bench;
  const sets = pass && passOf(pass.type)?.matched;
  if (!pass || !sets) return;
  const values = sets(partOfWay(match.values, strength.value)) as Record<string, unknown>;
  edits.editLayer(
    (project, at) => setPassValues(project, at, pass.id, values, 'match'),
    dragging ? `match ${pass.id}` : undefined,
  );
}
async function match(): Promise<void> {
  const { pass, layer, shot } = bench;
  const { frame } = playhead;
  if (!pass || !layer || !shot || going.value) return;
  going.value = true;
  try {
    const project = store.current();
    const goal = goalPlan(4);
    const engine = await useEngine();
    const other = goal && coloursOf(await engine.pixels(goal));
    if (!other)
      throw new JackplaneError(
        'bad-value',
        to.value === BEHIND ? `Nothing lies behind ${layer.name} on this frame.` : 'That picture is empty.',
        'Choose something else to match it to.',
      );
    const own = planBefore(project, shot, layer, pass.id, frame);
    const result = own && (await engine.measure(own, 'match', { other, part: part.value }));
    if (!result)
      throw new JackplaneError(
        'bad-value',
        `Nothing solid of ${layer.name} shows on this frame, so there is nothing to match.`,
        'Go to a frame that shows it.',
      );
    found.value = result;
    // what shows other things is followed half of the way at first
    strength.value = Math.round(50 + 50 * result.alike) / 100;
    set(result, false);
  } catch (error) {
    notices.problem(error);
  } finally {
    going.value = false;
  }
}
function turn(value: number): void {
  if (!found.value) return;
  preview.touching = true;
  strength.value = value;
  set(found.value, true);
}
function end(): void {
  preview.touching = false;
  store.endGesture();
}
/** Below this the two pictures hardly show the same things. */
const UNLIKE = 0.5;
</script>

<template>
  <div class="match" role="group" aria-label="Match">
    <v-select v-model="to" label="Match to" :items="goals" :disabled="disabled" />
    <div class="row">
      <v-select v-model="part" label="In" :items="PARTS" :disabled="disabled" />
      <v-btn size="small" :disabled="disabled || !playhead.layerHere" :loading="going" @click="match">Match</v-btn>
    </div>
    <div class="also" role="group" aria-label="Match by a pass of its own">
      <span class="dim">Also</span>
      <v-btn
        v-for="one in TEXTURES"
        :key="one.label"
        size="small"
        :title="one.help"
        :disabled="disabled || !playhead.layerHere"
        :loading="texture.going.value === one.label"
        @click="texture.add(one, goalPlan(1), named)"
        >{{ one.label }}</v-btn
      >
    </div>
    <template v-if="found">
      <v-slider
        class="strength"
        label="Strength"
        hide-details
        density="compact"
        thumb-size="12"
        aria-label="Strength of the match"
        :model-value="strength"
        :min="0"
        :max="1"
        :step="0.01"
        :disabled="disabled"
        @update:model-value="turn"
        @end="end"
      />
      <p class="dim" role="note">
        The colours lay {{ found.before.toFixed(1) }} ΔE apart; at full strength they lie {{ found.after.toFixed(1) }}
        apart.
        <template v-if="found.alike < UNLIKE">
          The two show different things, so it goes only part of the way. Judge it by eye.</template
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
.match {
  margin-top: 10px;
  padding-top: 12px;
  border-top: 1px solid var(--line);
  display: grid;
  gap: 8px;
  padding-bottom: 10px;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  align-items: center;
}
.also {
  display: grid;
  grid-template-columns: auto 1fr 1fr 1fr;
  gap: 6px;
  align-items: center;
}
.strength :deep(.v-label) {
  font-size: 0.8125rem;
}
.dim {
  font-size: 0.75rem;
}
</style>
