<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { setValues } from '../../core/document/edits/keys';
import { setShape } from '../../core/document/edits/masks';
import type { Hint, Stroke } from '../../core/document/mask';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import { MASK_HUES } from '../theme/mask-hues';
import { HANDLE, type ViewFrame, type XY, tenths } from './frame';
import { useSourceSpace } from './source-space';
import { useSelecting } from './selecting';

/** Paints strokes on the picture: of a brush mask, or those that say what a smart selection keeps and drops. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const edits = useEdits();
const masking = useMasking();
const store = useProject();
const preview = usePreview();
const selecting = useSelecting();
const svg = ref<SVGSVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);
/** where the brush is, in stage pixels; the arrow keys move it too */
const cursor = ref<XY | null>(null);
const stroke = shallowRef<[number, number, number][]>([]);

const mask = computed(() => masking.mask!);
const hinting = computed(() => masking.tool === 'keep' || masking.tool === 'drop');
const hints = computed(() =>
  mask.value.shape.kind === 'matte' ? mask.value.shape.hints.filter((hint) => hint.at === masking.frame) : [],
);
const radius = computed(() => masking.brush.size / 2 / space.perStage.value);
const tone = computed(() =>
  masking.tool === 'drop' || masking.tool === 'erase'
    ? HANDLE.line
    : hinting.value
      ? CHALK
      : MASK_HUES[mask.value.colour],
);
/** Strokes that say what is kept: chalk. Those that say what is dropped are hatched in the colour of handles. */
const CHALK = '#f4f1e6';
/** The strokes on this frame, with the one that is being drawn. */
const drawn = computed(() => [
  ...hints.value.map(({ keep, size, points }) => ({ keep, wide: size / space.perStage.value, points })),
  ...(stroke.value.length ? [{ keep: masking.tool === 'keep', wide: 2 * radius.value, points: stroke.value }] : []),
]);
const polyline = (points: readonly (readonly [number, number, ...number[]])[]) =>
  points
    .map((p) =>
      space
        .toStage([p[0], p[1]])
        .map((v) => v.toFixed(1))
        .join(','),
    )
    .join(' ');

/** A dab is a line of no length. */
const lineOf = (points: Parameters<typeof polyline>[0]): string =>
  polyline(points.length > 1 ? points : [points[0]!, points[0]!]);

function paint(event: PointerEvent): void {
  if (event.button !== 0 || bench.layer?.locked) return;
  const touch = (at: PointerEvent): [number, number, number] => [
    ...(space.at(at).map(tenths) as [number, number]),
    at.pointerType === 'pen' ? Math.round(at.pressure * 100) / 100 : 1,
  ];
  stroke.value = [touch(event)];
  begun = strokesNow();
  move(event);
  followPointer(
    event,
    (now) => {
      // all the places between two events, so that quick strokes stay round
      stroke.value = [...stroke.value, ...(now.getCoalescedEvents?.() ?? [now]).map(touch)];
      if (!hinting.value) write(true);
    },
    () => {
      if (hinting.value) void hint();
      else {
        write(true);
        store.endGesture();
      }
      preview.touching = false;
      stroke.value = [];
    },
  );
}
/** The strokes before the one that is being painted. */
let begun: readonly Stroke[] = [];
function write(dragging: boolean): void {
  const { id, shape } = mask.value;
  if (shape.kind !== 'brush') return;
  preview.touching = dragging;
  const { size, hardness, opacity } = masking.brush;
  const made: Stroke = { points: stroke.value, size, hardness, opacity, erase: masking.tool === 'erase' };
  edits.editLayer(
    (_, at) => setValues(at, { [`mask.${id}.strokes`]: [...begun, made] }, made.erase ? 'Erase' : 'Paint'),
    dragging ? `paint ${id}` : undefined,
  );
}
const strokesNow = (): readonly Stroke[] =>
  mask.value.shape.kind === 'brush' ? (masking.now(mask.value.shape.strokes) as Stroke[]) : [];

