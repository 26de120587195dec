import { computed, ref } from 'vue';
import { insertVertex, setPath } from '../../core/document/edits/masks';
import { converted, isSmooth, nearestOn, type Vertex } from '../../core/masks/path';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { followPointer } from '../controls/pointer';
import { usePullToEdges } from './edges';
import { tenths, type XY } from './frame';
import type { SourceSpace } from './source-space';
import { movedBy, SNAP, snapPoint, withHandle } from './path-edit';

/** Choosing and moving the vertices, handles and segments of the chosen path, by pointer and by keys. @param stage the element that the pointer is followed in */
export function usePathDrag(space: SourceSpace, stage: () => Element) {
  const bench = useBench();
  const edits = useEdits();
  const masking = useMasking();
  const store = useProject();
  const preview = usePreview();
  const pulled = usePullToEdges();
  /** lines that show what a vertex has snapped to, in source pixels */
  const guide = ref<{ x: number | null; y: number | null }>({ x: null, y: null });
  const marquee = ref<{ from: XY; to: XY } | null>(null);
  const mask = computed(() => masking.mask!);
  const path = computed(() => masking.path);
  const closed = computed(() => mask.value.shape.kind === 'path' && mask.value.shape.closed);
  const drawing = computed(() => masking.tool === 'points' && !closed.value);

  function write(next: readonly Vertex[], dragging: boolean): void {
    if (dragging) preview.touching = true;
    const { id } = mask.value;
    edits.editLayer(
      (project, at) => setPath(project, at, id, next, masking.pathReach),
      dragging ? `path ${id}` : undefined,
    );
  }
  /** Ends a drag; with the option on, what was moved goes on to the nearest strong edge. */
  async function end(moved = true): Promise<void> {
    preview.touching = false;
    guide.value = { x: null, y: null };
    if (moved && masking.pull && closed.value) {
      const { id } = mask.value;
      const next = await pulled(path.value, masking.vertices.size ? masking.vertices : new Set(path.value.keys()));
      if (next && masking.mask?.id === id) write(next, true);
    }
    store.endGesture();
  }

  function pick(i: number, add: boolean): void {
    const next = new Set(add ? masking.vertices : masking.vertices.has(i) ? masking.vertices : []);
    if (add && next.has(i)) next.delete(i);
    else next.add(i);
    masking.vertices = next;
  }

  function dragVertex(event: PointerEvent, i: number): void {
    if (event.button !== 0) return;
    if (drawing.value && i === 0 && path.value.length >= 3) return masking.closeDrawn();
    pick(i, event.shiftKey);
    if (event.shiftKey || bench.layer?.locked) return;
    const from = path.value;
    const start = from[i]!;
    const others = from.filter((_, k) => !masking.vertices.has(k)).map((v) => [v[0], v[1]] as const);
    followPointer(
      event,
      (now) => {
        const there = space.at(now);
        const begun = space.at(event);
        const aim: XY = [start[0] + there[0] - begun[0], start[1] + there[1] - begun[1]];
        const snap = now.ctrlKey
          ? { point: aim, x: null, y: null }
          : snapPoint(aim, others, bench.size!, SNAP * space.perStage.value);
        guide.value = { x: snap.x, y: snap.y };
        write(movedBy(from, masking.vertices, snap.point[0] - start[0], snap.point[1] - start[1]), true);
      },
      (moved) => {
        if (!moved) masking.vertices = new Set([i]);
        void end(moved);
      },
    );
  }
  function dragHandle(event: PointerEvent, { i, v, side }: { i: number; v: Vertex; side: 'in' | 'out' }): void {
    const from = path.value;
    followPointer(
      event,
      (now) => {
        const [x, y] = space.at(now);
        write(
          from.map((old, k) => (k === i ? withHandle(v, side, [tenths(x - v[0]), tenths(y - v[1])], now.altKey) : old)),
          true,
        );
      },
      () => void end(false),
    );
  }
  /** On a segment: a click puts a vertex in, a drag moves the whole path. */
  function onSegment(event: PointerEvent): void {
    if (event.button !== 0 || drawing.value) return;
    event.stopPropagation();
    const from = path.value;
    const { id } = mask.value;
    const all = new Set(from.keys());
    const begun = space.at(event);
    followPointer(
      event,
      (now) => {
        const there = space.at(now);
        write(movedBy(from, all, tenths(there[0] - begun[0]), tenths(there[1] - begun[1])), true);
      },
      (moved) => {
        if (moved) return void end();
        const found = nearestOn(from, ...begun);
        if (!found || found.t < 0.01 || found.t > 0.99) return;
        edits.editLayer((project, at) => insertVertex(project, at, id, found.segment, found.t));
        masking.vertices = new Set([found.segment + 1]);
      },
    );
  }

  /** Within the box about chosen vertices: a drag moves them, a click chooses none. */
  function onBox(event: PointerEvent): void {
    if (event.button !== 0 || bench.layer?.locked) return;
    if (event.shiftKey) return select(event);
    const from = path.value;
    const begun = space.at(event);
    followPointer(
      event,
      (now) => {
        const there = space.at(now);
        write(movedBy(from, masking.vertices, tenths(there[0] - begun[0]), tenths(there[1] - begun[1])), true);
      },
      (moved) => {
        if (!moved) masking.vertices = new Set();
        void end(moved);
      },
    );
  }

  function select(event: PointerEvent): void {
    const begun = stagePoint(event);
    followPointer(
      event,
      (now) => (marquee.value = { from: begun, to: stagePoint(now) }),
      (moved) => {
        const area = marquee.value;
        marquee.value = null;
        if (!moved || !area) return void (masking.vertices = new Set());
        const [x0, x1] = [Math.min(area.from[0], area.to[0]), Math.max(area.from[0], area.to[0])];
        const [y0, y1] = [Math.min(area.from[1], area.to[1]), Math.max(area.from[1], area.to[1])];
        const within = ([x, y]: XY) => x >= x0 && x <= x1 && y >= y0 && y <= y1;
        const inside = [...path.value.keys()].filter((i) =>
          within(space.toStage([path.value[i]![0], path.value[i]![1]])),
        );
        masking.vertices = new Set([...(event.shiftKey ? masking.vertices : []), ...inside]);
      },
    );
  }
  function stagePoint(event: MouseEvent): XY {
    const bounds = stage().getBoundingClientRect();
    return [event.clientX - bounds.left, event.clientY - bounds.top];
  }
  function convert(i: number): void {
    write(
      path.value.map((v, k) => (k === i ? converted(path.value, i, isSmooth(v) ? 'corner' : 'smooth') : v)),
      false,
    );
  }
  function nudge(event: KeyboardEvent, i: number, dx: number, dy: number): void {
    const far = event.shiftKey ? 10 : 1;
    if (!masking.vertices.has(i)) masking.vertices = new Set([i]);
    write(movedBy(path.value, masking.vertices, dx * far, dy * far), false);
  }

  return {
    guide,
    marquee,
    closed,
    drawing,
    write,
    end,
    pick,
    dragVertex,
    dragHandle,
    onSegment,
    onBox,
    select,
    convert,
    nudge,
  };
}
