<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { mdiClose } from '@mdi/js';
import { useDebounceFn } from '@vueuse/core';
import { jigOfReady, shotOfJig } from '../../core/document/edits/layer-jigs';
import { withJigValue } from '../../core/document/edits/jig-dials';
import { withPartJig } from '../../core/document/edits/part-jigs';
import { READY_MADE } from '../../core/document/edits/ready-made';
import { layerIn, shotIn } from '../../core/document/find';
import type { DialledJig, LayerJig, PartJig } from '../../core/document/schema';
import { LAYER_PARTS } from '../../core/document/schema';
import { JIG_ENDING } from '../../core/formats/jig';
import { planAlone } from '../../core/plan/looks';
import { planFrame } from '../../core/plan/plan';
import { newId } from '../base/ids';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import PictureTile from '../controls/PictureTile.vue';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useJigs } from '../stores/jigs';
import { useProject } from '../stores/project';
import { useGlimpses } from './glimpses';
import JigDials from './JigDials.vue';

/** Jigs by their pictures: one is chosen, its few dials turned, and it is put in, or on the chosen layers. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const playhead = usePlayhead();
const jigs = useJigs();
const store = useProject();
const picker = ref<InstanceType<typeof FilePick>>();
const { pictures, draw, clear } = useGlimpses();

/** those that come with Jackplane, for the shot that is open */
const shipped = shallowRef<LayerJig[]>([]);
const seen = computed(() => !!bench.layer && !!bench.size);
const sections = computed(() =>
  [
    { title: 'Layers', jigs: [...jigs.ofLayers, ...shipped.value] },
    { title: seen.value ? `On ${bench.layer!.name}, as it is now` : 'On chosen layers', jigs: jigs.ofParts },
  ].filter((section) => section.jigs.length),
);
/** the chosen one as its dials are turned */
const turned = shallowRef<DialledJig | null>(null);
const now = <J extends DialledJig>(jig: J): J => (turned.value?.id === jig.id ? (turned.value as J) : jig);
const refusal = computed(() =>
  turned.value?.kind === 'parts' && !seen.value ? 'Choose a layer that it is to be put on.' : undefined,
);

/** Share of its time at which a jig is looked at: what arrives is there, what ends is not gone. */
const SEEN_AT = 0.8;
function planOf(jig: LayerJig) {
  const shot = bench.shot!;
  const long = Math.max(...jig.layers.map(({ span }) => span.start + span.length));
  const frame = Math.min(shot.length - 1, Math.floor(long * SEEN_AT));
  return planFrame(shotOfJig(store.current(), shot, jig, newId), shot.id, frame, { reduction: 4 });
}
function planOnLayer(jig: PartJig) {
  const { project, frame } = withPartJig(store.current(), { ...playhead.at!, frame: playhead.frame }, jig, newId);
  const shot = shotIn(project, playhead.at!.shot);
  return planAlone(project, shot, layerIn(shot, playhead.at!.layer), frame, 4);
}
const wanted = computed(() => [
  ...[...jigs.ofLayers, ...shipped.value].map((jig) => ({ key: jig.id, plan: () => planOf(now(jig)) })),
  ...(seen.value ? jigs.ofParts : []).map((jig) => ({ key: jig.id, plan: () => planOnLayer(now(jig)) })),
]);
const drawTurned = useDebounceFn(() => void draw(wanted.value, new Set([turned.value?.id ?? ''])), 120);

watch(
  open,
  (shown) => {
    clear();
    turned.value = null;
    if (!shown || !bench.shot) return;
    shipped.value = READY_MADE.map((ready) => jigOfReady(ready, bench.shot!, newId));
    void draw(wanted.value);
  },
  { immediate: true },
);
watch(
  () => jigs.all,
  () => open.value && void draw(wanted.value),
);

function choose(jig: DialledJig): void {
  const before = turned.value?.id;
  turned.value = jig;
  // what was turned of the one before is given up, and is to be seen no more
  if (before && before !== jig.id) void draw(wanted.value, new Set([before]));
}
function turn(holder: string, name: string, value: unknown): void {
  turned.value = withJigValue(turned.value!, holder, name, value);
  void drawTurned();
}
function putIn(jig: DialledJig): void {
  if (jig.kind === 'parts' && !seen.value) return;
  open.value = false;
  // those that come with Jackplane are made for the whole shot
  jigs.use(now(jig), shipped.value.some(({ id }) => id === jig.id) ? 0 : playhead.frame);
}
function contentsOf(jig: DialledJig): string {
  if (jig.kind === 'layers') return jig.layers.length === 1 ? '1 layer' : `${jig.layers.length} layers`;
  return LAYER_PARTS.filter(({ name }) => jig.parts.includes(name))
    .map(({ label }) => label)
    .join(', ');
}
</script>

<template>
  <v-dialog v-model="open" scrollable max-width="66rem" aria-label="Jigs">
    <v-card title="Jigs">
      <template #append><IconButton label="Close" :icon="mdiClose" @click="open = false" /></template>
      <v-card-text class="body">
        <div>
          <section v-for="section in sections" :key="section.title" :aria-label="section.title">
            <h3 class="dim">{{ section.title }}</h3>
            <ul class="jigs">
              <li v-for="jig in section.jigs" :key="jig.id">
                <PictureTile
                  :picture="() => pictures[jig.id]"
                  :pressed="turned?.id === jig.id"
                  @click="choose(jig)"
                  @dblclick="putIn(jig)"
                >
                  <span
                    >{{ jig.name }} <span class="dim">{{ contentsOf(jig) }}</span></span
                  >
                </PictureTile>
              </li>
            </ul>
          </section>
          <p class="dim">
            Keep your own: choose layers that are made, such as a title with its bar, then Layer, Keep as a jig; or keep
            what was done to a layer, then put it on others.
            <v-btn size="small" :disabled="store.readOnly" @click="picker?.pick()">Open a file…</v-btn>
          </p>
        </div>
        <JigDials
          v-if="turned"
          :jig="turned"
          :refusal="refusal"
          @turn="turn"
          @put="putIn(turned)"
          @removed="turned = null"
        />
        <p v-else class="dim hint">Choose one to see its dials. A double click puts it in as it is.</p>
        <FilePick ref="picker" label="Jig to open" :accept="JIG_ENDING" @files="jigs.openFiles" />
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-columns: 1fr 19rem;
  gap: 20px;
  align-items: start;
}
.jigs {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  padding: 0;
  list-style: none;
}
h3 {
  margin: 8px 0 4px;
  font-size: 0.75rem;
  font-weight: 400;
}
p {
  margin-top: 12px;
  font-size: 0.8125rem;
}
</style>
