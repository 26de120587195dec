<script setup lang="ts">
import { computed, ref } from 'vue';
import { setValues } from '../../core/document/edits/keys';
import { ellipseRing, placedRings, rectangleRing } from '../../core/masks/outline';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import { MASK_HUES } from '../theme/mask-hues';
import type { ViewFrame, XY } from './frame';
import GuideLines from './GuideLines.vue';
import GripMark from './GripMark.vue';
import { gripsOf, type Grip } from './grips';
import { useSourceSpace } from './source-space';
import { SNAP, snapPoint } from './path-edit';

/** Rectangles, ellipses, lines, gradients and text on the picture, by their grips. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const edits = useEdits();
const masking = useMasking();
const store = useProject();
const preview = usePreview();
const svg = ref<SVGSVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
  () => masking.carried,
);

const mask = computed(() => masking.mask!);
const hue = computed(() => MASK_HUES[mask.value.colour]);
const grips = computed(() =>
  gripsOf(mask.value.shape, masking.now).map((grip) => ({ ...grip, stage: space.toStage(grip.at) })),
);
const FAR = 20_000;
/** Lines in source pixels that show the shape. */
const outlines = computed<XY[][]>(() => {
  const { shape } = mask.value;
  const pairs = (ring: Float64Array): XY[] =>
    Array.from({ length: ring.length / 2 }, (_, i) => [ring[i * 2]!, ring[i * 2 + 1]!]);
  if (shape.kind === 'linear') return [[masking.now(shape.from), masking.now(shape.to)]];
  if (!('centre' in shape)) return [];
  const placed = { centre: masking.now(shape.centre), rotation: masking.now(shape.rotation) };
  const rings = (list: Float64Array[]) =>
    placedRings(list, placed, 1, [0, 0]).map((ring) => [...pairs(ring), pairs(ring)[0]!]);
  if (shape.kind === 'line')
    return placedRings([Float64Array.of(-FAR, 0, FAR, 0), Float64Array.of(0, 0, 0, 40)], placed, 1, [0, 0]).map(pairs);
  if (shape.kind === 'text') return [];
  const size = masking.now(shape.size);
  if (shape.kind === 'rectangle') return rings([rectangleRing(size, masking.now(shape.radius))]);
  const core =
    shape.kind === 'radial'
      ? [ellipseRing([size[0] * masking.now(shape.core), size[1] * masking.now(shape.core)])]
      : [];
  return rings([ellipseRing(size), ...core]);
});

function write(values: Record<string, unknown>, dragging: boolean): void {
  const { id, name } = mask.value;
  if (dragging) preview.touching = true;
  edits.editLayer(
    (_, at) =>
      setValues(
        at,
        Object.fromEntries(Object.entries(values).map(([key, value]) => [`mask.${id}.${key}`, value])),
        `Move ${name}`,
      ),
    dragging ? `grip ${id}` : undefined,
  );
}
/** Lines of the picture that a grip has snapped to, in source pixels. */
const guide = ref<{ x: number | null; y: number | null }>({ x: null, y: null });
/** The grip that moves all of it, and the line within which the picture takes hold of it. */
const middle = computed(() => grips.value.find((grip) => grip.name === 'Centre'));
const inside = computed(() => (mask.value.shape.kind === 'line' ? null : outlines.value[0]));
function drag(event: PointerEvent, grip: Grip): void {
  if (event.button !== 0 || bench.layer?.locked) return;
  const begun = space.at(event);
  followPointer(
    event,
    (now) => {
      const there = space.at(now);
      const aim: XY = [grip.at[0] + there[0] - begun[0], grip.at[1] + there[1] - begun[1]];
      const free = now.ctrlKey || grip.name === 'Rotation';
      const snap = free
        ? { point: aim, x: null, y: null }
        : snapPoint(aim, [], bench.size!, SNAP * space.perStage.value);
      guide.value = { x: snap.x, y: snap.y };
      write(grip.put(snap.point), true);
    },
    () => {
      guide.value = { x: null, y: null };
      preview.touching = false;
      store.endGesture();
    },
  );
}
const nudge = (event: KeyboardEvent, grip: Grip, dx: number, dy: number): void => {
  const far = event.shiftKey ? 10 : 1;
  write(grip.put([grip.at[0] + dx * far, grip.at[1] + dy * far]), false);
};
</script>

<template>
  <svg ref="svg" class="tool" role="group" :aria-label="`${mask.name} on the picture`">
    <polygon
      v-if="inside && middle"
      class="inside"
      :points="inside.map((p) => space.toStage(p).join(',')).join(' ')"
      @pointerdown.stop="drag($event, middle)"
    >
      <title>Drag to move it</title>
    </polygon>
    <GuideLines
      :x="guide.x === null ? null : space.toStage([guide.x, 0])[0]"
      :y="guide.y === null ? null : space.toStage([0, guide.y])[1]"
    />
    <template v-for="(line, i) in outlines" :key="i">
      <polyline class="shadow" :points="line.map((p) => space.toStage(p).join(',')).join(' ')" />
      <polyline
        class="outline"
        :style="{ stroke: hue }"
        :points="line.map((p) => space.toStage(p).join(',')).join(' ')"
      />
    </template>
    <GripMark
      v-for="grip in grips"
      :key="grip.name"
      :at="grip.stage"
      :stroke="hue"
      :round="grip.round"
      :aria-label="`${grip.name} of ${mask.name}`"
      @pointerdown.stop="drag($event, grip)"
      @keydown.left.stop.prevent="nudge($event, grip, -1, 0)"
      @keydown.right.stop.prevent="nudge($event, grip, 1, 0)"
      @keydown.up.stop.prevent="nudge($event, grip, 0, -1)"
      @keydown.down.stop.prevent="nudge($event, grip, 0, 1)"
    />
  </svg>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polyline {
  fill: none;
}
.inside {
  fill: transparent;
  pointer-events: fill;
  cursor: move;
  touch-action: none;
}
.shadow {
  stroke: rgb(0 0 0 / 60%);
  stroke-width: 3.5;
}
.outline {
  stroke-width: 1.6;
}
</style>
