<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';
import { mdiClose, mdiContentSaveOutline, mdiTrashCanOutline } from '@mdi/js';
import { useDebounceFn } from '@vueuse/core';
import { jigOfReady, shotOfJig } from '../../core/document/edits/layer-jigs';
import { possibleDials, usualDials, withJigValue } from '../../core/document/edits/jig-dials';
import { READY_MADE } from '../../core/document/edits/ready-made';
import { MOST_JIG_DIALS, type JigDial, type Layer, type LayerJig } from '../../core/document/schema';
import { JIG_ENDING } from '../../core/formats/jig';
import { planFrame } from '../../core/plan/plan';
import { sourceOf } from '../../core/sources/registry';
import { newId } from '../base/ids';
import Check from '../controls/Check.vue';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import PictureTile from '../controls/PictureTile.vue';
import TextField from '../controls/TextField.vue';
import { useBench } from '../stores/bench';
import { useLayerJigs } from '../stores/layer-jigs';
import { useProject } from '../stores/project';
import { useGlimpses } from './glimpses';
import JigLayer from './JigLayer.vue';

/** Jigs of layers by their pictures: one is chosen, its few dials turned, and it is put in. The project's own are named, saved as files, deleted. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const jigs = useLayerJigs();
const store = useProject();
const picker = ref<InstanceType<typeof FilePick>>();
const { pictures, draw, clear } = useGlimpses();

/** those that come with Jackplane, for the shot that is open */
const shipped = shallowRef<LayerJig[]>([]);
const all = computed(() => [...jigs.jigs, ...shipped.value]);
/** the chosen one as its dials are turned */
const turned = shallowRef<LayerJig | null>(null);
const own = computed(() => jigs.jigs.find(({ id }) => id === turned.value?.id) ?? null);
const dials = computed(() => own.value?.dials ?? usualDials(turned.value?.layers ?? []));
/** Layers that have dials, each with their names. */
const turning = computed(() =>
  (turned.value?.layers ?? [])
    .map((layer) => ({ layer, names: dials.value.filter((dial) => dial.layer === layer.id).map(({ value }) => value) }))
    .filter(({ names }) => names.length),
);
const choosing = ref(false);
const possible = computed(() =>
  (own.value?.layers ?? []).map((layer) => ({
    layer,
    dials: possibleDials([layer]).map((dial) => ({ dial, label: labelOf(layer, dial), on: has(dial) })),
  })),
);
const has = (dial: JigDial): boolean => dials.value.some((one) => one.layer === dial.layer && one.value === dial.value);
const labelOf = (layer: Layer, { value }: JigDial): string =>
  sourceOf(layer.source.type)?.params[value]?.label ?? value;

/** Share of its time at which a jig is looked at: what arrives is there, what ends is not gone. */
const SEEN_AT = 0.8;
function planOf(jig: LayerJig) {
  const shot = bench.shot!;
  const long = Math.max(...jig.layers.map(({ span }) => span.start + span.length));
  const frame = Math.min(shot.length - 1, Math.floor(long * SEEN_AT));
  return planFrame(shotOfJig(store.current(), shot, jig, newId), shot.id, frame, { reduction: 4 });
}
const wanted = computed(() => all.value.map((jig) => ({ key: jig.id, plan: () => planOf(now(jig)) })));
const now = (jig: LayerJig): LayerJig => (turned.value?.id === jig.id ? turned.value : jig);
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
  () => jigs.jigs,
  () => open.value && void draw(wanted.value),
);

