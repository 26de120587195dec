<script setup lang="ts">
import { computed } from 'vue';
import { setSide } from '../../core/document/edits/layers';
import { setVanishing } from '../../core/document/edits/project';
import type { Place } from '../../core/document/schema';
import { still } from '../../core/base/value';
import { steadyAt } from '../../core/time/values';
import Check from '../controls/Check.vue';
import Choice from '../controls/Choice.vue';
import Dial from '../controls/Dial.vue';
import NumberField from '../controls/NumberField.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** How deep the chosen layer lies, from which side it is seen, and where all of the shot's depth runs to. */
defineProps<{ at: number; locked: boolean; deep: boolean }>();
defineEmits<{ change: [depth: number, dragging: boolean]; end: [] }>();
const bench = useBench();
const edits = useEdits();
const store = useProject();
const place = computed(() => bench.layer!.place);
const vanishing = computed(() => bench.shot!.vanishing);
const depth = computed(() => place.value.depth ?? still(0));

const SIDES: readonly { value: NonNullable<Place['side']>; title: string }[] = [
  { value: 'both', title: 'both sides' },
  { value: 'front', title: 'its front alone' },
  { value: 'back', title: 'behind alone' },
];
const vanish = (to: [number, number] | null, gesture?: string): void =>
  store.edit(setVanishing(bench.shot!.id, to), gesture);
</script>

<template>
  <Dial
    path="place.depth"
    label="Depth"
    unit="px"
    help="How far the layer lies behind the picture plane; negative before it. What is far is small, as strongly as its perspective says."
    :value="steadyAt(depth, at)"
    :reset="0"
    :min="-1000000"
    :max="1000000"
    :slider="[-1000, 2000]"
    :disabled="locked"
    @change="(v, dragging) => $emit('change', v, dragging ?? false)"
    @end="$emit('end')"
  />
  <template v-if="deep">
    <div
      class="dial-row"
      title="A card with two sides is two layers: one that is seen from its front alone, one from behind"
    >
      Seen from
      <Choice
        label="Seen from"
        :value="place.side ?? 'both'"
        :options="SIDES"
        :disabled="locked"
        @change="(side) => edits.editLayer((project, where) => setSide(project, where, side))"
      />
    </div>
    <Check
      label="One vanishing point for the shot"
      :value="!!vanishing"
      :disabled="store.readOnly"
      title="All layers of this shot that lie in depth are seen from before one point, so that cards that touch go on touching when they turn"
      @change="vanish(vanishing ? null : [0, 0])"
    />
    <div v-if="vanishing" class="towards" title="The vanishing point, from the middle of the shot">
      <span>Towards</span>
      <NumberField
        v-for="axis in [0, 1] as const"
        :key="axis"
        :label="`Vanishing point ${'xy'[axis]}`"
        :unit="'xy'[axis]!"
        :value="vanishing[axis]"
        :min="-1000000"
        :max="1000000"
        :disabled="store.readOnly"
        @change="
          (v, dragging) =>
            vanish(axis ? [vanishing![0], v] : [v, vanishing![1]], dragging ? 'vanishing point' : undefined)
        "
        @end="store.endGesture"
      />
    </div>
  </template>
</template>

<style scoped>
.towards {
  display: grid;
  grid-template-columns: minmax(3.75rem, 1fr) 4.3rem 4.3rem 3rem;
  align-items: center;
  gap: 4px;
  padding: 3px 0;
}
.towards > :deep(.number) {
  width: 100%;
}
</style>
