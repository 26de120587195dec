<script setup lang="ts">
import { computed, inject } from 'vue';
import { mdiDotsVertical } from '@mdi/js';
import { makeStill, setEven, setJitter, togglePeg } from '../../core/document/edits/keys';
import type { Jitter } from '../../core/time/drivers/jitter';
import { entriesOf, isKeyed, valueIn } from '../../core/document/edits/values';
import { keysOf } from '../../core/base/value';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import Icon from './Icon.vue';
import NumberField from './NumberField.vue';
import { NO_PEGS, pegPath } from './peg';
import Check from './Check.vue';

/** The one peg button: adds or removes a keyframe of a value at the playhead; beside it its jitter. */
const props = defineProps<{ path: string; /** only the peg itself */ bare?: boolean }>();
const bareDials = inject(NO_PEGS, false);
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();

const layer = computed(() => bench.layer!);
const value = computed(() => valueIn(layer.value, props.path));
const label = computed(() => entriesOf(layer.value).find((entry) => entry.path === props.path)?.label ?? props.path);
const numeric = computed(
  () =>
    (entriesOf(layer.value).find((entry) => entry.path === props.path)?.parts.length ?? 0) > 0 &&
    props.path !== 'time.speed',
);
const unit = computed(() => entriesOf(layer.value).find((entry) => entry.path === props.path));
const keyed = computed(() => isKeyed(value.value));
const here = computed(() =>
  keysOf(value.value ?? { still: 0 }).find((key) => key.at === playhead.frame - layer.value.span.start),
);
const locked = computed(() => layer.value.locked || store.readOnly);
const jitter = computed(
  () => (value.value?.drivers?.find((driver) => driver.type === 'jitter') as Jitter | undefined) ?? null,
);
const START: Jitter = { type: 'jitter', amount: 10, every: 3, smooth: 0.5, seed: 1 };

function change(part: Partial<Jitter>, dragging = false): void {
  const now = { ...(jitter.value ?? { ...START, amount: START.amount / (unit.value?.factor ?? 1) }), ...part };
  edits.editLayer(
    (project, at) => setJitter(project, at, props.path, { ...now }),
    dragging ? `jitter ${props.path}` : undefined,
  );
}
</script>

<template>
  <span v-if="!bareDials && value" class="peg" :class="{ keyed, here }">
    <button
      class="toggle"
      :aria-label="`${here ? 'Remove' : 'Add'} keyframe of ${label}`"
      :aria-pressed="!!here"
      :title="`${here ? 'Remove the keyframe at the playhead' : keyed ? 'Add a keyframe at the playhead' : `Animate ${label.toLowerCase()}: add a keyframe at the playhead`}`"
      :disabled="locked"
      @click="edits.editLayer((project, at) => togglePeg(project, at, path))"
    >
      <svg viewBox="0 0 9 13" width="9" height="13" aria-hidden="true">
        <path :d="pegPath(here?.ease ?? 'linear')" />
      </svg>
    </button>
    <v-menu v-if="!bare" :close-on-content-click="false">
      <template #activator="{ props: menu }">
        <button
          v-bind="menu"
          class="step more"
          :class="{ shaken: jitter }"
          :aria-label="`Animation of ${label}`"
          title="Jitter and more"
        >
          <Icon :path="mdiDotsVertical" />
        </button>
      </template>
      <div class="sheet" role="dialog" :aria-label="`Animation of ${label}`">
        <strong>{{ label }}</strong>
        <template v-if="numeric">
          <Check
            label="Jitter: seeded noise on top of the value"
            :value="!!jitter"
            :disabled="locked"
            @change="jitter ? edits.editLayer((project, at) => setJitter(project, at, path, null)) : change({})"
          />
          <template v-if="jitter && unit">
            <span class="line"
              >Amount
              <NumberField
                label="Jitter amount"
                :unit="unit.unit"
                :value="jitter.amount * unit.factor"
                :min="0"
                :max="1e6"
                :disabled="locked"
                @change="(v, d) => change({ amount: v / unit!.factor }, d)"
                @end="store.endGesture"
            /></span>
            <span class="line"
              >Changes every
              <NumberField
                label="Jitter interval"
                unit="f"
                :value="jitter.every"
                :min="1"
                :max="10000"
                :disabled="locked"
                @change="(v, d) => change({ every: v }, d)"
                @end="store.endGesture"
            /></span>
            <span class="line"
              >Smoothness
              <NumberField
                label="Jitter smoothness"
                unit="%"
                :value="jitter.smooth * 100"
                :min="0"
                :max="100"
                :disabled="locked"
                @change="(v, d) => change({ smooth: v / 100 }, d)"
                @end="store.endGesture"
            /></span>
            <span class="line"
              >Seed
              <NumberField
                label="Jitter seed"
                :value="jitter.seed"
                :min="0"
                :max="1000000"
                :digits="0"
                :disabled="locked"
                @change="(v, d) => change({ seed: Math.round(v) }, d)"
                @end="store.endGesture"
            /></span>
          </template>
        </template>
        <Check
          v-if="path === 'place.position' && keyed"
          label="Constant speed along the path"
          :value="'keys' in value && !!value.even"
          :disabled="locked"
          @change="(even) => edits.editLayer((project, at) => setEven(project, at, path, even))"
        />
        <v-btn
          size="small"
          variant="text"
          v-if="keyed"
          class="line plain"
          :disabled="locked"
          @click="edits.editLayer((project, at) => makeStill(project, at, path))"
        >
          Remove all keyframes; keep what shows now
        </v-btn>
        <p v-if="!keyed && !numeric" class="dim">Add a keyframe with the peg to animate this.</p>
      </div>
    </v-menu>
  </span>
</template>

<style scoped>
.peg {
  display: inline-flex;
  align-items: center;
}
.toggle {
  display: grid;
  place-items: center;
  width: 1.5rem;
  height: 1.5rem;
}
.toggle path {
  fill: none;
  stroke: var(--dim);
  stroke-width: 1;
}
.keyed .toggle path {
  stroke: var(--chalk);
}
.here .toggle path {
  fill: var(--chalk);
}
.step {
  width: 1.5rem;
  height: 1.5rem;
  color: var(--chalk);
}
.step:disabled {
  opacity: 0.25;
}
.step svg {
  width: 0.9375rem;
  margin: auto;
  fill: currentColor;
}
.more {
  color: var(--dim);
}
.more.shaken {
  color: var(--chalk);
}
.sheet {
  display: grid;
  gap: 6px;
  width: 270px;
  padding: 10px 12px;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  font-size: 0.8125rem;
}
.line {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
label.line {
  justify-content: flex-start;
}
.plain {
  padding: 4px 8px;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 3px;
}
</style>
