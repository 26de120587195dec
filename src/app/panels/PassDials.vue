<script setup lang="ts">
import { counts } from '../../core/params/define';
import { computed, watch } from 'vue';
import { boundToLayer, passToClip, passToLayer } from '../../core/document/edits/clip-line';
import { setArea } from '../../core/document/edits/masks';
import { setPassValue, switchGroup } from '../../core/document/edits/passes';
import { stockOf } from '../../core/document/schema';
import type { MaskId } from '../../core/document/mask';
import { planPasses } from '../../core/plan/passes';
import { passOf } from '../../core/passes/registry';
import { steadyAt } from '../../core/time/values';
import RangeDrawing from '../dials/RangeDrawing.vue';
import { maskOfRange } from '../stores/range-mask';
import FollowTrack from '../track/FollowTrack.vue';
import AutomaticDials from './AutomaticDials.vue';
import MatchDials from './MatchDials.vue';
import PassFiles from './PassFiles.vue';
import MaskPicker from '../controls/MaskPicker.vue';
import Choice from '../controls/Choice.vue';
import ParamDials from '../dials/ParamDials.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';

/** The dials of a pass, made from its declaration. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const masking = useMasking();
const pass = computed(() => bench.pass!);
const declared = computed(() => passOf(pass.value.type));
const locked = computed(() => bench.layer!.locked || store.readOnly);

/** What the pass says of its values as they are at the playhead. */
const note = computed(() => {
  if (!declared.value?.note || !bench.size) return null;
  const [plan] = planPasses(playhead.moment, [{ ...pass.value, on: true }], bench.size, '');
  return plan ? declared.value.note(plan.values as never) : null;
});

// what is picked on the picture must be of a dial that shows
watch(
  () => {
    const param = bench.picking === null ? undefined : declared.value?.params[bench.picking];
    return !param || counts(param, (choice) => steadyAt(pass.value.values[choice]!, playhead.moment.frame));
  },
  (shows) => {
    if (!shows) bench.picking = null;
  },
);
function set(name: string, value: unknown, dragging: boolean): void {
  const { id } = pass.value;
  edits.editLayer((project, at) => setPassValue(project, at, id, name, value), dragging ? `${id} ${name}` : undefined);
}
/** The group of dials that the drawing of ranges belongs to. */
const rangesGroup = computed(() => {
  const first = declared.value?.ranges?.lights[0];
  return (first && declared.value?.params[first]?.group) ?? '';
});
/** Where the pass works. The first choice of a side takes the mask that was worked on last. */
function limit(side: string): void {
  const { id, area } = pass.value;
  const first = masking.maskId ?? masking.masks[0]?.id;
  const masks = area?.masks ?? (first ? [first] : []);
  edits.editLayer((project, at) =>
    setArea(project, at, id, side === 'everywhere' ? null : { masks, side: side as 'inside' }),
  );
}
const areaMasks = (masks: MaskId[]): void =>
  edits.editLayer((project, at) =>
    setArea(project, at, pass.value.id, { masks, side: pass.value.area?.side ?? 'inside' }),
  );
</script>

<template>
  <p v-if="!declared" class="dim" role="note">
    This version does not know this pass. It is kept as it is, and does nothing here.
  </p>
  <div v-else>
    <div v-if="bench.ofClip" class="clip hint" role="note">
      Belongs to the clip: every layer made from it shows it, in every shot.
      <v-btn
        size="small"
        :disabled="locked"
        @click="edits.editLayer((project, at) => passToLayer(project, at, pass.id))"
        >Only this layer</v-btn
      >
    </div>
    <AutomaticDials v-if="declared.automatic" />
    <PassFiles v-if="declared.files" />
    <ParamDials
      :params="declared.params"
      :values="pass.values"
      :path="`pass.${pass.id}`"
      :disabled="locked"
      :out="pass.out ?? []"
      @change="set"
      @bypass="(group) => edits.editLayer((project, at) => switchGroup(project, at, pass.id, group))"
    >
      <template v-if="declared.ranges" #[rangesGroup]
        ><RangeDrawing :ranges="declared.ranges" :disabled="locked"
      /></template>
    </ParamDials>
    <MatchDials v-if="declared.matched" />
    <v-btn
      v-if="declared.selection"
      size="small"
      variant="text"
      :disabled="locked || !playhead.layerHere"
      title="What is inside on this frame becomes a mask of the layer, to cut by or to limit other passes with"
      @click="maskOfRange"
      >Make a mask of it</v-btn
    >
    <FollowTrack v-if="!bench.ofClip" :paths="Object.keys(pass.values).map((name) => `pass.${pass.id}.${name}`)" />
    <p v-if="note?.says" class="hint" :class="{ warns: note.warns }" role="note">{{ note.says }}</p>
    <template v-if="!declared.whole && !bench.ofClip">
      <hr />
      <div class="dial-row">
        Area
        <Choice
          label="Area"
          :value="pass.area?.side ?? 'everywhere'"
          :options="[
            { value: 'everywhere', title: 'everywhere' },
            { value: 'inside', title: 'inside masks' },
            { value: 'outside', title: 'outside masks' },
          ]"
          :disabled="locked"
          @change="limit"
        />
      </div>
      <p v-if="pass.area && !pass.area.masks.length" class="hint" role="note">
        No mask is chosen yet, so it works everywhere. The next mask you draw becomes its area.
      </p>
      <MaskPicker
        v-if="pass.area"
        label="Masks of the area"
        :chosen="pass.area.masks"
        :disabled="locked"
        @change="areaMasks"
      />
    </template>
    <v-btn
      v-if="!bench.ofClip && stockOf(bench.layer!) && !boundToLayer(pass)"
      size="small"
      variant="text"
      :disabled="locked"
      title="Gives this pass, and those before it, to the clip: every layer made from it shows them, in every shot"
      @click="edits.editLayer((project, at) => passToClip(project, at, pass.id))"
      >For the whole clip</v-btn
    >
    <p class="help dim">{{ declared.help }}</p>
  </div>
</template>

<style scoped>
.hint {
  padding: 4px 8px;
  border-left: 2px solid var(--dim);
  font-size: 0.75rem;
  color: var(--dim);
}
.clip {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-bottom: 8px;
}
.warns {
  border-left-color: var(--red);
  color: var(--text);
}
.help {
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  font-size: 0.75rem;
  line-height: 1.45;
}
</style>