function choose(jig: LayerJig): void {
  const before = turned.value?.id;
  turned.value = jig;
  choosing.value = false;
  // what was turned of the one before is given up, and is to be seen no more
  if (before && before !== jig.id) void draw(wanted.value, new Set([before]));
}
function turn(layer: Layer, name: string, value: unknown): void {
  turned.value = withJigValue(turned.value!, { layer: layer.id, value: name }, value);
  void drawTurned();
}
function toggle(dial: JigDial): void {
  const others = dials.value.filter((one) => one.layer !== dial.layer || one.value !== dial.value);
  jigs.setDials(own.value!.id, has(dial) ? others : [...others, dial]);
}
function putIn(jig: LayerJig): void {
  open.value = false;
  // those that come with Jackplane are made for the whole shot
  jigs.use(now(jig), shipped.value.some(({ id }) => id === jig.id) ? 0 : bench.frame);
}
function remove(id: string): void {
  turned.value = null;
  jigs.remove(id);
}
const layersOf = ({ layers }: LayerJig): string => (layers.length === 1 ? '1 layer' : `${layers.length} layers`);
</script>

<template>
  <v-dialog v-model="open" scrollable max-width="66rem" aria-label="Jigs of layers">
    <v-card title="Jigs of layers">
      <template #append><IconButton label="Close" :icon="mdiClose" @click="open = false" /></template>
      <v-card-text class="body">
        <div>
          <ul class="jigs" aria-label="Jigs">
            <li v-for="jig in all" :key="jig.id">
              <PictureTile
                :picture="pictures[jig.id]"
                :pressed="turned?.id === jig.id"
                @click="choose(jig)"
                @dblclick="putIn(jig)"
              >
                <span
                  >{{ jig.name }} <span class="dim">{{ layersOf(jig) }}</span></span
                >
              </PictureTile>
            </li>
          </ul>
          <p class="dim">
            Keep your own: choose layers that are made, such as a title with its bar, then Layer, Keep as a jig.
            <v-btn size="small" :disabled="store.readOnly" @click="picker?.pick()">Open a file…</v-btn>
          </p>
        </div>
        <aside v-if="turned" aria-label="Dials of the jig">
          <div v-if="own" class="own">
            <TextField
              :label="`Name of jig ${own.name}`"
              :value="own.name"
              :disabled="store.readOnly"
              @change="(name) => jigs.rename(own!.id, name)"
            />
            <IconButton :label="`Save ${own.name} as a file`" :icon="mdiContentSaveOutline" @click="jigs.save(own)" />
            <IconButton
              :label="`Delete jig ${own.name}`"
              :icon="mdiTrashCanOutline"
              :disabled="store.readOnly"
              @click="remove(own.id)"
            />
          </div>
          <strong v-else>{{ turned.name }}</strong>
          <JigLayer
            v-for="{ layer, names } in turning"
            :key="layer.id"
            :layer="layer"
            :names="names"
            @change="(name, value) => turn(layer, name, value)"
          />
          <p v-if="!turning.length" class="dim">It has no dials.</p>
          <template v-if="own">
            <v-btn size="small" :aria-expanded="choosing" @click="choosing = !choosing">Which dials ▾</v-btn>
            <div v-if="choosing" class="which" role="group" aria-label="Which dials it has">
              <template v-for="{ layer, dials: offered } in possible" :key="layer.id">
                <span class="dim">{{ layer.name }}</span>
                <Check
                  v-for="{ dial, label, on } in offered"
                  :key="dial.value"
                  :label="label"
                  :value="on"
                  :disabled="store.readOnly || (!on && dials.length >= MOST_JIG_DIALS)"
                  @change="toggle(dial)"
                />
              </template>
            </div>
          </template>
          <v-btn color="primary" variant="flat" :disabled="store.readOnly" @click="putIn(turned)">Put in</v-btn>
        </aside>
        <p v-else class="dim hint">Choose one to see its dials. A double click puts it in as it is.</p>
        <FilePick ref="picker" label="Jig of layers to open" :accept="JIG_ENDING" @files="jigs.openFiles" />
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
aside {
  display: grid;
  gap: 8px;
  position: sticky;
  top: 0;
}
.own {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  gap: 4px;
}
.which {
  max-height: 16rem;
  overflow: auto;
  padding: 6px 8px;
  border: 1px solid var(--line);
}
p {
  margin-top: 12px;
  font-size: 0.8125rem;
}
</style>
