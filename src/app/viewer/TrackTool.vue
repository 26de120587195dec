<script setup lang="ts">
import { computed, ref } from 'vue';
import { arrowWay } from '../controls/arrows';
import { quadAbout, type Quad } from '../../core/document/track';
import { middleOf } from '../../core/track/motion';
import { sampleAt, pointsAt } from '../../core/track/samples';
import { followPointer } from '../controls/pointer';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { useTracking, WEAK } from '../stores/tracking';
import { tenths, type ViewFrame, type XY } from './frame';
import GripMark from './GripMark.vue';
import { useSourceSpace } from './source-space';

/** The chosen track on the picture: its patterns to draw, its way, and its points to mend. */
const props = defineProps<{ frame: ViewFrame }>();
const preview = usePreview();
const store = useProject();
const tracking = useTracking();
const svg = ref<SVGSVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);
/** Frames before and after the playhead whose dots are shown. */
const NEAR = 24;
const HUE = '#b79be6';

const track = computed(() => tracking.track!);
const measured = computed(() => tracking.samples.rows.length > 0);
const busy = computed(() => !!tracking.running || store.readOnly);
/** Patterns are drawn on the frame that they belong to; elsewhere they are only seen. */
const drawing = computed(
  () => !busy.value && track.value.kind !== 'sway' && (!measured.value || tracking.frame === track.value.start),
);
const mending = computed(() => !busy.value && measured.value && !drawing.value);
const free = computed(() => track.value.kind === 'plane' || track.value.kind === 'patch');

const stage = (points: readonly XY[]): string => points.map((p) => space.toStage(p).join(',')).join(' ');
/** Where each of the patterns is looked for on the next frame. */
const searched = computed(() =>
  tracking.patterns.map((quad) => {
    const [xs, ys] = [quad.map(([x]) => x), quad.map(([, y]) => y)];
    const { reach } = track.value;
    const [l, t, r, b] = [
      Math.min(...xs) - reach,
      Math.min(...ys) - reach,
      Math.max(...xs) + reach,
      Math.max(...ys) + reach,
    ];
    return {
      ring: [
        [l, t],
        [r, t],
        [r, b],
        [l, b],
      ] as XY[],
      side: [r, (t + b) / 2] as XY,
    };
  }),
);
/** The way of each point, and its places near the playhead. */
const ways = computed(() => {
  const { first, rows } = tracking.samples;
  const count = rows.find((row) => row)?.points.length ?? 0;
  return Array.from({ length: count }, (_, k) => ({
    line: rows.flatMap((row) => (row ? [row.points[k]!] : [])),
    dots: rows.flatMap((row, i) =>
      row && Math.abs(first + i - tracking.frame) <= NEAR
        ? [{ frame: first + i, at: space.toStage(row.points[k]!), weak: row.confidence < WEAK }]
        : [],
    ),
  }));
});
const here = computed(() => (mending.value ? pointsAt(tracking.samples, tracking.frame) : null));
const fixed = computed(() => track.value.fixed.includes(tracking.frame));
const lost = computed(() => measured.value && !sampleAt(tracking.samples, tracking.frame));

function begin(event: PointerEvent, move: (to: XY, from: XY) => void): void {
  if (event.button !== 0) return;
  const from = space.at(event);
  followPointer(
    event,
    (now) => {
      preview.touching = true;
      move(space.at(now), from);
    },
    () => {
      preview.touching = false;
      store.endGesture();
    },
  );
}
const withQuad = (i: number, quad: Quad): Quad[] => tracking.patterns.map((own, k) => (k === i ? quad : own));
const shifted = (quad: Quad, dx: number, dy: number): Quad =>
  quad.map(([x, y]) => [tenths(x + dx), tenths(y + dy)]) as Quad;
