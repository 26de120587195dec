<script setup lang="ts">
import { computed, ref } from 'vue';
import { fadesOf, setFade, titleAt } from '../../core/document/edits/ends';
import type { Layer } from '../../core/document/schema';
import { followPointer } from '../controls/pointer';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import EndMenu from './EndMenu.vue';

/** The folded corner at an end of a layer's bar: dragged inwards the layer fades there, as long as the fold. A click opens its dials, the other button a list of what it can be instead. */
const props = defineProps<{ layer: Layer; end: 'in' | 'out'; perFrame: number }>();
const bench = useBench();
const store = useProject();
const selection = useSelection();
const frames = computed(() => fadesOf(props.layer)[props.end]);
const title = computed(() => titleAt(props.layer, props.end));
const menuAt = ref<[number, number] | null>(null);
const fold = computed(() => frames.value * props.perFrame);

const write = (to: number, gesture?: string): void => {
  if (props.layer.locked || store.readOnly) return;
  store.edit(setFade(store.current(), { shot: bench.shotId!, layer: props.layer.id }, props.end, to), gesture);
};
function drag(event: PointerEvent): void {
  if (event.button !== 0) return;
  selection.pickLayer(props.layer.id, false);
  const begun = frames.value;
  const way = props.end === 'in' ? 1 : -1;
  followPointer(
    event,
    (now) => write(begun + (way * (now.clientX - event.clientX)) / props.perFrame, 'fade'),
    (moved) => {
      store.endGesture();
      if (!moved && frames.value) bench.show(props.end);
    },
  );
}
function menu(x: number, y: number): void {
  selection.pickLayer(props.layer.id, false);
  menuAt.value = [x, y];
}
/** Arrows make the fade longer or shorter as they point; Delete takes it away. */
function press(event: KeyboardEvent): void {
  if (event.key === 'Enter') {
    const { right, bottom } = (event.target as Element).getBoundingClientRect();
    menu(right, bottom);
    event.preventDefault();
    return event.stopPropagation();
  }
  const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
  if (event.key === 'Delete' || event.key === 'Backspace') write(0);
  else if (way) write(frames.value + way * (props.end === 'in' ? 1 : -1) * (event.shiftKey ? 10 : 1));
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <span class="corner" :class="end">
    <svg
      v-if="fold"
      class="fold"
      :style="{ width: `${fold}px` }"
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path d="M0 0H1L0 1Z" />
      <line x1="1" y1="0" x2="0" y2="1" />
    </svg>
    <span
      class="hold"
      :class="{ folded: fold }"
      :style="{ [end === 'in' ? 'left' : 'right']: `${Math.max(0, fold - 5)}px` }"
      role="slider"
      tabindex="0"
      :aria-label="`${title} ${end} of ${layer.name}`"
      :aria-valuenow="frames"
      aria-valuemin="0"
      :aria-valuemax="layer.span.length - 1"
      :aria-valuetext="`${frames} frames`"
      :title="`${title} ${end}: ${frames} f. Drag inwards; the other button for more ways`"
      @pointerdown.stop="drag"
      @keydown="press"
      @contextmenu.stop.prevent="menu($event.clientX, $event.clientY)"
    />
    <EndMenu v-if="menuAt" :layer="layer" :end="end" :at="menuAt" @close="menuAt = null" />
  </span>
</template>

<style scoped>
.corner {
  position: absolute;
  z-index: 1;
  inset: 0;
  pointer-events: none;
}
.fold {
  position: absolute;
  top: 0;
  left: 0;
  height: 100%;
}
.out .fold {
  right: 0;
  left: auto;
  transform: scaleX(-1);
}
.fold path {
  fill: color-mix(in srgb, var(--bg) 82%, transparent);
}
.fold line {
  stroke: var(--dim);
  vector-effect: non-scaling-stroke;
}
.hold {
  position: absolute;
  top: 0;
  width: 11px;
  height: 9px;
  background: var(--text);
  cursor: ew-resize;
  touch-action: none;
  pointer-events: auto;
  opacity: 0;
  clip-path: polygon(0 0, 100% 0, 0 100%);
}
.out .hold {
  clip-path: polygon(0 0, 100% 0, 100% 100%);
}
.hold.folded {
  opacity: 0.75;
  clip-path: polygon(0 0, 100% 0, 50% 100%);
}
.hold:focus-visible {
  clip-path: none;
}
.hold:hover,
.hold:focus-visible {
  opacity: 1;
  background: var(--brass);
}
</style>
