<script setup lang="ts">
import { computed } from 'vue';
import { setMatte } from '../../core/document/edits/layers';
import { sourceSize } from '../../core/document/find';
import type { LayerId } from '../../core/document/schema';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** Another layer's alpha or brightness as this layer's coverage. */
const bench = useBench();
const store = useProject();
const layer = computed(() => bench.layer!);
const locked = computed(() => layer.value.locked || store.readOnly);
const others = computed(() =>
  bench.shot!.layers.filter((item) => item.id !== layer.value.id && sourceSize(store.current(), bench.shot!, item)),
);
function choose(id: string): void {
  bench.editLayer((project, at) =>
    setMatte(project, at, id ? { by: 'alpha', invert: false, ...layer.value.matte, layer: id as LayerId } : null),
  );
}
</script>

<template>
  <div>
    <label class="dial-row">
      Matte from
      <select
        :value="layer.matte?.layer ?? ''"
        :disabled="locked"
        aria-label="Matte from"
        @change="
          (choose(($event.target as HTMLSelectElement).value),
          (($event.target as HTMLSelectElement).value = layer.matte?.layer ?? ''))
        "
      >
        <option value="">its own alpha</option>
        <option v-for="other in others" :key="other.id" :value="other.id">{{ other.name }}</option>
      </select>
    </label>
    <template v-if="layer.matte">
      <label class="dial-row">
        Covers by
        <select
          :value="layer.matte.by"
          :disabled="locked"
          aria-label="Matte by"
          @change="
            bench.editLayer((project, at) =>
              setMatte(project, at, { ...layer.matte!, by: ($event.target as HTMLSelectElement).value as 'alpha' }),
            )
          "
        >
          <option value="alpha">alpha</option>
          <option value="brightness">brightness</option>
        </select>
      </label>
      <label class="dial-row"
        ><span>Matte inverted</span
        ><input
          type="checkbox"
          aria-label="Matte inverted"
          :checked="layer.matte.invert"
          :disabled="locked"
          @change="
            bench.editLayer((project, at) => setMatte(project, at, { ...layer.matte!, invert: !layer.matte!.invert }))
          "
      /></label>
      <p class="dim">The layer that gives the matte can be hidden.</p>
    </template>
  </div>
</template>