/** A corner moved: of a plane or a patch by itself, of a box with the opposite sides. */
function cornered(quad: Quad, corner: number, [x, y]: XY): Quad {
  if (free.value) return quad.map((own, k) => (k === corner ? [tenths(x), tenths(y)] : own)) as Quad;
  const [cx, cy] = middleOf(quad);
  const [rx, ry] = [Math.max(4, Math.abs(x - cx)), Math.max(4, Math.abs(y - cy))];
  return boxOf(cx, cy, rx, ry);
}
/** A box, to tenths of a pixel. */
const boxOf = (cx: number, cy: number, rx: number, ry: number): Quad => shifted(quadAbout([cx, cy], rx, ry), 0, 0);

function dragCorner(event: PointerEvent, i: number, corner: number): void {
  const quad = tracking.patterns[i]!;
  begin(event, (to, from) => {
    const [x, y] = quad[corner]!;
    tracking.draw(withQuad(i, cornered(quad, corner, [x + to[0] - from[0], y + to[1] - from[1]])), 'draw pattern');
  });
}
function dragPattern(event: PointerEvent, i: number): void {
  const quad = tracking.patterns[i]!;
  begin(event, (to, from) =>
    tracking.draw(withQuad(i, shifted(quad, to[0] - from[0], to[1] - from[1])), 'draw pattern'),
  );
}
/** A pattern drawn anew from one corner to the other; of a pair, the one that is nearer. */
function dragNew(event: PointerEvent): void {
  const at = space.at(event);
  const far = (quad: Quad) => Math.hypot(middleOf(quad)[0] - at[0], middleOf(quad)[1] - at[1]);
  const quads = tracking.patterns;
  const i = quads.length > 1 && far(quads[1]!) < far(quads[0]!) ? 1 : 0;
  begin(event, (to, from) => {
    const [rx, ry] = [Math.abs(to[0] - from[0]) / 2, Math.abs(to[1] - from[1]) / 2];
    if (rx < 4 || ry < 4) return;
    const quad = boxOf((to[0] + from[0]) / 2, (to[1] + from[1]) / 2, rx, ry);
    tracking.draw(
      quads.map((own, k) => (k === i ? quad : own)),
      'draw pattern',
    );
  });
}
function dragReach(event: PointerEvent): void {
  const { reach } = track.value;
  begin(event, (to, from) => tracking.reach(Math.min(2000, Math.max(1, Math.round(reach + to[0] - from[0]))), 'reach'));
}
function dragPoint(event: PointerEvent, k: number): void {
  const points = here.value!;
  begin(event, (to, from) =>
    tracking.mend(
      points.map(([x, y], i): XY => (i === k ? [x + to[0] - from[0], y + to[1] - from[1]] : [x, y])),
      'mend',
    ),
  );
}
function nudge(event: KeyboardEvent, move: (dx: number, dy: number) => void): void {
  const step = arrowWay(event);
  if (!step) return;
  event.stopPropagation();
  event.preventDefault();
  const far = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
  move(step[0] * far, step[1] * far);
}
const nudged = (points: readonly XY[], k: number, dx: number, dy: number): XY[] =>
  points.map(([x, y], i): XY => (i === k ? [x + dx, y + dy] : [x, y]));
const CORNERS = ['Upper left', 'Upper right', 'Lower right', 'Lower left'];
const NAMES: Record<string, readonly string[]> = {
  pair: ['First', 'Second'],
  plane: CORNERS,
  patch: CORNERS,
  sway: ['Left', 'Right'],
};
const nameOf = (k: number): string => NAMES[track.value.kind]?.[k] ?? 'Point';
</script>

