<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiClose, mdiTrayArrowDown } from '@mdi/js';
import { useAnswer } from '../base/asks';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import { useImports } from '../stores/imports';
import { useBench } from '../stores/bench';
import { useGrades } from '../stores/grades';
import { useJigs } from '../stores/jigs';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { ARRANGEMENTS } from '../../core/document/edits/arrangements';
import { BETWEEN } from '../../core/document/edits/passages';
import { READY_MADE } from '../../core/document/edits/ready-made';
import { SWARMS } from '../../core/sources/swarms';
import { MADE, stackFreePath, stackMade, stackReadyMade, stackSwarm } from '../time/actions';
import { arrangeChosen } from '../time/arrange';
import TrackList from '../track/TrackList.vue';
import JigsSheet from '../time/JigsSheet.vue';
import GradeList from './GradeList.vue';
import LibraryList from './LibraryList.vue';
import StockList from './StockList.vue';

const store = useProject();
const imports = useImports();
const tab = ref<'stock' | 'library' | 'tracks'>('stock');
const picker = ref<InstanceType<typeof FilePick>>();
const drawing = ref<InstanceType<typeof FilePick>>();
const sheet = ref(false);
useAnswer('jigs', () => (sheet.value = true));
useAnswer('import', () => picker.value?.pick());
const stock = computed(() => store.project?.stock ?? []);
const bench = useBench();
const selection = useSelection();
const jigs = useJigs();
const grades = useGrades();
/** What can be made without footage, and of the chosen layers. */
const offered = computed(() =>
  [
    {
      title: '',
      items: [
        ...MADE.map(({ type, title, help }) => ({ title, help, run: () => stackMade(type) })),
        {
          title: 'Jigs, with pictures…',
          help: 'Lower third, badge, credits and your own, with their dials.',
          run: () => (sheet.value = true),
        },
        { title: 'Free path', help: 'A shape that is drawn on the picture, point by point.', run: stackFreePath },
        {
          title: 'Drawing from an SVG file…',
          help: 'Its paths become shapes with their fills and outlines.',
          run: () => drawing.value?.pick(),
        },
      ],
    },
    {
      title: 'Ready made, of several layers',
      items: READY_MADE.map((ready) => ({ title: ready.title, help: ready.help, run: () => stackReadyMade(ready) })),
    },
    {
      title: 'Particles',
      items: SWARMS.map((one) => ({ title: one.title, help: one.help, run: () => stackSwarm(one) })),
    },
    {
      title: 'Kept in this project',
      items: jigs.ofLayers.map((jig) => ({ title: jig.name, help: '', run: () => jigs.use(jig) })),
    },
    {
      title: 'Of the chosen layers',
      items: bench.layer
        ? ARRANGEMENTS.map((one) => ({ title: one.title, help: one.help, run: () => void arrangeChosen(one) }))
        : [],
    },
    {
      title: 'From one chosen layer to the next',
      items:
        selection.layers.length === 2
          ? BETWEEN.map((one) => ({ title: one.title, help: one.help, run: () => void arrangeChosen(one) }))
          : [],
    },
  ].filter(({ items }) => items.length),
);
</script>

<template>
  <section class="stock" aria-label="Stock">
    <div class="tabs">
      <span class="segmented" role="tablist" aria-label="Where from">
        <v-btn size="small" variant="text" role="tab" :aria-selected="tab === 'stock'" @click="tab = 'stock'"
          >Stock</v-btn
        >
        <v-btn size="small" variant="text" role="tab" :aria-selected="tab === 'library'" @click="tab = 'library'"
          >Library</v-btn
        >
        <v-btn size="small" variant="text" role="tab" :aria-selected="tab === 'tracks'" @click="tab = 'tracks'"
          >Tracks</v-btn
        >
      </span>
      <IconButton
        v-if="tab === 'stock'"
        class="add"
        label="Import files"
        :icon="mdiTrayArrowDown"
        :disabled="store.readOnly"
        @click="picker?.pick()"
      />
    </div>
    <FilePick ref="picker" label="Files to import" multiple @files="(files) => void imports.take(files)" />
    <FilePick
      ref="drawing"
      label="SVG file with a drawing"
      accept=".svg"
      @files="(files) => void imports.take(files)"
    />
    <div v-for="job in imports.jobs" :key="job.id" class="job">
      <span :class="{ problem: job.problem }">{{ job.problem ?? `Importing ${job.name}` }}</span>
      <IconButton
        :label="job.problem ? 'Close' : `Cancel importing ${job.name}`"
        :icon="mdiClose"
        @click="imports.dismiss(job.id)"
      />
      <v-progress-linear
        :aria-label="`Importing ${job.name}`"
        v-if="!job.problem"
        :model-value="job.share * 100"
        color="primary"
        height="2"
      />
    </div>
    <template v-if="tab === 'stock'">
      <StockList v-if="stock.length" class="list" />
      <p v-else class="empty dim">
        Drop footage, stills or sound here, or choose <em>Import files</em>. The Library has a few pieces to play with.
      </p>
      <GradeList v-if="grades.jigs.length" />
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn size="small" variant="text" v-bind="menu" class="plain dim" :disabled="store.readOnly"
            >+ make something ▾</v-btn
          >
        </template>
        <v-list>
          <template v-for="(group, i) in offered" :key="i">
            <v-divider v-if="i" />
            <v-list-subheader v-if="group.title">{{ group.title }}</v-list-subheader>
            <v-list-item
              v-for="item in group.items"
              :key="item.title"
              :title="item.title"
              :subtitle="item.help"
              lines="three"
              max-width="26rem"
              @click="item.run()"
            />
          </template>
        </v-list>
      </v-menu>
    </template>
    <LibraryList v-else-if="tab === 'library'" />
    <TrackList v-else />
    <JigsSheet v-model="sheet" />
  </section>
</template>

<style scoped>
/* importing and making stay in view; the list between them scrolls */
.stock {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow: auto;
  background: var(--panel);
}
.list {
  flex: 1 1 0;
  min-height: 7rem;
}
/* where it is too narrow its beginning is what shows */
.plain {
  flex: none;
  justify-content: flex-start;
  border-top: 1px solid var(--line);
}
.tabs {
  display: flex;
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
}
.tabs .segmented > button {
  padding: 3px 7px;
}
.tabs :deep(.add) {
  margin-left: auto;
}
.empty,
.plain,
.job {
  padding: 10px 12px;
}
.plain {
  min-height: 1.5rem;
}
.plain:hover {
  color: var(--text);
}
.job {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px;
  font-size: 0.75rem;
  border-bottom: 1px solid var(--line);
}
</style>
