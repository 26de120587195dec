<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { mdiDotsVertical, mdiPlus, mdiSortVariant } from '@mdi/js';
import { replaceSource } from '../../core/document/edits/parts';
import { removeStock } from '../../core/document/edits/project';
import { stockOf, type Stock, type StockId } from '../../core/document/schema';
import { rateLabel } from '../../core/time/rate';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import ShortField from '../controls/ShortField.vue';
import Waveform from '../controls/Waveform.vue';
import { useBench } from '../stores/bench';
import { useEdits } from '../stores/edits';
import { useCompare } from '../stores/compare';
import { useImports } from '../stores/imports';
import { useProject } from '../stores/project';
import { stackStock } from '../time/actions';

/** The project's stock: found by name, in an order, several chosen at once. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const imports = useImports();
const compare = useCompare();
const relinkPicker = ref<InstanceType<typeof FilePick>>();
let relinking: StockId | null = null;
/** From so many items on they can be searched and put in order. */
const MANY = 9;

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

const all = computed(() => store.project?.stock ?? []);
const wanted = ref('');
const ORDERS = [
  { value: 'added' as const, title: 'as added' },
  { value: 'name' as const, title: 'by name' },
  { value: 'kind' as const, title: 'by kind' },
  { value: 'size' as const, title: 'largest first' },
];
const order = ref<(typeof ORDERS)[number]['value']>('added');
const BY: Record<typeof order.value, (a: Stock, b: Stock) => number> = {
  added: () => 0,
  name: (a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }),
  kind: (a, b) => a.kind.localeCompare(b.kind) || BY.name(a, b),
  size: (a, b) => b.facts.bytes - a.facts.bytes,
};
const stock = computed(() => {
  const text = wanted.value.trim().toLowerCase();
  return all.value.filter(({ name, file }) => `${name} ${file}`.toLowerCase().includes(text)).sort(BY[order.value]);
});
const missing = (item: Stock) => !store.media.has(item.id);

const chosen = ref<readonly StockId[]>([]);
watch(all, (items) => (chosen.value = chosen.value.filter((id) => items.some((item) => item.id === id))));
/** Chooses an item; with Ctrl one more or less, with Shift all from the last one to it. */
function pick(item: Stock, event: MouseEvent | KeyboardEvent): void {
  const ids = stock.value.map(({ id }) => id);
  const last = ids.indexOf(chosen.value.at(-1)!);
  if (event.shiftKey && last >= 0) {
    const here = ids.indexOf(item.id);
    chosen.value = ids.slice(Math.min(last, here), Math.max(last, here) + 1);
  } else if (event.ctrlKey || event.metaKey)
    chosen.value = chosen.value.includes(item.id)
      ? chosen.value.filter((id) => id !== item.id)
      : [...chosen.value, item.id];
  else chosen.value = [item.id];
}
/** The chosen items when the one that is pointed at is one of them, else that one. */
const meant = (item: Stock): Stock[] =>
  chosen.value.includes(item.id) ? stock.value.filter(({ id }) => chosen.value.includes(id)) : [item];
/** How many are meant, in words, when it is more than the one. */
const many = (item: Stock): string => (meant(item).length > 1 ? `these ${meant(item).length} ` : '');
const remove = (items: readonly Stock[]): void =>
  store.edit(
    removeStock(
      store.current(),
      items.map(({ id }) => id),
    ),
  );
