<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch, watchEffect } from 'vue';
import { useEventListener } from '@vueuse/core';
import { useAnswer } from '../base/asks';
import { isKeyed } from '../../core/document/edits/values';
import { useAids } from '../stores/aids';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useCompare } from '../stores/compare';
import { useNotices } from '../stores/notices';
import { useMasking } from '../stores/masking';
import { useTracking } from '../stores/tracking';
import { usePlayer } from '../stores/player';
import { usePreview } from '../stores/preview';
import { useShown } from '../stores/shown';
import { stackStock } from '../time/actions';
import { useProject } from '../stores/project';
import { useScopes } from '../stores/scopes';
import LimitStripes from '../viewer/LimitStripes.vue';
import { beforePart } from '../viewer/before-part';
import CompareBar from '../viewer/CompareBar.vue';
import CompareDivider from '../viewer/CompareDivider.vue';
import FramingTool from '../viewer/FramingTool.vue';
import GripTool from '../viewer/GripTool.vue';
import PaintTool from '../viewer/PaintTool.vue';
import PathTool from '../viewer/PathTool.vue';
import TrackTool from '../viewer/TrackTool.vue';
import MaskTint from '../viewer/MaskTint.vue';
import RangeTool from '../viewer/RangeTool.vue';
import ReliefMarks from '../viewer/ReliefMarks.vue';
import MotionPath from '../viewer/MotionPath.vue';
import PictureMenu from '../viewer/PictureMenu.vue';
import PickTool from '../viewer/PickTool.vue';
import PixelReadout from '../viewer/PixelReadout.vue';
import ScopePart from '../viewer/ScopePart.vue';
import ViewBar from '../viewer/ViewBar.vue';
import type { ShownFrame } from '../../engine/types';
import { useEdges } from '../viewer/edge-places';
import { useClickChoice } from '../viewer/click-choice';
import { useSight } from '../viewer/sight';

const PlaceHandles = defineAsyncComponent(() => import('../viewer/PlaceHandles.vue'));
const ValueGrips = defineAsyncComponent(() => import('../viewer/ValueGrips.vue'));
const StageAids = defineAsyncComponent(() => import('../viewer/StageAids.vue'));
const TypeTool = defineAsyncComponent(() => import('../viewer/TypeTool.vue'));

const bench = useBench();
const playhead = usePlayhead();
const viewing = useViewing();
const compare = useCompare();
const masking = useMasking();
const tracking = useTracking();
const player = usePlayer();
const preview = usePreview();
const shown = useShown();
const store = useProject();
const notices = useNotices();
const scopes = useScopes();
const stage = ref<HTMLElement>();
const after = ref<HTMLCanvasElement>();
const before = ref<HTMLCanvasElement>();

const shot = computed(() => bench.shot!);
const called = computed(() => shot.value.name);
const empty = computed(() => !shot.value.layers.length);
const { width, scale, frame, seen, zoomTo, centreOn, wheel, dragPan } = useSight(
  stage,
  () => shot.value,
  () => compare.on && compare.how === 'beside',
);
const box = computed(() => ({
  left: `${frame.value.x}px`,
  top: `${frame.value.y}px`,
  width: `${frame.value.width}px`,
  height: `${frame.value.height}px`,
  imageRendering: (scale.value >= 2 && preview.reduction === 1 ? 'pixelated' : 'auto') as 'pixelated' | 'auto',
}));
const shaping = computed(
  () =>
    masking.open &&
    masking.mask &&
    !player.playing &&
    !viewing.framing &&
    bench.layer &&
    !bench.layer.locked &&
    bench.size,
);
const maskTool = computed(() => {
  const kind = masking.mask?.shape.kind;
  return kind === 'path'
    ? PathTool
    : kind === 'brush' || (kind === 'matte' && masking.tool !== 'edit')
      ? PaintTool
      : GripTool;
});
const followed = computed(
  () => tracking.open && tracking.track && !player.playing && playhead.layerHere && bench.size && !viewing.framing,
);
const onPicture = computed(() => viewing.view === 'picture' || viewing.view === 'alone');
/** The picture from before: cut off at the divider, or in the left half of the stage. */
const beforeStyle = computed(() => {
  if (compare.how === 'beside') return { left: `${frame.value.x - width.value / 2}px` };
  return compare.divider ? { clipPath: beforePart(compare.divider, compare.share, frame.value) } : {};
});
const handles = computed(
  () =>
    !masking.open &&
    !tracking.open &&
    !player.playing &&
    !bench.picking &&
    bench.layer?.shown &&
    !bench.layer.locked &&
    playhead.layerHere &&
    bench.size &&
    bench.layer.source.type !== 'adjustment' &&
    onPicture.value,
);
const placing = computed(
  () => handles.value && bench.chosen === 'place' && !viewing.framing && !bench.layer?.place.framing,
);
const wandering = computed(() => !!bench.layer && isKeyed(bench.layer.place.position));
const aids = useAids();
const typed = computed(() => handles.value && viewing.typing === bench.layerId && bench.chosen === 'source');
watchEffect(() => (preview.displayScale = width.value ? scale.value : 1));
watch(seen, (part) => (preview.sight = part), { immediate: true });

