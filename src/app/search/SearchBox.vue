<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useAnswer } from '../base/asks';
import { useEdits } from '../stores/edits';
import { arrivalEntries, commandEntries, layerCommands, maskAndTrackEntries, transitionEntries } from './commands';
import { dialEntries } from './dials';
import type { Entry } from './entry';
import { indexOf } from './find';
import { passEntries, thingEntries } from './things';

/** One search over everything: by name, synonym or wish. */
const edits = useEdits();
const input = ref<HTMLInputElement>();
const wish = ref('');
const open = ref(false);
const at = ref(0);

const index = computed(() =>
  open.value
    ? indexOf([
        ...passEntries(),
        ...layerCommands(),
        ...transitionEntries(),
        ...arrivalEntries(),
        ...commandEntries(),
        ...maskAndTrackEntries(),
        ...thingEntries(),
        ...dialEntries(),
      ])
    : null,
);
const hits = computed<Entry[]>(() => index.value?.(wish.value) ?? []);

function move(by: number): void {
  at.value = (at.value + by + hits.value.length) % Math.max(1, hits.value.length);
}
function run(hit: Entry | undefined): void {
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
  () => (edits.tried = (open.value && wish.value.trim() && hits.value[at.value]?.tries) || null),
);
const focus = () => void nextTick(() => input.value?.focus());
useAnswer('search', focus);
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
        @pointermove="at = i"
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
  grid-template-columns: 7rem auto 1fr;
  gap: 10px;
  padding: 5px 8px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--brass-soft);
}
.kind,
.more {
  overflow: hidden;
  font-size: 0.75rem;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.none {
  display: block;
}
</style>