async function hint(): Promise<void> {
  const { id, shape } = mask.value;
  if (shape.kind !== 'matte') return;
  const made: Hint = {
    at: masking.frame,
    keep: masking.tool === 'keep',
    size: masking.brush.size,
    points: stroke.value.map(([x, y]) => [x, y] as [number, number]),
  };
  const all = [...shape.hints, made];
  edits.editLayer(
    (project, at) =>
      setShape(project, at, id, { ...shape, hints: all }, made.keep ? 'Keep stroke on' : 'Drop stroke on'),
    `hint ${id}`,
  );
  await selecting.update(id);
  store.endGesture();
}
function move(event: PointerEvent): void {
  const bounds = svg.value!.getBoundingClientRect();
  cursor.value = [event.clientX - bounds.left, event.clientY - bounds.top];
}
function step(event: KeyboardEvent, dx: number, dy: number): void {
  const far = event.shiftKey ? 10 : 2;
  const [x, y] = cursor.value ?? [props.frame.x + props.frame.width / 2, props.frame.y + props.frame.height / 2];
  cursor.value = [x + dx * far, y + dy * far];
}
function dab(): void {
  if (!cursor.value) return;
  stroke.value = [[...(space.toSource(cursor.value).map(tenths) as [number, number]), 1]];
  begun = strokesNow();
  if (hinting.value) void hint();
  else write(false);
  stroke.value = [];
}
</script>

<template>
  <svg
    ref="svg"
    class="tool"
    role="application"
    tabindex="0"
    @mousedown.prevent
    :aria-label="`${hinting ? 'Strokes' : 'Brush'} of ${mask.name} on the picture: arrow keys move, Enter dabs`"
    @pointerdown="paint"
    @pointermove="move"
    @pointerleave="cursor = null"
    @keydown.left.stop.prevent="step($event, -1, 0)"
    @keydown.right.stop.prevent="step($event, 1, 0)"
    @keydown.up.stop.prevent="step($event, 0, -1)"
    @keydown.down.stop.prevent="step($event, 0, 1)"
    @keydown.enter.stop.prevent="dab"
  >
    <template v-if="hinting">
      <defs>
        <pattern id="drop-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" :stroke="HANDLE.line" stroke-width="3" />
        </pattern>
      </defs>
      <g v-for="(item, i) in drawn" :key="i" class="hint" :class="item.keep ? 'keep' : 'drop'">
        <polyline class="band" :points="lineOf(item.points)" :style="{ strokeWidth: item.wide }" />
        <template v-if="item.keep">
          <polyline class="dots under" :points="lineOf(item.points)" />
          <polyline class="dots" :points="lineOf(item.points)" :style="{ stroke: CHALK }" />
        </template>
      </g>
    </template>
    <g v-if="cursor" class="cursor" :transform="`translate(${cursor[0]} ${cursor[1]})`">
      <circle :r="radius" class="shadow" />
      <circle :r="radius" :style="{ stroke: tone }" />
      <text v-if="masking.tool === 'drop' || masking.tool === 'erase'" y="4" text-anchor="middle" :fill="tone">−</text>
      <text v-else-if="masking.tool === 'keep'" y="4" text-anchor="middle" :fill="tone">+</text>
    </g>
  </svg>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  cursor: none;
  touch-action: none;
}
.cursor,
.hint {
  pointer-events: none;
}
circle {
  fill: none;
  stroke-width: 1.5;
}
.shadow {
  stroke: rgb(0 0 0 / 70%);
  stroke-width: 3.5;
}
.hint polyline {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.keep .band {
  stroke: rgb(255 255 255 / 16%);
}
.drop .band {
  stroke: url('#drop-hatch');
}
.dots {
  stroke-width: 4;
  stroke-dasharray: 0 9;
}
.dots.under {
  stroke: rgb(0 0 0 / 80%);
  stroke-width: 6;
}
</style>