const readout = ref(false);
/** where the pointer is in the stage */
const pointer = ref<{ x: number; y: number } | null>(null);
function point(event: PointerEvent): void {
  if (!readout.value) return;
  const bounds = stage.value!.getBoundingClientRect();
  pointer.value = { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
}
const edges = useEdges();
/** Shows the next place at the layer's edge at twice its size. */
async function toEdge(): Promise<void> {
  const spot = await edges.next();
  if (!spot) return notices.say('This layer has no half-clear edge on this frame.');
  centreOn(spot, 2);
}

function paint(canvas: HTMLCanvasElement | undefined, picture: ShownFrame | null): void {
  if (!canvas || !picture?.bitmap.width) return;
  const { bitmap, part } = picture;
  const { x, y, width, height } = part ?? { x: 0, y: 0, width: bitmap.width, height: bitmap.height };
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  const context = canvas.getContext('2d')!;
  // around a part stays what was seen there of the same frame
  const frame = String(shown.frame);
  if (canvas.dataset['holds'] !== frame) context.clearRect(0, 0, width, height);
  else context.clearRect(x, y, bitmap.width, bitmap.height);
  canvas.dataset['holds'] = frame;
  context.drawImage(bitmap, x, y);
  canvas.dataset['drawn'] = String(Number(canvas.dataset['drawn'] ?? 0) + 1);
}
watch([() => shown.picture, after], () => paint(after.value, shown.picture), { flush: 'post' });
watch([() => shown.before, before], () => paint(before.value, shown.before), { flush: 'post' });

/** No tool has the picture, so that a click on it may choose a layer. */
const free = computed(
  () =>
    viewing.view === 'picture' &&
    !(masking.open || tracking.open || bench.picking || viewing.framing || viewing.ranging || player.playing),
);
const { press, click, doubled } = useClickChoice(stage, frame, free);
/** where the picture's menu is asked for */
const asked = ref<{ at: [number, number]; spot: [number, number] } | null>(null);
function menu(event: MouseEvent): void {
  if (!free.value || !shot.value.layers.length) return;
  const bounds = stage.value!.getBoundingClientRect();
  const { x, y, scale: by } = frame.value;
  asked.value = {
    at: [event.clientX, event.clientY],
    spot: [(event.clientX - bounds.left - x) / by, (event.clientY - bounds.top - y) / by],
  };
}

/** Space has been held since this frame; a drag with it shifts the picture instead of playing. */
let held: number | null = null;
useEventListener('keydown', (event) => event.code === 'Space' && !event.repeat && (held = playhead.frame), {
  capture: true,
});
useEventListener('keyup', (event) => event.code === 'Space' && (held = null));
function pressed(event: PointerEvent): void {
  press(event);
  if (held === null || event.button !== 0) return;
  event.stopPropagation();
  player.shuttle(0);
  playhead.seek(held);
  dragPan(event, true);
}

function drop(event: DragEvent): void {
  const item = store.project?.stock.find(
    (entry) => entry.id === event.dataTransfer?.getData('application/x-jackplane-stock'),
  );
  if (item) stackStock(item, 0);
}

useAnswer('fit', () => zoomTo(null));
useAnswer('zoom-in', () => zoomTo(scale.value * 1.25));
useAnswer('zoom-out', () => zoomTo(scale.value / 1.25));
</script>

<template>
  <section class="viewer" aria-label="Viewer">
    <ViewBar v-model:readout="readout" :scale="scale" @zoom="zoomTo" @edge="toEdge" />
    <div
      ref="stage"
      class="stage"
      @wheel.prevent="wheel"
      @pointerdown="dragPan($event)"
      @pointerdown.capture="pressed"
      @click="click"
      @dblclick="doubled"
      @contextmenu.prevent="menu"
      @pointermove="point"
      @pointerleave="pointer = null"
      @dragover.prevent
      @drop="drop"
    >
      <div :class="{ difference: compare.on && compare.how === 'difference' }">
        <canvas v-if="preview.tinted" ref="before" class="picture plain" :style="box" aria-hidden="true" />
        <canvas
          ref="after"
          class="picture"
          :class="{ over: preview.tinted }"
          :data-frame="shown.frame"
          :aria-busy="shown.stale && !player.playing"
          :style="box"
          role="img"
          :aria-label="`Frame ${playhead.frame} of ${called}`"
        />
        <div v-if="compare.on" :class="{ half: compare.how === 'beside' }">
          <canvas ref="before" class="picture plain" :style="[box, beforeStyle]" aria-hidden="true" />
          <span v-if="compare.how === 'beside'" class="tag">{{ compare.named }}</span>
        </div>
      </div>
      <span v-if="compare.on && compare.how === 'beside'" class="tag">after</span>
      <CompareBar v-if="compare.on" />
      <CompareDivider v-if="compare.divider" v-model="compare.share" :way="compare.divider" :frame="frame" />
      <StageAids v-if="aids.any && !player.playing" :frame="frame" />
      <FramingTool v-if="handles && viewing.framing" :frame="frame" />
      <PlaceHandles v-if="placing" :frame="frame" />
      <MotionPath v-if="placing && wandering" :frame="frame" />
      <ValueGrips v-if="handles" :frame="frame" />
      <TypeTool v-if="typed" :key="viewing.typing!" :frame="frame" />
      <MaskTint v-if="shaping && masking.tinted && onPicture" :frame="frame" />
      <component :is="maskTool" v-if="shaping" :key="masking.maskId!" :frame="frame" />
      <TrackTool v-if="followed && onPicture" :key="tracking.trackId!" :frame="frame" />
      <LimitStripes v-if="scopes.warnings && onPicture && !shown.picture?.part" :frame="frame" />
      <ScopePart v-if="scopes.open && scopes.of === 'part' && onPicture && !player.playing" :frame="frame" />
      <RangeTool v-if="viewing.ranging && onPicture && !player.playing" :frame="frame" />
      <PickTool v-if="bench.picking" :frame="frame" />
      <ReliefMarks
        v-if="viewing.view === 'relief' && shown.picture?.check"
        :check="shown.picture.check"
        :frame="frame"
        @visit="(island) => centreOn({ x: island.x * shot!.width, y: island.y * shot!.height }, 2)"
      />
      <div v-if="empty" class="empty">
        <strong>Drop footage here</strong>
        <span class="dim"
          >or drag something from the stock on the left. The first layer is the ground, the next one lies on top of
          it.</span
        >
      </div>
      <PictureMenu v-if="asked" v-bind="asked" @close="asked = null" @zoom="zoomTo" />
      <PixelReadout v-if="readout && bench.size && !player.playing" :frame="frame" :pointer="pointer" />
      <span v-if="shown.busy" class="busy" role="status">computing…</span>
      <ul v-if="shown.picture?.problems.length" class="problems">
        <li v-for="problem in shown.picture.problems" :key="problem.layer" class="problem">{{ problem.sentence }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.viewer {
  display: grid;
  grid-template-rows: 2.0625rem 1fr;
  min-width: 0;
  min-height: 0;
  contain: content;
}
.stage {
  contain: strict;
  position: relative;
  overflow: hidden;
  background: var(--surround);
}
.picture {
  position: absolute;
  will-change: transform; /* a layer of its own: what lies around it is not drawn anew with every frame */
  background: repeating-conic-gradient(#8a8a8a 0 25%, #777 0 50%) 0 0 / 16px 16px;
}
/* what differs, eight times as bright */
.difference {
  position: absolute;
  inset: 0;
  background: #000;
  isolation: isolate;
  filter: brightness(8);
}
.difference .picture {
  background: none;
}
.difference .plain {
  mix-blend-mode: difference;
}
/* above handles that reach over */
.half {
  position: absolute;
  inset: 0 50% 0 0;
  z-index: 1;
  overflow: hidden;
  background: var(--surround);
  border-right: 1px solid var(--brass);
}
.tag {
  position: absolute;
  bottom: 6px;
  right: 8px;
  padding: 1px 6px;
  background: rgb(0 0 0 / 65%);
  color: #fff;
  font-size: 0.6875rem;
}
.half .tag {
  right: auto;
  left: 8px;
}
/* above the canvas that it tints, without the checks of clear places */
.over {
  background: none;
}
.plain {
  pointer-events: none;
}
.empty {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 6px;
  text-align: center;
  padding: 0 20%;
  pointer-events: none;
  color: #ddd;
}
.empty .dim {
  color: #bbb;
}
.busy {
  position: absolute;
  right: 8px;
  bottom: 8px;
  padding: 2px 8px;
  background: var(--raised);
  border-radius: 3px;
  font-size: 0.75rem;
}
.problems {
  position: absolute;
  left: 8px;
  bottom: 8px;
  padding: 6px 10px;
  background: var(--raised);
  border-left: 3px solid var(--red);
  list-style: none;
  max-width: 70%;
}
</style>
