<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { changeMarker, setRange, toggleMarker } from '../../core/document/edits/markers';
import { MARKER_COLOURS, type Marker, type Shot } from '../../core/document/schema';
import { usePlayer } from '../stores/player';
import { useReady } from '../stores/ready';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import MarkerMenu from './MarkerMenu.vue';

/** Frame numbers over the rows; press and drag to scrub. Markers and the in and out points are here. */
const props = defineProps<{ shot: Shot; frame: number; perFrame: number; from: number; to: number }>();
const emit = defineEmits<{ seek: [frame: number] }>();
const store = useProject();
const player = usePlayer();
const ready = useReady();
const editing = ref<Marker | null>(null);
/** the marker whose menu is open, and where */
const asked = ref<{ marker: Marker; at: [number, number] } | null>(null);

/** Labels at least this many pixels apart, on steps that fall on whole seconds where there is room for them. */
const APART = 54;
const step = computed(() => {
  const { rate } = props.shot;
  const second = Math.round(rate.num / rate.den);
  const steps = [
    1,
    2,
    5,
    second / 2,
    second,
    2 * second,
    5 * second,
    10 * second,
    30 * second,
    60 * second,
    300 * second,
  ].filter(Number.isInteger);
  return steps.find((frames) => frames * props.perFrame >= APART) ?? 600 * second;
});
const marks = computed(() => {
  const first = Math.max(0, Math.floor(props.from / step.value));
  const last = Math.min(props.shot.length, props.to);
  return Array.from({ length: Math.max(0, Math.ceil(last / step.value) - first) }, (_, i) => (first + i) * step.value);
});
const seen = computed(() =>
  props.shot.markers.filter((marker) => marker.at >= props.from - 100 && marker.at <= props.to),
);

/** Frames that are ready, and those that were left out while playing, as one line each. */
const readyLine = computed(() =>
  ready.runs
    .map(
      ([first, end]) => `M${first * props.perFrame} 0h${(end - first) * props.perFrame}v3H${first * props.perFrame}Z`,
    )
    .join(''),
);
const dropped = computed(() =>
  player.droppedFrames
    .map((frame) => `M${frame * props.perFrame} 0h${Math.max(1, Math.min(props.perFrame, 2))}v3h-1Z`)
    .join(''),
);

