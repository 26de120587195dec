<script setup lang="ts">
import { computed } from 'vue';
import { titleOf } from '../../core/passes/registry';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import TracksPanel from '../track/TracksPanel.vue';
import { useTracking } from '../stores/tracking';
import ScopesDock from '../scopes/ScopesDock.vue';
import EndDials from './EndDials.vue';
import MasksPanel from './MasksPanel.vue';
import PassDials from './PassDials.vue';
import PlaceDials from './PlaceDials.vue';
import SourceDials from './SourceDials.vue';

const bench = useBench();
const masking = useMasking();
const tracking = useTracking();
const title = computed(() => {
  if (!bench.layer) return 'Nothing chosen';
  if (bench.pass) return titleOf(bench.pass.type);
  if (bench.end) return bench.end === 'in' ? 'Beginning' : 'End';
  return bench.chosen === 'source' || !bench.size ? 'Source' : 'Place';
});
const position = computed(() => (bench.pass ? `${bench.line.indexOf(bench.pass) + 1} of ${bench.line.length}` : ''));
// plain facts, so that nothing here is drawn anew with every change of the layer
const called = computed(() => bench.layer && `${bench.layer.name}${bench.layer.locked ? ' · locked' : ''}`);
const passId = computed(() => bench.pass?.id);
const maskCount = computed(() => masking.masks.length || '');
const trackCount = computed(() => tracking.tracks.length || '');
</script>

<template>
  <section class="panel" aria-label="Dials">
    <div class="dials">
      <header>
        <span v-if="called !== null && bench.size" class="segmented" role="group" aria-label="Dials of">
          <v-btn
            size="small"
            variant="text"
            class="named"
            :title="title"
            :aria-pressed="!masking.open && !tracking.open"
            @click="((masking.open = false), (tracking.open = false))"
          >
            <span class="called">{{ title }}</span> <span class="mono dim">{{ position }}</span>
          </v-btn>
          <v-btn
            size="small"
            variant="text"
            :aria-pressed="masking.open"
            title="The layer’s masks (A)"
            @click="masking.show()"
          >
            Masks <span class="mono dim">{{ maskCount }}</span>
          </v-btn>
          <v-btn
            size="small"
            variant="text"
            :aria-pressed="tracking.open"
            title="The tracks of the layer’s clip (T)"
            @click="tracking.show()"
          >
            Tracks <span class="mono dim">{{ trackCount }}</span>
          </v-btn>
        </span>
        <span v-else class="panel-title">{{ title }}</span>
        <span v-if="called !== null" class="dim layer">{{ called }}</span>
      </header>
      <template v-if="called !== null">
        <TracksPanel v-if="tracking.open && bench.size" />
        <MasksPanel v-else-if="masking.open && bench.size" />
        <PassDials v-else-if="passId" :key="passId" />
        <EndDials v-else-if="bench.end" :key="bench.end" :end="bench.end" />
        <SourceDials v-else-if="bench.chosen === 'source' || !bench.size" />
        <PlaceDials v-else />
      </template>
      <p v-else class="dim">Choose a layer or a pass, and its values are here.</p>
    </div>
    <ScopesDock />
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  height: 100%;
  background: var(--panel);
}
.dials {
  overflow: auto;
  padding: 10px 12px;
  background: var(--panel);
}
header {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 4px;
  margin-bottom: 10px;
}
/* a long name gives way to what stands beside it */
.segmented {
  justify-self: start;
  max-width: 100%;
}
.named {
  flex: 0 1 auto;
  min-width: 0;
}
.named :deep(.v-btn__content) {
  gap: 4px;
  min-width: 0;
}
.called {
  overflow: hidden;
  text-overflow: ellipsis;
}
.layer {
  grid-column: 1 / -1;
  font-size: 0.75rem;
}
header .mono {
  font-size: 0.6875rem;
}
</style>
