<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';
import { useEventListener } from '@vueuse/core';
import { setSourceValue } from '../../core/document/edits/layers';
import { caretNear, caretsOf, chosenOf } from '../../core/text/carets';
import { title } from '../../core/sources/title';
import { followPointer } from '../controls/pointer';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useProject } from '../stores/project';
import type { ViewFrame, XY } from './frame';
import { useSourceSpace } from './source-space';
import { useTitleLines } from './title-lines';

/** The chosen title's text, typed where it stands: a caret and what is chosen are drawn on the letters, the keys go to a field that is not seen. */
const props = defineProps<{ frame: ViewFrame }>();
const viewing = useViewing();
const edits = useEdits();
const store = useProject();
const svg = ref<SVGElement>();
const field = ref<HTMLTextAreaElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);
const { words, lines } = useTitleLines();
const carets = computed(() => (words.value ? caretsOf(lines.value, words.value.text, words.value) : []));
/** what is chosen of the text, in UTF-16 units */
const chosen = ref<[number, number]>([0, 0]);
/** the end of it that moves */
const head = ref(0);

const stage = (...points: XY[]): string => points.map((p) => space.toStage(p).join()).join(' ');
const caret = computed(() => carets.value.find(({ index }) => index === head.value));
const marks = computed(() =>
  chosenOf(carets.value, ...chosen.value).map(({ left, right, top, bottom }) =>
    stage([left, top], [right, top], [right, bottom], [left, bottom]),
  ),
);
/** What a press lands on: the block of text, with a little room. */
const block = computed(() => {
  const room = (words.value?.height ?? 0) / 2;
  const [xs, ys] = [carets.value.map(({ x }) => x), carets.value.flatMap(({ top, bottom }) => [top, bottom])];
  if (!xs.length) return '';
  const [left, right] = [Math.min(...xs) - room, Math.max(...xs) + room];
  const [top, bottom] = [Math.min(...ys) - room / 2, Math.max(...ys) + room / 2];
  return stage([left, top], [right, top], [right, bottom], [left, bottom]);
});
const at = computed(() => (caret.value ? space.toStage([caret.value.x, caret.value.bottom]) : [0, 0]));

function select(from: number, to: number): void {
  field.value!.setSelectionRange(Math.min(from, to), Math.max(from, to), to < from ? 'backward' : 'forward');
}
function read(): void {
  const { selectionStart, selectionEnd, selectionDirection } = field.value!;
  chosen.value = [selectionStart, selectionEnd];
  head.value = selectionDirection === 'backward' ? selectionStart : selectionEnd;
}
useEventListener(document, 'selectionchange', () => field.value && document.activeElement === field.value && read());

function type(event: Event): void {
  const { value } = event.target as HTMLTextAreaElement;
  edits.editLayer((project, where) => setSourceValue(project, where, 'text', value), 'type on the picture');
  // a word is a step of its own
  if (/\s/.test(value[field.value!.selectionStart - 1] ?? '')) store.endGesture();
  read();
}
function press(event: PointerEvent): void {
  if (event.button !== 0) return;
  event.preventDefault();
  field.value!.focus();
  const place = (now: PointerEvent) => caretNear(carets.value, space.at(now))?.index ?? 0;
  const from = event.shiftKey ? chosen.value[head.value === chosen.value[0] ? 1 : 0] : place(event);
  select(from, place(event));
  followPointer(event, (now) => select(from, place(now)));
}
function wholeWord(): void {
  const text = words.value!.text;
  const from = text.slice(0, head.value).search(/\S+$/);
  const length = text.slice(head.value).search(/\s|$/);
  select(from < 0 ? head.value : from, head.value + length);
}
/** Up and down go by the rows that are seen. */
function upright(event: KeyboardEvent, way: 1 | -1): void {
  const now = caret.value;
  const row = now && carets.value.filter((one) => one.row === now.row + way);
  if (!row?.length) return;
  event.preventDefault();
  const to = caretNear(row, [now!.x, row[0]!.top])!.index;
  select(event.shiftKey ? chosen.value[head.value === chosen.value[0] ? 1 : 0] : to, to);
}
function close(): void {
  viewing.typing = null;
  store.endGesture();
}
watch(
  field,
  async (there) => {
    if (!there) return;
    await nextTick();
    there.focus();
    there.select();
  },
  { immediate: true },
);
</script>

<template>
  <div class="typing">
    <textarea
      ref="field"
      :value="words?.text"
      :maxlength="title.params.text.most"
      :style="{ left: `${at[0]}px`, top: `${at[1]}px` }"
      aria-label="Text on the picture"
      wrap="off"
      spellcheck="false"
      @input="type"
      @blur="close"
      @keydown.stop
      @keydown.esc="close"
      @keydown.up="upright($event, -1)"
      @keydown.down="upright($event, 1)"
    />
    <svg ref="svg" aria-hidden="true">
      <polygon class="block" :points="block" @pointerdown.stop="press" @dblclick="wholeWord" @click.stop />
      <polygon v-for="(mark, i) in marks" :key="i" class="mark" :points="mark" />
      <polyline v-if="caret" :key="head" class="caret" :points="stage([caret.x, caret.top], [caret.x, caret.bottom])" />
    </svg>
  </div>
</template>

<style scoped>
.typing {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
textarea {
  position: absolute;
  width: 1px;
  height: 1em;
  padding: 0;
  opacity: 0;
  resize: none;
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.block {
  fill: transparent;
  stroke: rgb(255 255 255 / 55%);
  stroke-dasharray: 2 3;
  cursor: text;
  pointer-events: all;
  touch-action: none;
}
.mark {
  fill: rgb(134 182 239 / 45%);
}
.caret {
  stroke: #fff;
  stroke-width: 2;
  filter: drop-shadow(0 0 1px #000);
  animation: blink 1.1s steps(1) infinite;
}
@keyframes blink {
  60% {
    opacity: 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .caret {
    animation: none;
  }
}
</style>