function scrub(event: PointerEvent): void {
  if (event.button !== 0) return;
  const ruler = event.currentTarget as HTMLElement;
  const go = (now: PointerEvent) =>
    emit('seek', Math.floor((now.clientX - ruler.getBoundingClientRect().left) / props.perFrame));
  go(event);
  followPointer(event, go);
}
function dragMarker(event: PointerEvent, marker: Marker): void {
  if (event.button !== 0) return;
  let at = marker.at;
  followPointer(
    event,
    (now) => {
      const next = Math.max(
        0,
        Math.min(props.shot.length - 1, marker.at + Math.round((now.clientX - event.clientX) / props.perFrame)),
      );
      if (next === at) return;
      store.edit(changeMarker(props.shot.id, marker.at, { at: next }), 'marker');
      at = next;
    },
    () => store.endGesture(),
  );
}
/** Keys on a marker: Delete removes it and nothing else, arrow keys move it, F2 names it. */
function pressMarker(event: KeyboardEvent, marker: Marker): void {
  const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
  const to = Math.max(0, Math.min(props.shot.length - 1, marker.at + way * (event.shiftKey ? 10 : 1)));
  if (event.key === 'Delete' || event.key === 'Backspace')
    store.edit(toggleMarker(store.current(), props.shot.id, marker));
  else if (event.key === 'F2') editing.value = marker;
  else if (way && to !== marker.at) {
    store.edit(changeMarker(props.shot.id, marker.at, { at: to }));
    void nextTick(() => document.querySelector<HTMLElement>(`.marker[data-at="${to}"]`)?.focus());
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
const arrow = (event: KeyboardEvent): number =>
  (event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0) * (event.shiftKey ? 10 : 1);
function pressRange(event: KeyboardEvent, end: 'from' | 'to'): void {
  if (!arrow(event)) return;
  const range = props.shot.range!;
  store.edit(setRange(props.shot.id, { ...range, [end]: range[end] + arrow(event) }));
  event.preventDefault();
  event.stopPropagation();
}
function rename(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim();
  if (editing.value && name !== editing.value.name) store.edit(changeMarker(props.shot.id, editing.value.at, { name }));
  if (event.type === 'keydown') editing.value = null;
}
function dragRange(event: PointerEvent, end: 'from' | 'to'): void {
  const range = props.shot.range!;
  followPointer(
    event,
    (now) =>
      store.edit(
        setRange(props.shot.id, {
          ...range,
          [end]: range[end] + Math.round((now.clientX - event.clientX) / props.perFrame),
        }),
        'range',
      ),
    store.endGesture,
  );
}
</script>

<template>
  <div
    class="ruler"
    role="group"
    :style="{ width: `${shot.length * perFrame}px` }"
    aria-label="Ruler"
    @pointerdown="scrub"
  >
    <span
      class="keys"
      role="slider"
      tabindex="0"
      aria-label="Playhead"
      aria-valuemin="0"
      :aria-valuemax="shot.length - 1"
      :aria-valuenow="frame"
      @keydown.home.stop.prevent="emit('seek', 0)"
      @keydown.end.stop.prevent="emit('seek', shot.length - 1)"
    />
    <span v-for="mark in marks" :key="mark" class="mono mark" :style="{ left: `${mark * perFrame}px` }">{{
      mark
    }}</span>
    <svg class="strip" aria-hidden="true" :width="shot.length * perFrame" height="3" data-testid="ready strip">
      <path class="ready" :d="readyLine" />
      <path class="dropped" :d="dropped" />
    </svg>
    <template v-if="shot.range">
      <span class="out" :style="{ left: 0, width: `${shot.range.from * perFrame}px` }" />
      <span class="out" :style="{ left: `${shot.range.to * perFrame}px`, right: 0 }" />
      <span
        class="edge in"
        role="slider"
        tabindex="0"
        aria-label="In point"
        :aria-valuenow="shot.range.from"
        @keydown="pressRange($event, 'from')"
        :style="{ left: `${shot.range.from * perFrame}px` }"
        @pointerdown.stop="dragRange($event, 'from')"
      />
      <span
        class="edge"
        role="slider"
        tabindex="0"
        aria-label="Out point"
        :aria-valuenow="shot.range.to - 1"
        @keydown="pressRange($event, 'to')"
        :style="{ left: `${shot.range.to * perFrame - 5}px` }"
        @pointerdown.stop="dragRange($event, 'to')"
      />
    </template>
    <button
      v-for="marker in seen"
      :key="marker.at"
      class="marker"
      :data-at="marker.at"
      :class="marker.colour"
      @keydown="pressMarker($event, marker)"
      :style="{ left: `${(marker.at + 0.5) * perFrame}px` }"
      :aria-label="`Marker ${marker.name || 'without a name'} at ${marker.at}`"
      :title="`${marker.name || 'Marker'} at ${marker.at}. Drag to move, double-click to name`"
      @pointerdown.stop="dragMarker($event, marker)"
      @click="$event.detail === 0 && emit('seek', marker.at)"
      @dblclick.stop="editing = marker"
      @contextmenu.prevent.stop="asked = { marker, at: [$event.clientX, $event.clientY] }"
    >
      <span>{{ marker.name }}</span>
    </button>
    <MarkerMenu v-if="asked" v-bind="asked" :shot="shot" @close="asked = null" @rename="editing = asked.marker" />
    <div v-if="editing" class="edit" :style="{ left: `${editing.at * perFrame}px` }" @pointerdown.stop>
      <input
        :value="editing.name"
        maxlength="200"
        aria-label="Name of the marker"
        placeholder="name"
        @vue:mounted="({ el }: { el: HTMLInputElement }) => el.focus()"
        @keydown.stop
        @keydown.enter="rename($event)"
        @keydown.esc="editing = null"
        @blur="rename($event)"
      />
      <v-btn
        v-for="colour in MARKER_COLOURS"
        :key="colour"
        class="dot"
        rounded="circle"
        :class="colour"
        :aria-label="`Colour ${colour}`"
        @click="(store.edit(changeMarker(shot.id, editing.at, { colour })), (editing = null))"
      />
      <v-btn
        size="small"
        variant="text"
        aria-label="Remove the marker"
        @click="(store.edit(toggleMarker(store.current(), shot.id, editing)), (editing = null))"
      >
        remove
      </v-btn>
      <v-btn size="small" variant="text" aria-label="Close" @click="editing = null">✓</v-btn>
    </div>
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
.keys {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.mark {
  position: absolute;
  top: 0;
  height: 100%;
  padding: 2px 0 0 4px;
  font-size: 0.625rem;
  color: var(--dim);
  border-left: 1px solid var(--line);
}
.strip {
  position: absolute;
  left: 0;
  bottom: 0;
  pointer-events: none;
}
.ready {
  fill: var(--dim);
}
.dropped {
  fill: var(--red);
}
.out {
  position: absolute;
  top: 0;
  bottom: 0;
  background: rgb(0 0 0 / 45%);
  pointer-events: none;
}
.edge {
  position: absolute;
  z-index: 1;
  top: 0;
  width: 5px;
  height: 100%;
  border: 2px solid var(--brass);
  border-left: 0;
  touch-action: none;
}
.edge.in {
  border-left: 2px solid var(--brass);
  border-right: 0;
}
.marker {
  position: absolute;
  z-index: 1;
  bottom: 0;
  height: 0.875rem;
  padding: 0 4px 0 6px;
  font-size: 0.625rem;
  line-height: 0.8125rem;
  color: #161616;
  border-left: 2px solid currentColor;
  white-space: nowrap;
  touch-action: none;
}
.marker.sand,
.dot.sand {
  background: #d9c8a0;
}
.marker.moss,
.dot.moss {
  background: #a9c39a;
}
.marker.slate,
.dot.slate {
  background: #a9b6c4;
}
.marker.rust,
.dot.rust {
  background: #d7a488;
}
.edit {
  position: absolute;
  z-index: 6;
  top: 18px;
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  cursor: default;
}
.edit input {
  width: 8.125rem;
  height: 1.5rem;
  padding: 0 6px;
  background: var(--well);
  border: 1px solid var(--line);
  color: inherit;
}
.dot.v-btn {
  width: 0.875rem;
  min-width: 0;
  height: 0.875rem;
  min-height: 0;
  padding: 0;
  border: 0;
  border-radius: 50%;
}
</style>
