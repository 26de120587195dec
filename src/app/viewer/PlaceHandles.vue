<script setup lang="ts">
import { computed, ref } from 'vue';
import { setPlace, type PlaceChange } from '../../core/document/edits/layers';
import { boxOf } from '../../core/place/boxes';
import { visibleLayers } from '../../core/plan/plan';
import { snappedShift } from './snap-place';
import { carriedBy, placeAt } from '../../core/place/place';
import { plainFor } from '../../core/time/values';
import { arrowOf } from '../controls/arrows';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useAids } from '../stores/aids';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import GuideLines from './GuideLines.vue';
import { HANDLE, tenths, type ViewFrame, type XY } from './frame';
import { useSourceSpace } from './source-space';

/** The chosen layer's outline on the picture, as it lies there, tilted and following too: drag to move, corners and sides to scale, the stalk to turn. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const preview = usePreview();
const aids = useAids();
const svg = ref<SVGSVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);

const now = computed(() => placeAt(playhead.moment));
const half = computed(() => ({ w: bench.size!.w / 2, h: bench.size!.h / 2 }));
const SIDES = [
  [-1, -1],
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
] as const;
const NAMES = [
  'Top left corner',
  'Top side',
  'Top right corner',
  'Right side',
  'Bottom right corner',
  'Bottom side',
  'Bottom left corner',
  'Left side',
] as const;
const grips = computed(() =>
  SIDES.map(([x, y], i) => ({ x, y, name: NAMES[i]!, at: space.toStage([x * half.value.w, y * half.value.h]) })),
);
const outline = computed(() =>
  grips.value
    .filter(({ x, y }) => x && y)
    .map(({ at }) => at.join())
    .join(' '),
);
const anchor = computed(() => space.toStage(now.value.anchor as [number, number]));
const STALK = 26;
/** Away from the middle, beyond the top side. */
const stalk = computed(() => {
  const [[x, y], [u, v]] = [grips.value[1]!.at, grips.value[5]!.at];
  const long = Math.hypot(x - u, y - v) || 1;
  return { from: [x, y] as const, to: [x + ((x - u) / long) * STALK, y + ((y - v) / long) * STALK] as const };
});

/** @param change as it is to be seen; what drives the values comes on top of what is written */
function write(change: PlaceChange, what: string, dragging: boolean): void {
  if (dragging) preview.touching = true;
  const { place } = bench.layer!;
  const plain = Object.fromEntries(
    Object.entries(change).map(([name, value]) => [
      name,
      typeof value === 'boolean'
        ? value
        : plainFor(place[name as 'position'], value as [number, number], playhead.moment),
    ]),
  ) as PlaceChange;
  edits.editLayer((project, at) => setPlace(project, at, plain, what), dragging ? 'handles' : undefined);
}
function done(): void {
  preview.touching = false;
  store.endGesture();
}
/** What a shift of the shot's pixels is for a layer that another one carries along. */
function own([dx, dy]: XY): [number, number] {
  const [a, b, c, d] = carriedBy(playhead.moment);
  const det = a * d - b * c || 1;
  return [(d * dx - c * dy) / det, (a * dy - b * dx) / det];
}
const shifted = ([dx, dy]: XY, from = now.value.position): PlaceChange => ({
  position: [tenths(from[0] + dx), tenths(from[1] + dy)],
});

