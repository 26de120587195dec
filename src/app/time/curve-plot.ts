import { computed, shallowRef } from 'vue';
import type { Ease, Key, Value } from '../../core/base/value';
import { keysOf } from '../../core/base/value';
import { valueIn, type ValueEntry } from '../../core/document/edits/values';
import type { Layer } from '../../core/document/schema';
import { momentOf } from '../../core/place/moment';
import { keyBefore, steadyAt, valueAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import { roundLines } from './round-lines';

/** The first curve is chalk, as everything animated; what lies over it has colours and dashes of its own. */
const STROKES = ['var(--chalk)', 'var(--text)', '#b07d2b', '#5f9a4c', '#b8604c', '#8a6fc4', '#3f9792', '#b05586'];
const DASHES = ['', '5 3', '1.5 3', '8 3 2 3'];
/** Most points that a curve is drawn with, so that a row costs the same however long it is. */
const MOST = 480;
/** Keyframes nearer than this many pixels are drawn as one. */
const CROWDED = 5;

export interface Curve {
  id: string;
  entry: ValueEntry;
  part: number;
  name: string;
  value: Value<unknown>;
  stroke: string;
  dash: string;
}
/** Where a row is drawn: pixels, frames of the shot in view. */
export interface RowSpace {
  layer: Layer;
  entries: readonly ValueEntry[];
  perFrame: number;
  /** pixels */
  height: number;
  from: number;
  to: number;
  grown: boolean;
  oneScale?: boolean;
  change?: boolean;
}
type Range = readonly [low: number, high: number];

const keyRanges = new WeakMap<Value<unknown>, Range[]>();

/** One number of a value. */
export const number = (value: unknown, part: number): number =>
  typeof value === 'number' ? value : (value as number[])[part]!;

/** What the curves of a row look like: lines, keyframes and handles in pixels of the row. */
export function useCurvePlot(space: RowSpace) {
  const bench = useBench();
  const store = useProject();
  const selection = useSelection();
  const start = computed(() => space.layer.span.start);
  const curves = computed<Curve[]>(() =>
    space.entries
      .flatMap((entry) =>
        entry.parts.map((part, i) => ({
          id: `${entry.path} ${i}`,
          entry,
          part: i,
          name: part ? `${entry.label} ${part}` : entry.label,
          value: valueIn(space.layer, entry.path)!,
        })),
      )
      .map((curve, i) => ({ ...curve, stroke: STROKES[i % STROKES.length]!, dash: DASHES[i % DASHES.length]! })),
  );
  /** What a curve is at a frame of layer time, in the units that are shown; with what drives it when it has no keyframes. */
  function at(curve: Curve, frame: number): number {
    const value =
      'keys' in curve.value
        ? steadyAt(curve.value, frame)
        : valueAt(curve.value, momentOf(store.current(), bench.shot!, space.layer, frame + start.value));
    return number(value, curve.part) * curve.entry.factor;
  }
  /** Lowest and highest of a curve over its keyframes, with what lies between them. */
  function ownRange(curve: Curve): Range {
    const keys = keysOf(curve.value);
    const [first, last] = keys.length ? [keys[0]!.at, keys.at(-1)!.at] : [0, space.layer.span.length - 1];
    const seen = keys.map((key) => number(key.value, curve.part) * curve.entry.factor);
    const steps = Math.min(240, Math.max(1, last - first));
    for (let i = 0; i <= steps; i++) seen.push(at(curve, first + ((last - first) * i) / steps));
    return seen.reduce<Range>(([low, high], v) => [Math.min(low, v), Math.max(high, v)], [Infinity, -Infinity]);
  }
  /** Keyframes are never changed in place, so their range is found once. */
  function knownRange(curve: Curve): Range {
    if (!('keys' in curve.value)) return ownRange(curve);
    const known = keyRanges.get(curve.value) ?? [];
    keyRanges.set(curve.value, known);
    return (known[curve.part] ??= ownRange(curve));
  }
  const ranges = computed(() => {
    const own = new Map(curves.value.map((curve) => [curve.id, knownRange(curve)]));
    if (!space.oneScale) return own;
    const all: Range = [
      Math.min(...[...own.values()].map((range) => range[0])),
      Math.max(...[...own.values()].map((range) => range[1])),
    ];
    return new Map([...own.keys()].map((id) => [id, all]));
  });
  /** The ranges as they were when a drag began: what is dragged stays under the pointer. */
  const held = shallowRef<Map<string, Range> | null>(null);
  /** What stays the same lies in the middle of one up and one down. */
  function rangeOf(curve: Curve): Range {
    const [low, high] = (held.value ?? ranges.value).get(curve.id) ?? [0, 1];
    return low === high ? [low - 1, high + 1] : [low, high];
  }
  // a peg hangs under its point
  const room = computed(() => (space.grown ? { top: 28, bottom: 16 } : { top: 5, bottom: 10 }));
  const high = computed(() => space.height - room.value.top - room.value.bottom);

  const left = computed(() => Math.max(0, space.from) * space.perFrame);
  const x = (frame: number) => (frame + start.value + 0.5) * space.perFrame - left.value;
  function y(curve: Curve, v: number): number {
    const [least, most] = rangeOf(curve);
    return room.value.top + (1 - (v - least) / (most - least)) * high.value;
  }
  const perPixel = (curve: Curve): number => (rangeOf(curve)[1] - rangeOf(curve)[0]) / Math.max(1, high.value);

  function line(first: number, last: number, yOf: (frame: number) => number): string {
    const step = Math.max(0.25, (last - first) / MOST, (space.grown ? 2 : 4) / space.perFrame);
    const points: string[] = [];
    for (let frame = first; frame < last; frame += step) points.push(`${x(frame).toFixed(1)} ${yOf(frame).toFixed(1)}`);
    points.push(`${x(last).toFixed(1)} ${yOf(last).toFixed(1)}`);
    return `M${points.join('L')}`;
  }
  // numbers by themselves, so that an edit elsewhere in the shot draws nothing anew
  const firstDrawn = computed(() => Math.max(0, space.from) - start.value);
  const lastDrawn = computed(() => Math.min(bench.shot!.length, space.to) - start.value);
  const paths = computed(() => {
    const [first, last] = [firstDrawn.value, lastDrawn.value];
    if (last <= first) return [];
    return curves.value.map((curve) => ({ curve, d: line(first, last, (frame) => y(curve, at(curve, frame))) }));
  });
  /** How much each changes in a frame, over the middle of the row; as far as the greatest change. */
  const changes = computed(() => {
    const [first, last] = [firstDrawn.value, lastDrawn.value];
    if (!space.change || !space.grown || last <= first) return [];
    return curves.value.map((curve) => {
      const by = (frame: number) => at(curve, frame + 0.5) - at(curve, frame - 0.5);
      const keys = keysOf(curve.value);
      const [a, b] = keys.length ? [keys[0]!.at, keys.at(-1)!.at] : [0, space.layer.span.length];
      let most = 1e-9;
      for (let i = 0; i <= 240; i++) most = Math.max(most, Math.abs(by(a + ((b - a) * i) / 240)));
      const middle = room.value.top + high.value / 2;
      return { curve, most, d: line(first, last, (frame) => middle - (by(frame) / most) * (high.value / 2)) };
    });
  });

  /** Keyframes in view. Found by halving, and thinned where they crowd, so that a row costs the same however many it has. */
  function keysInView(
    keys: readonly Key<unknown>[],
  ): { key: Key<unknown>; index: number; x: number; next?: Key<unknown> }[] {
    const out: { key: Key<unknown>; index: number; x: number; next?: Key<unknown> }[] = [];
    if (!keys.length) return out;
    const first = Math.max(0, keyBefore(keys, space.from - start.value) - 1);
    for (let i = first; i < keys.length && keys[i]!.at <= space.to - start.value; i++) {
      const at = x(keys[i]!.at);
      if (!out.length || at - out.at(-1)!.x >= CROWDED) out.push({ key: keys[i]!, index: i, x: at, next: keys[i + 1] });
    }
    return out;
  }
  const isPicked = (path: string) => {
    const at = new Set(
      selection.keys.filter((key) => key.layer === space.layer.id && key.path === path).map((key) => key.at),
    );
    return (key: Key<unknown>) => at.has(key.at);
  };
  /** At rest a keyframe is one point, on the first curve of its value; grown it is one on each. What has no numbers hangs in the middle. */
  const points = computed(() =>
    space.entries.flatMap((entry) => {
      const value = valueIn(space.layer, entry.path)!;
      const picked = isPicked(entry.path);
      const own = curves.value.filter((curve) => curve.entry.path === entry.path);
      const shown = space.grown ? own : own.slice(0, 1);
      return (shown.length ? shown : [null]).flatMap((curve) =>
        keysInView(keysOf(value)).map(({ key, index, x: at, next }) => ({
          entry,
          curve,
          key,
          index,
          next,
          x: at,
          y: curve ? y(curve, number(key.value, curve.part) * entry.factor) : space.height / 2 - 4,
          picked: picked(key),
        })),
      );
    }),
  );

  const cubicOf = (ease: Ease): [number, number, number, number] | null =>
    typeof ease === 'object' && 'cubic' in ease
      ? ease.cubic
      : ease === 'hold' || (typeof ease === 'object' && 'bounce' in ease)
        ? null
        : [1 / 3, 1 / 3, 2 / 3, 2 / 3];
  /** Both handles of the spans that a chosen keyframe begins. */
  const handles = computed(() =>
    (space.grown ? points.value : []).flatMap(({ curve, key, next, picked }) => {
      const cubic = cubicOf(key.ease);
      if (!curve || !next || !cubic || !picked) return [];
      const [v0, v1] = [key, next].map((end) => number(end.value, curve.part) * curve.entry.factor) as [number, number];
      return ([0, 2] as const).map((i) => ({
        curve,
        key,
        next,
        cubic,
        i,
        v0,
        v1,
        x: x(key.at + (next.at - key.at) * cubic[i]),
        y: y(curve, v0 + (v1 - v0) * cubic[(i + 1) as 1 | 3]),
        fromX: x((i === 0 ? key : next).at),
        fromY: y(curve, i === 0 ? v0 : v1),
      }));
    }),
  );
  /** Numbers along the first curve's range. */
  const axis = computed(() => {
    const [lead] = curves.value;
    if (!lead || !space.grown) return [];
    return roundLines(rangeOf(lead), Math.max(2, high.value / 22)).map((v) => ({ v, y: y(lead, v) }));
  });

  const hold = (): void => void (held.value = ranges.value);
  const release = (): void => void (held.value = null);
  return { left, curves, ranges, perPixel, paths, changes, points, handles, axis, hold, release };
}
export type PlottedPoint = ReturnType<typeof useCurvePlot>['points']['value'][number];
export type PlottedHandle = ReturnType<typeof useCurvePlot>['handles']['value'][number];