/** The first lies on top, as in the list. */
const stack = (items: readonly Stock[]): void => [...items].reverse().forEach((item) => stackStock(item));
function press(event: KeyboardEvent, item: Stock): void {
  if (event.target !== event.currentTarget) return;
  if (event.key === 'Enter' || event.key === ' ') pick(item, event);
  else if ((event.key === 'Delete' || event.key === 'Backspace') && !store.readOnly) remove(meant(item));
  else if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey))
    chosen.value = stock.value.map(({ id }) => id);
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function factsOf({ kind, facts, still: pinned }: Stock): string {
  const rate = facts.rate === 'variable' ? 'variable rate' : facts.rate ? rateLabel(facts.rate) : null;
  const seconds = facts.seconds === undefined ? null : `${facts.seconds.toFixed(1)} s`;
  return [
    facts.width ? `${facts.width}×${facts.height}` : null,
    kind === 'image' ? (pinned ? 'pinned' : 'still') : kind === 'video' ? rate : kind,
    kind === 'font' ? facts.codec : null,
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
/** What is done with an item, in words: a font is set in titles, all else is shown by layers. */
const wordsFor = (item: Stock): { add: string; button: string; remove: string } =>
  item.kind === 'font'
    ? {
        add: 'Set a title in it',
        button: `Set a title in ${item.name}`,
        remove: 'Delete it; titles get the usual font',
      }
    : {
        add: `Add ${many(item)}to the shot`,
        button: `Add ${item.name} to the shot`,
        remove: `Delete ${many(item)}with ${many(item) ? 'their' : 'its'} layers`,
      };
function relink(item: Stock): void {
  relinking = item.id;
  relinkPicker.value?.pick();
}
/** The item whose menu is open, and where it was asked for; null at its button. */
const asked = ref<{ id: StockId; at: [number, number] | null } | null>(null);
const drag = (event: DragEvent, item: Stock) => event.dataTransfer?.setData('application/x-jackplane-stock', item.id);
</script>

<template>
  <div class="stock-list">
    <div v-if="all.length >= MANY" class="finding">
      <ShortField v-model="wanted" label="Find stock by name" placeholder="search" />
      <v-menu>
        <template #activator="{ props: menu }">
          <IconButton v-bind="menu" label="Order of the stock" :icon="mdiSortVariant" />
        </template>
        <v-list>
          <v-list-item
            v-for="one in ORDERS"
            :key="one.value"
            :title="one.title"
            :active="one.value === order"
            @click="order = one.value"
          />
        </v-list>
      </v-menu>
    </div>
    <FilePick
      ref="relinkPicker"
      label="File to link"
      @files="([file]) => relinking && void imports.relink(relinking, file!)"
    />
    <ul class="items" aria-label="Stock">
      <li
        v-for="item in stock"
        :key="item.id"
        class="item"
        :class="{ chosen: chosen.includes(item.id) }"
        tabindex="0"
        :aria-current="chosen.includes(item.id) || undefined"
        draggable="true"
        @click="pick(item, $event)"
        @keydown="press($event, item)"
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
          ><IconButton v-if="!missing(item)" :label="wordsFor(item).button" :icon="mdiPlus" @click="stackStock(item)" />
          <v-menu
            :model-value="asked?.id === item.id"
            :target="asked?.at ?? undefined"
            @update:model-value="(shown: boolean) => (asked = shown ? { id: item.id, at: null } : null)"
          >
            <template #activator="{ props: button }">
              <IconButton v-bind="button" :label="`More for ${item.name}`" :icon="mdiDotsVertical" />
            </template>
            <v-list>
              <v-list-item :title="wordsFor(item).add" @click="stack(item.kind === 'font' ? [item] : meant(item))" />
              <v-list-item
                v-if="
                  item.kind !== 'font' &&
                  bench.layer &&
                  stockOf(bench.layer) &&
                  !bench.layer.locked &&
                  stockOf(bench.layer) !== item.id
                "
                :title="`Instead of ${bench.layer.name}’s source`"
                @click="edits.editLayer((project, at) => replaceSource(project, at, item.id))"
              />
              <v-list-item v-if="item.still" title="Compare with it" @click="compare.withStill(item.id)" />
              <v-list-item title="Link another file…" @click="relink(item)" />
              <v-list-item :title="wordsFor(item).remove" :disabled="store.readOnly" @click="remove(meant(item))" />
            </v-list> </v-menu
        ></span>
      </li>
    </ul>
    <p v-if="!stock.length" class="dim none">No stock is called that.</p>
  </div>
</template>

<style scoped>
.stock-list {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.finding {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
}
.items {
  flex: 1;
  min-height: 0;
  overflow: auto;
  list-style: none;
  padding: 4px 0;
}
.item.chosen {
  background: var(--brass-soft);
}
.none {
  padding: 10px 12px;
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
  font-size: 0.625rem;
  letter-spacing: -0.03em;
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
</style>
