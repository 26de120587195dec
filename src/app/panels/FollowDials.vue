<script setup lang="ts">
import { computed } from 'vue';
import { setParent } from '../../core/document/edits/layers';
import { setMotionBlur } from '../../core/document/edits/time';
import type { LayerId } from '../../core/document/schema';
import Dial from '../controls/Dial.vue';
import Choice from '../controls/Choice.vue';
import Check from '../controls/Check.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** What a layer goes along with, and how its own movement smears. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const layer = computed(() => bench.layer!);
const locked = computed(() => layer.value.locked || store.readOnly);
const others = computed(() => [
  { value: '', title: 'nothing' },
  ...bench
    .shot!.layers.filter((item) => item.id !== layer.value.id)
    .map(({ id, name }) => ({ value: id as string, title: name })),
]);
const parent = computed(() => layer.value.parent);
const smear = computed(() => layer.value.motionBlur);
const OPEN = { shutter: 0.5, samples: 16 };

function follow(id: string): void {
  edits.editLayer((project, at) =>
    setParent(
      project,
      at,
      id
        ? {
            layer: id as LayerId,
            rotation: layer.value.parent?.rotation ?? true,
            scale: layer.value.parent?.scale ?? true,
          }
        : null,
    ),
  );
}
function flip(part: 'rotation' | 'scale'): void {
  const { parent } = layer.value;
  if (parent) edits.editLayer((project, at) => setParent(project, at, { ...parent, [part]: !parent[part] }));
}
const blur = (change: Partial<typeof OPEN>, dragging = false) =>
  edits.editLayer(
    (project, at) => setMotionBlur(project, at, { ...(layer.value.motionBlur ?? OPEN), ...change }),
    dragging ? 'motion blur' : undefined,
  );
</script>

<template>
  <div>
    <div class="dial-row">
      Follows
      <Choice label="Follows" :value="parent?.layer ?? ''" :options="others" :disabled="locked" @change="follow" />
    </div>
    <span v-if="parent" class="dial-row">
      <Check label="with its rotation" :value="parent.rotation" :disabled="locked" @change="flip('rotation')" />
      <Check label="and scale" :value="parent.scale" :disabled="locked" @change="flip('scale')" />
    </span>
    <Check
      label="Motion blur"
      :value="!!smear"
      :disabled="locked"
      @change="edits.editLayer((project, at) => setMotionBlur(project, at, smear ? null : OPEN))"
    />
    <template v-if="smear">
      <Dial
        label="Shutter"
        unit="%"
        help="How long the shutter is open: 100 % is the whole frame."
        :value="smear.shutter * 100"
        :reset="50"
        :min="0"
        :max="200"
        :slider="[0, 100]"
        :disabled="locked"
        @change="(v, d) => blur({ shutter: v / 100 }, d)"
        @end="store.endGesture"
      />
      <Dial
        label="Samples"
        help="Moments that are mixed. A reduced preview takes at most eight; the render takes all."
        :value="smear.samples"
        :reset="16"
        :min="2"
        :max="64"
        :slider="[2, 64]"
        :digits="0"
        :disabled="locked"
        @change="(v, d) => blur({ samples: Math.round(v) }, d)"
        @end="store.endGesture"
      />
    </template>
  </div>
</template>
