<script setup lang="ts">
import { computed } from 'vue';
import { passOf } from '../../core/passes/registry';
import { useBench } from '../stores/bench';
import PassDials from './PassDials.vue';
import PlaceDials from './PlaceDials.vue';
import SourceDials from './SourceDials.vue';

const bench = useBench();
const title = computed(() => {
  if (!bench.layer) return 'Nothing chosen';
  if (bench.pass) return passOf(bench.pass.type)!.title;
  return bench.chosen === 'source' || !bench.size ? 'Source' : 'Place';
});
const position = computed(() => (bench.pass ? `${bench.layer!.passes.indexOf(bench.pass) + 1} of ${bench.layer!.passes.length}` : ''));
</script>

<template>
  <section class="dials" aria-label="Dials">
    <header>
      <span class="panel-title">{{ title }}</span>
      <span class="mono dim">{{ position }}</span>
      <span v-if="bench.layer" class="dim layer">{{ bench.layer.name }}<template v-if="bench.layer.locked"> · locked</template></span>
    </header>
    <template v-if="bench.layer">
      <PassDials v-if="bench.pass" :key="bench.pass.id" />
      <SourceDials v-else-if="bench.chosen === 'source' || !bench.size" />
      <PlaceDials v-else />
    </template>
    <p v-else class="dim">Choose a layer or a pass, and its values are here.</p>
  </section>
</template>

<style scoped>
.dials {
  height: 100%;
  overflow: hidden auto;
  padding: 10px 12px;
  background: var(--panel);
}
header {
  display: grid;
  grid-template-columns: 1fr auto;
  margin-bottom: 10px;
}
.layer {
  grid-column: 1 / -1;
  font-size: 12px;
}
header .mono {
  font-size: 11px;
}
</style>