/** How near a line a dragged layer is drawn to it, in pixels of the screen. */
const MEETS = 5;
/** Lines of the shot that it has met, from its centre. */
const guide = ref<{ x: number | null; y: number | null }>({ x: null, y: null });
const guides = computed(() => {
  const { x, y, scale } = props.frame;
  const { width, height } = bench.shot!;
  const at = (v: number, long: number, start: number): number => start + (v + long / 2) * scale;
  return {
    x: guide.value.x === null ? null : at(guide.value.x, width, x),
    y: guide.value.y === null ? null : at(guide.value.y, height, y),
  };
});
/** Drags the layer; with Ctrl it keeps to no line. */
function move(event: PointerEvent): void {
  if (event.button !== 0) return;
  const from = now.value.position;
  const { shot, layer } = bench;
  const { frame } = playhead;
  const project = store.current();
  const boxes = visibleLayers(shot!, frame).map((item) => [item.id, boxOf(project, shot!, item, frame)] as const);
  const box = boxes.find(([id]) => id === layer!.id)?.[1];
  const others = boxes.flatMap(([id, other]) => (other && id !== layer!.id ? [other] : []));
  followPointer(
    event,
    (to) => {
      const { scale } = props.frame;
      const by: XY = [(to.clientX - event.clientX) / scale, (to.clientY - event.clientY) / scale];
      const snap = box && !to.ctrlKey ? snappedShift(box, others, shot!, by, MEETS / scale, aids.lines) : null;
      guide.value = { x: snap?.x ?? null, y: snap?.y ?? null };
      write(shifted(own(snap?.shift ?? by), from), 'Move', true);
    },
    () => {
      guide.value = { x: null, y: null };
      done();
    },
  );
}
/** From the anchor in the source's pixels, by the map as it was when the drag began. */
function fromAnchor(): (to: PointerEvent) => [number, number] {
  const bounds = svg.value!.getBoundingClientRect();
  const back = space.frozen();
  const [ax, ay] = now.value.anchor;
  return (to) => {
    const [x, y] = back([to.clientX - bounds.left, to.clientY - bounds.top]);
    return [x - ax, y - ay];
  };
}
const thousandths = (v: number) => Math.max(0.001, Math.round(Math.abs(v) * 1000) / 1000);
function size(event: PointerEvent, [sx, sy]: readonly [number, number]): void {
  const { scale } = now.value;
  const at = fromAnchor();
  const first = at(event);
  followPointer(
    event,
    (to) => {
      const [x, y] = at(to);
      const both = Math.hypot(x, y) / (Math.hypot(...first) || 1);
      const [fx, fy] = sx && sy ? [both, both] : [sx ? x / (first[0] || 1) : 1, sy ? y / (first[1] || 1) : 1];
      write({ scale: [thousandths(scale[0] * fx), thousandths(scale[1] * fy)] }, 'Scale', true);
    },
    done,
  );
}
const SNAP = 3;
function turn(event: PointerEvent): void {
  const { scale, rotation } = now.value;
  const { flipX, flipY } = bench.layer!.place;
  const at = fromAnchor();
  const angle = (to: PointerEvent) => {
    const [x, y] = at(to);
    return (Math.atan2(y * scale[1] * (flipY ? -1 : 1), x * scale[0] * (flipX ? -1 : 1)) * 180) / Math.PI;
  };
  const first = angle(event);
  followPointer(
    event,
    (to) => {
      const next = rotation + ((angle(to) - first + 540) % 360) - 180;
      const right = Math.round(next / 90) * 90;
      write({ rotation: tenths(Math.abs(next - right) <= SNAP ? right : next) }, 'Turn', true);
    },
    done,
  );
}
function press(event: KeyboardEvent, what: 'move' | 'turn' | readonly [number, number]): void {
  const by = arrowOf(event);
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  if (what === 'move') write(shifted(own(by)), 'Move', false);
  else if (what === 'turn') write({ rotation: tenths(now.value.rotation + by[0] + by[1]) }, 'Turn', false);
  else {
    const grow = 1 + 0.01 * (by[0] - by[1]);
    write(
      {
        scale: [
          thousandths(now.value.scale[0] * (what[0] ? grow : 1)),
          thousandths(now.value.scale[1] * (what[1] ? grow : 1)),
        ],
      },
      'Scale',
      false,
    );
  }
}
</script>

<template>
  <svg
    ref="svg"
    class="handles"
    role="group"
    aria-label="Place on the picture"
    :style="{ '--line': HANDLE.line, '--fill': HANDLE.fill }"
  >
    <polygon
      class="outline"
      :points="outline"
      role="button"
      tabindex="0"
      aria-label="Layer on the picture: drag or arrow keys move it; with Ctrl it keeps to no line"
      @pointerdown="move"
      @keydown="press($event, 'move')"
    />
    <GuideLines v-bind="guides" />
    <line class="stalk" :x1="stalk.from[0]" :y1="stalk.from[1]" :x2="stalk.to[0]" :y2="stalk.to[1]" />
    <g
      role="button"
      tabindex="0"
      aria-label="Turn"
      class="turn"
      @pointerdown.stop="turn"
      @keydown="press($event, 'turn')"
    >
      <circle class="room" :cx="stalk.to[0]" :cy="stalk.to[1]" r="12" />
      <circle :cx="stalk.to[0]" :cy="stalk.to[1]" r="5" />
    </g>
    <g
      v-for="grip in grips"
      :key="grip.name"
      role="button"
      tabindex="0"
      :aria-label="grip.name"
      class="grip"
      @pointerdown.stop="size($event, [grip.x, grip.y])"
      @keydown="press($event, [grip.x, grip.y])"
    >
      <rect class="room" :x="grip.at[0] - 12" :y="grip.at[1] - 12" width="24" height="24" />
      <rect :x="grip.at[0] - 4.5" :y="grip.at[1] - 4.5" width="9" height="9" />
    </g>
    <circle class="anchor" :cx="anchor[0]" :cy="anchor[1]" r="4" />
  </svg>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.outline {
  fill: transparent;
  stroke: var(--line);
  cursor: move;
  touch-action: none;
}
.stalk {
  stroke: var(--line);
  pointer-events: none;
}
.grip rect,
.turn circle {
  fill: var(--fill);
  stroke: var(--line);
  touch-action: none;
}
.grip .room,
.turn .room {
  fill: transparent;
  stroke: none;
}
.grip {
  cursor: nwse-resize;
}
.turn {
  cursor: grab;
}
.anchor {
  fill: var(--fill);
  stroke: var(--line);
  stroke-width: 1.5;
  pointer-events: none;
}
</style>