<template>
  <svg ref="svg" class="tool" role="group" :aria-label="`Track ${track.name} on the picture`">
    <rect v-if="drawing && !measured" class="sheet" width="100%" height="100%" @pointerdown="dragNew" />
    <template v-for="(way, k) in ways" :key="`way ${k}`">
      <polyline class="shadow" :points="stage(way.line)" />
      <polyline class="way" :points="stage(way.line)" />
      <template v-for="dot in way.dots" :key="dot.frame">
        <path v-if="dot.weak" class="weak" :d="`M${dot.at[0]} ${dot.at[1] - 4.5}l4.5 4.5l-4.5 4.5l-4.5 -4.5z`" />
        <circle v-else class="dot" :cx="dot.at[0]" :cy="dot.at[1]" r="2.2" />
      </template>
    </template>
    <g v-if="track.kind !== 'sway' && !lost">
      <template v-for="(quad, i) in tracking.patterns" :key="`pattern ${i}`">
        <polygon class="shadow" :points="stage(quad)" />
        <polygon
          class="pattern"
          :class="{ movable: drawing }"
          :points="stage(quad)"
          :style="{ stroke: HUE }"
          @pointerdown.stop="drawing && dragPattern($event, i)"
        />
        <polygon v-if="drawing" class="searched" :points="stage(searched[i]!.ring)" />
      </template>
    </g>
    <template v-if="drawing">
      <template v-for="(quad, i) in tracking.patterns" :key="`grips ${i}`">
        <GripMark
          :at="space.toStage(middleOf(quad))"
          :stroke="HUE"
          round
          :aria-label="`${tracking.patterns.length > 1 ? `${nameOf(i)} pattern` : 'Pattern'} of ${track.name}`"
          @pointerdown.stop="dragPattern($event, i)"
          @keydown="nudge($event, (dx, dy) => tracking.draw(withQuad(i, shifted(quad, dx, dy))))"
        />
        <GripMark
          v-for="(corner, c) in quad"
          :key="c"
          :at="space.toStage(corner)"
          :stroke="HUE"
          :aria-label="`${CORNERS[c]} corner of ${tracking.patterns.length > 1 ? `${nameOf(i).toLowerCase()} pattern` : 'pattern'}`"
          @pointerdown.stop="dragCorner($event, i, c)"
          @keydown="
            nudge($event, (dx, dy) => tracking.draw(withQuad(i, cornered(quad, c, [corner[0] + dx, corner[1] + dy]))))
          "
        />
      </template>
      <GripMark
        :at="space.toStage(searched[0]!.side)"
        :stroke="HUE"
        round
        aria-label="How far it is searched"
        :aria-description="`${track.reach} px`"
        @pointerdown.stop="dragReach($event)"
        @keydown="nudge($event, (dx) => tracking.reach(Math.min(2000, Math.max(1, track.reach + dx))))"
      />
    </template>
    <template v-if="here">
      <GripMark
        v-for="(at, k) in here"
        :key="`here ${k}`"
        :at="space.toStage(at)"
        :stroke="fixed ? '#d8a84a' : HUE"
        round
        :aria-label="`${nameOf(k)} of ${track.name} on frame ${tracking.frame}`"
        :aria-description="fixed ? 'mended by hand' : lost ? 'lost here' : 'measured'"
        @pointerdown.stop="dragPoint($event, k)"
        @keydown="nudge($event, (dx, dy) => tracking.mend(nudged(here!, k, dx, dy)))"
      />
    </template>
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
.sheet {
  fill: transparent;
  pointer-events: all;
  cursor: crosshair;
  touch-action: none;
}
polyline,
polygon {
  fill: none;
}
.shadow {
  stroke: rgb(0 0 0 / 60%);
  stroke-width: 3.2;
}
.way {
  stroke: #b79be6;
  stroke-width: 1.4;
}
.pattern {
  stroke-width: 1.6;
}
.movable {
  fill: transparent;
  pointer-events: all;
  cursor: move;
  touch-action: none;
}
.searched {
  stroke: #b79be6;
  stroke-dasharray: 4 4;
  stroke-width: 1.2;
}
.dot {
  fill: #b79be6;
  stroke: #1b1b1b;
  stroke-width: 0.8;
}
.weak {
  fill: #1b1b1b;
  stroke: #ff7b6e;
  stroke-width: 1.4;
}
</style>
