<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { PASSES } from '../../core/passes/registry';
import { asks, shortcutTable } from '../keyboard/shortcuts';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { MADE, stackMade, stackStock } from '../time/actions';

/** One search over passes, commands, layers and stock; by name, synonym or wish. */
interface Hit {
  kind: string;
  title: string;
  more: string;
  words: string;
  /** the type of a pass */
  pass?: string;
  run(): void;
}
const bench = useBench();
const store = useProject();
const input = ref<HTMLInputElement>();
const wish = ref('');
const open = ref(false);
const at = ref(0);

const all = computed<Hit[]>(() => {
  if (!open.value) return [];
  const passes =
    bench.layer && bench.size
      ? PASSES.map((pass) => ({
          kind: 'pass',
          title: pass.title,
          more: pass.help,
          words: pass.words.join(' '),
          pass: pass.type,
          run: () => bench.insertPass(pass.type),
        }))
      : [];
  const commands = shortcutTable().map((entry) => ({
    kind: 'command',
    title: entry.does,
    more: entry.shown,
    words: '',
    run: entry.run,
  }));
  const layers = (bench.shot?.layers ?? []).map((layer) => ({
    kind: 'layer',
    title: layer.name,
    more: 'choose it',
    words: '',
    run: () => bench.choose(layer.id),
  }));
  const stock = (store.project?.stock ?? []).map((item) => ({
    kind: 'stock',
    title: item.name,
    more: 'add to the shot',
    words: item.file,
    run: () => stackStock(item),
  }));
  const made = MADE.map((source) => ({
    kind: 'layer to add',
    title: source.title,
    more: source.help,
    words: source.words.join(' '),
    run: () => stackMade(source.type),
  }));
  return [...passes, ...(bench.shot ? made : []), ...commands, ...layers, ...stock];
});
/** Every typed word has to be found; the title counts most, its beginning more still. */
const hits = computed(() => {
  const words = wish.value.toLowerCase().split(/\s+/).filter(Boolean);
  const score = (hit: Hit) => {
    const title = hit.title.toLowerCase();
    const rest = `${hit.words} ${hit.kind}`.toLowerCase();
    let sum = 0;
    for (const word of words) {
      if (title.startsWith(word)) sum += 4;
      else if (title.includes(word)) sum += 3;
      else if (rest.includes(word)) sum += 2;
      else if (hit.more.toLowerCase().includes(word)) sum += 1;
      else return 0;
    }
    return words.length ? sum : 1;
  };
  return all.value
    .map((hit) => ({ hit, score: score(hit) }))
    .filter((entry) => entry.score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, 12)
    .map((entry) => entry.hit);
});

function move(by: number): void {
  at.value = (at.value + by + hits.value.length) % Math.max(1, hits.value.length);
}
function run(hit: Hit | undefined): void {
  close();
  hit?.run();
}
function close(): void {
  open.value = false;
  wish.value = '';
  input.value?.blur();
}
// the pass that is highlighted shows on the picture once something has been typed
watch(
  [hits, at, open, wish],
  () => (bench.tried = (open.value && wish.value.trim() && hits.value[at.value]?.pass) || null),
);
const focus = () => nextTick(() => input.value?.focus());
onMounted(() => asks.addEventListener('search', focus));
onBeforeUnmount(() => asks.removeEventListener('search', focus));
</script>

<template>
  <div class="search">
    <input
      ref="input"
      v-model="wish"
      type="text"
      role="combobox"
      placeholder="Find a pass, a layer, a wish…"
      aria-label="Search"
      aria-controls="search-hits"
      :aria-expanded="open"
      :aria-activedescendant="open && hits.length ? `hit-${at}` : undefined"
      @focus="((open = true), (at = 0))"
      @blur="open = false"
      @input="at = 0"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="run(hits[at])"
      @keydown.esc="close"
    />
    <kbd class="mono dim">Ctrl K</kbd>
    <ul v-if="open" id="search-hits" role="listbox" aria-label="Found">
      <li
        v-for="(hit, i) in hits"
        :id="`hit-${i}`"
        :key="`${hit.kind} ${hit.title}`"
        role="option"
        :aria-selected="i === at"
        @pointerdown.prevent="run(hit)"
        @pointerenter="at = i"
      >
        <span class="kind dim">{{ hit.kind }}</span><strong>{{ hit.title }}</strong
        ><span class="dim more">{{ hit.more }}</span>
      </li>
      <li v-if="!hits.length" class="dim none">
        Nothing is called that. Try what you wish for, such as “remove green”.
      </li>
    </ul>
  </div>
</template>

<style scoped>
.search {
  position: relative;
  min-width: 0;
}
input {
  width: 100%;
  height: 1.6875rem;
  padding: 0 60px 0 10px;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  color: inherit;
}
kbd {
  position: absolute;
  right: 8px;
  top: 6px;
  font-size: 0.625rem;
  padding: 2px 0 2px 6px;
  background: var(--well);
  pointer-events: none;
}
ul {
  position: absolute;
  z-index: 2000;
  top: 32px;
  left: 50%;
  transform: translateX(-50%);
  width: 520px;
  padding: 4px;
  list-style: none;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
}
li {
  display: grid;
  grid-template-columns: 4.5rem auto 1fr;
  gap: 10px;
  padding: 5px 8px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--brass-soft);
}
.kind,
.more {
  font-size: 0.75rem;
}
.more {
  overflow: hidden;
  text-overflow: ellipsis;
}
.none {
  display: block;
}
</style>
