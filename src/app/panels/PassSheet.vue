<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { mdiClose } from '@mdi/js';
import { useDebounceFn } from '@vueuse/core';
import { OFFERED, type Offered } from '../../core/passes/registry';
import { planAlone } from '../../core/plan/looks';
import type { Reduction } from '../../core/time/moment';
import Glimpse from '../controls/Glimpse.vue';
import IconButton from '../controls/IconButton.vue';
import PictureTile from '../controls/PictureTile.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useGlimpses } from '../time/glimpses';

/** Every pass as it would make the chosen layer's present frame look, by what it is for; one is chosen by eye and put in. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const { pictures, draw, clear } = useGlimpses();
const large = useGlimpses();
const wanted = ref('');
/** what is pointed at, or has the focus, by its title */
const shown = ref<string | null>(null);

const matching = computed(() => {
  const words = wanted.value.toLowerCase().split(/\s+/).filter(Boolean);
  return OFFERED.filter(({ title, words: own, pass }) => {
    const text = [title, pass.group, pass.title, ...own].join(' ').toLowerCase();
    return words.every((word) => text.includes(word));
  });
});
const groups = computed(() =>
  [...new Set(matching.value.map(({ pass }) => pass.group))].map((group) => ({
    group,
    offers: matching.value.filter(({ pass }) => pass.group === group),
  })),
);
const pointed = computed(() => OFFERED.find(({ title }) => title === shown.value));

const wish = ({ title, pass, values }: Offered, reduction: Reduction) => {
  const { shot, layer } = bench;
  const { frame } = playhead;
  const project = store.current();
  const line = () => edits.lineWith(pass.type, values);
  return { key: title, plan: () => planAlone(project, shot!, layer!, frame, reduction, line()) };
};
watch(
  open,
  (visible) => {
    clear();
    large.clear();
    shown.value = null;
    wanted.value = '';
    if (visible && bench.layer && bench.shot) void draw(OFFERED.map((offer) => wish(offer, 4)));
  },
  { immediate: true },
);
const enlarge = useDebounceFn(() => {
  if (open.value && pointed.value) void large.draw([wish(pointed.value, 2)]);
}, 150);
function point(title: string): void {
  shown.value = title;
  void enlarge();
}
function put({ pass, values }: Offered): void {
  open.value = false;
  edits.insertPass(pass.type, values);
}
</script>

<template>
  <v-dialog v-model="open" scrollable max-width="74rem" aria-label="Passes by their pictures">
    <v-card :title="`Passes on ${bench.layer?.name ?? ''}`">
      <template #append>
        <v-text-field
          v-model="wanted"
          class="wanted"
          placeholder="search"
          aria-label="Among these"
          single-line
          hide-details
          @keydown.stop
        />
        <IconButton label="Close" :icon="mdiClose" @click="open = false" />
      </template>
      <v-card-text class="body">
        <div>
          <section v-for="{ group, offers } in groups" :key="group" :aria-label="group">
            <h3 class="dim">{{ group }}</h3>
            <ul>
              <li v-for="one in offers" :key="one.title">
                <PictureTile
                  :picture="() => pictures[one.title]"
                  :disabled="store.readOnly || bench.layer?.locked"
                  @pointerenter="point(one.title)"
                  @focus="point(one.title)"
                  @click="put(one)"
                  >{{ one.title }}</PictureTile
                >
              </li>
            </ul>
          </section>
          <p v-if="!groups.length" class="dim">No pass is called that.</p>
        </div>
        <aside aria-label="The pass that is pointed at">
          <template v-if="pointed">
            <Glimpse :picture="() => large.pictures[pointed!.title] ?? pictures[pointed!.title]" />
            <strong>{{ pointed.title }}</strong>
            <p v-if="pointed.values" class="dim">{{ pointed.pass.title }}, with dials set for it.</p>
            <p>{{ pointed.pass.help }}</p>
          </template>
          <p v-else class="dim">Point at one to see it large. A click or Enter puts it in.</p>
        </aside>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.wanted {
  width: 12rem;
}
.body {
  display: grid;
  grid-template-columns: 1fr 25rem;
  gap: 20px;
  align-items: start;
}
ul {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 6px;
  padding: 0;
  list-style: none;
}
h3 {
  margin: 8px 0 2px;
  font-size: 0.75rem;
  font-weight: 400;
}
aside {
  display: grid;
  gap: 8px;
  position: sticky;
  top: 0;
}
p {
  font-size: 0.8125rem;
}
</style>
