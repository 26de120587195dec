<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { mdiClose, mdiDotsVertical, mdiPlus, mdiTrayArrowDown } from '@mdi/js';
import { removeStock } from '../../core/document/edits/project';
import type { Stock, StockId } from '../../core/document/schema';
import { rateLabel } from '../../core/time/rate';
import IconButton from '../controls/IconButton.vue';
import Waveform from '../controls/Waveform.vue';
import FilePick from '../controls/FilePick.vue';
import { useCompare } from '../stores/compare';
import { useAnswer } from '../base/asks';
import { useImports } from '../stores/imports';
import { useProject } from '../stores/project';
import { MADE, stackMade, stackStock } from '../time/actions';
import TrackList from '../track/TrackList.vue';
import LibraryList from './LibraryList.vue';

const store = useProject();
const imports = useImports();
const compare = useCompare();
const tab = ref<'stock' | 'library' | 'tracks'>('stock');
const picker = ref<InstanceType<typeof FilePick>>();
useAnswer('import', () => picker.value?.pick());
const relinkPicker = ref<InstanceType<typeof FilePick>>();
let relinking: StockId | null = null;

const posters = ref<Record<string, string>>({});
watch(
  () => store.media,
  (media) => {
    Object.values(posters.value).forEach((url) => URL.revokeObjectURL(url));
    posters.value = Object.fromEntries(
      [...media].flatMap(([id, record]) => (record.poster ? [[id, URL.createObjectURL(record.poster)]] : [])),
    );
  },
  { immediate: true },
);
onBeforeUnmount(() => Object.values(posters.value).forEach((url) => URL.revokeObjectURL(url)));

const stock = computed(() => store.project?.stock ?? []);
const missing = (item: Stock) => !store.media.has(item.id);

function factsOf({ kind, facts, still: pinned }: Stock): string {
  const rate = facts.rate === 'variable' ? 'variable rate' : facts.rate ? rateLabel(facts.rate) : null;
  const seconds = facts.seconds === undefined ? null : `${facts.seconds.toFixed(1)} s`;
  return [
    kind === 'image' ? (pinned ? 'pinned' : 'still') : kind === 'sound' ? 'sound' : rate,
    seconds,
    facts.alpha ? 'alpha' : null,
  ]
    .filter(Boolean)
    .join(' · ');
}
function allFacts({ file, facts }: Stock): string {
  const size = facts.width ? `${facts.width}×${facts.height}` : null;
  const sound = facts.sound
    ? `sound ${facts.sound.codec}, ${facts.sound.channels} ch, ${facts.sound.sampleRate / 1000} kHz`
    : null;
  return [file, size, facts.codec, sound, `${(facts.bytes / 1e6).toFixed(1)} MB`].filter(Boolean).join(' · ');
}
function relink(item: Stock): void {
  relinking = item.id;
  relinkPicker.value?.pick();
}
/** The item whose menu is open, and where it was asked for; null at its button. */
const asked = ref<{ id: StockId; at: [number, number] | null } | null>(null);
const drag = (event: DragEvent, item: Stock) => event.dataTransfer?.setData('application/x-jackplane-stock', item.id);
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
      ref="relinkPicker"
      label="File to link"
      @files="([file]) => relinking && void imports.relink(relinking, file!)"
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
      <ul v-if="stock.length" class="items">
        <li
          v-for="item in stock"
          :key="item.id"
          class="item"
          draggable="true"
          :title="allFacts(item)"
          @contextmenu.prevent="asked = { id: item.id, at: [$event.clientX, $event.clientY] }"
          @dragstart="drag($event, item)"
        >
          <span class="thumb">
            <img v-if="posters[item.id]" :src="posters[item.id]" alt="" />
            <Waveform v-else-if="store.media.get(item.id)?.peaks" :peaks="store.media.get(item.id)!.peaks!" />
          </span>
          <span class="text">
            <strong>{{ item.name }}</strong>
            <span v-if="missing(item)" class="problem">media missing</span>
            <span v-else class="mono dim"
              >{{ factsOf(item)
              }}<template v-if="item.line.length">
                ·
                <span class="passes" title="Passes of its own, seen wherever it is used">{{
                  item.line.length === 1 ? '1 pass' : `${item.line.length} passes`
                }}</span></template
              ></span
            >
          </span>
          <v-btn v-if="missing(item)" size="small" @click="relink(item)">Link…</v-btn>
          <span class="hover"
            ><IconButton
              v-if="!missing(item)"
              :label="`Add ${item.name} to the shot`"
              :icon="mdiPlus"
              @click="stackStock(item)" />
            <v-menu
              :model-value="asked?.id === item.id"
              :target="asked?.at ?? undefined"
              @update:model-value="(shown: boolean) => (asked = shown ? { id: item.id, at: null } : null)"
            >
              <template #activator="{ props: button }">
                <IconButton v-bind="button" :label="`More for ${item.name}`" :icon="mdiDotsVertical" />
              </template>
              <v-list>
                <v-list-item title="Add to the shot" @click="stackStock(item)" />
                <v-list-item v-if="item.still" title="Compare with it" @click="compare.withStill(item.id)" />
                <v-list-item title="Link another file…" @click="relink(item)" />
                <v-list-item
                  title="Delete, with its layers"
                  @click="store.edit(removeStock(store.current(), item.id))"
                />
              </v-list> </v-menu
          ></span>
        </li>
      </ul>
      <p v-else class="empty dim">
        Drop footage, stills or sound here, or choose <em>Import files</em>. The Library has a few pieces to play with.
      </p>
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn size="small" variant="text" v-bind="menu" class="plain dim" :disabled="store.readOnly"
            >+ make something ▾</v-btn
          >
        </template>
        <v-list>
          <v-list-item
            v-for="source in MADE"
            :key="source.type"
            :title="source.title"
            :subtitle="source.help"
            lines="three"
            max-width="26rem"
            @click="stackMade(source.type)"
          />
        </v-list>
      </v-menu>
    </template>
    <LibraryList v-else-if="tab === 'library'" />
    <TrackList v-else />
  </section>
</template>

<style scoped>
.stock {
  height: 100%;
  overflow: auto;
  background: var(--panel);
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
.items {
  list-style: none;
  padding: 4px 0;
}
.item {
  position: relative;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 4px 5px 8px;
  cursor: grab;
}
.item:hover,
.item:focus-within {
  background: var(--raised);
}
.thumb {
  flex: none;
  display: grid;
  width: 3.75rem;
  height: 2.125rem;
  background: var(--well);
  border: 1px solid var(--line);
  overflow: hidden;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.text {
  flex: 1;
  min-width: 0;
  display: grid;
}
.text > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.text strong {
  font-weight: 600;
}
.text .mono,
.text .problem {
  font-size: 0.6875rem;
}

.passes {
  color: var(--brass);
}
.hover {
  position: absolute;
  right: 2px;
  display: flex;
  opacity: 0;
  background: var(--raised);
}
.item:hover .hover,
.item:focus-within .hover {
  opacity: 1;
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
