<script setup lang="ts">
import { computed } from 'vue';
import { setMatte } from '../../core/document/edits/layers';
import { sourceSize } from '../../core/document/find';
import type { LayerId } from '../../core/document/schema';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import Choice from '../controls/Choice.vue';
import Check from '../controls/Check.vue';

/** Another layer's alpha or brightness as this layer's coverage. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const layer = computed(() => bench.layer!);
const locked = computed(() => layer.value.locked || store.readOnly);
const others = computed(() => [
  { value: '', title: 'its own alpha' },
  ...bench
    .shot!.layers.filter((item) => item.id !== layer.value.id && sourceSize(store.current(), bench.shot!, item))
    .map(({ id, name }) => ({ value: id as string, title: name })),
]);
const matte = computed(() => layer.value.matte);
function choose(id: string): void {
  edits.editLayer((project, at) =>
    setMatte(project, at, id ? { by: 'alpha', invert: false, ...layer.value.matte, layer: id as LayerId } : null),
  );
}
</script>

<template>
  <div>
    <div class="dial-row">
      Matte from
      <Choice label="Matte from" :value="matte?.layer ?? ''" :options="others" :disabled="locked" @change="choose" />
    </div>
    <template v-if="matte">
      <div class="dial-row">
        Covers by
        <Choice
          label="Matte by"
          :value="matte.by"
          :options="[
            { value: 'alpha' as const, title: 'alpha' },
            { value: 'brightness' as const, title: 'brightness' },
          ]"
          :disabled="locked"
          @change="(by) => edits.editLayer((project, at) => setMatte(project, at, { ...matte!, by }))"
        />
      </div>
      <Check
        label="Matte inverted"
        :value="matte.invert"
        :disabled="locked"
        @change="(invert) => edits.editLayer((project, at) => setMatte(project, at, { ...matte!, invert }))"
      />
      <p class="dim">The layer that gives the matte can be hidden.</p>
    </template>
  </div>
</template>
