import { computed, ref } from 'vue';
import type { Ease, Key, Value } from '../../core/base/value';
import { valueIn, type ValueEntry } from '../../core/document/edits/values';
import { steadyAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { useSelection } from '../stores/selection';

const PAD = 14;
const STROKES = ['#86b6ef', '#e0b66a', '#9fc78d', '#d99a8a', '#b7a3de', '#7fc4c0', '#cfcf87', '#d58fb4'];

export interface Curve {
  id: string;
  entry: ValueEntry;
  part: number;
  name: string;
  value: Value<unknown> & { keys: Key<unknown>[] };
  stroke: string;
}
/** One number of a value. */
export const number = (value: unknown, part: number): number =>
  typeof value === 'number' ? value : (value as number[])[part]!;

/** What the curves of the chosen layer look like: lines, keyframes and handles in pixels of the panel. */
export function useCurvePlot(props: { perFrame: number; height: number; from: number; to: number }) {
  const bench = useBench();
  const selection = useSelection();
  const hidden = ref(new Set<string>());
  const normalised = ref(true);
  const speed = ref(false);
  const curves = computed<Curve[]>(() => {
    const { layer } = bench;
    if (!layer) return [];
    return selection
      .animated(layer)
      .filter((entry) => entry.parts.length)
      .flatMap((entry) =>
        entry.parts.map((part, i) => ({
          id: `${entry.path} ${i}`,
          entry,
          part: i,
          name: part ? `${entry.label} ${part}` : entry.label,
          value: valueIn(layer, entry.path) as Curve['value'],
        })),
      )
      .map((curve, i) => ({ ...curve, stroke: STROKES[i % STROKES.length]! }));
  });
  const shown = computed(() => curves.value.filter((curve) => !hidden.value.has(curve.id)));
  const start = computed(() => bench.layer?.span.start ?? 0);
  /** What is drawn of a curve at a frame of layer time: its value, or how much it changes in a frame. */
  function plotted(curve: Curve, frame: number): number {
    const at = (f: number) => number(steadyAt(curve.value, f), curve.part) * curve.entry.factor;
    return speed.value ? at(frame + 0.5) - at(frame - 0.5) : at(frame);
  }
  /** Lowest and highest of a curve over its keyframes, with what lies between them. */
  const extents = computed(() => {
    const own = new Map<string, [number, number]>();
    for (const curve of shown.value) {
      const { keys } = curve.value;
      const [first, last] = [keys[0]!.at - 1, keys.at(-1)!.at + 1];
      let [low, high] = [Infinity, -Infinity];
      for (let i = 0; i <= 240; i++) {
        const v = plotted(curve, first + ((last - first) * i) / 240);
        low = Math.min(low, v);
        high = Math.max(high, v);
      }
      own.set(curve.id, low === high ? [low - 1, high + 1] : [low, high]);
    }
    if (normalised.value) return own;
    const all: [number, number] = [
      Math.min(...[...own.values()].map((v) => v[0])),
      Math.max(...[...own.values()].map((v) => v[1])),
    ];
    return new Map([...own.keys()].map((id) => [id, all]));
  });
  const x = (frame: number) => (frame + start.value + 0.5) * props.perFrame;
  function y(curve: Curve, v: number): number {
    const [low, high] = extents.value.get(curve.id) ?? [0, 1];
    return PAD + (1 - (v - low) / (high - low)) * (props.height - 2 * PAD);
  }
  const perPixel = (curve: Curve) => {
    const [low, high] = extents.value.get(curve.id) ?? [0, 1];
    return (high - low) / (props.height - 2 * PAD);
  };
  const paths = computed(() =>
    shown.value.map((curve) => {
      const step = Math.max(0.25, 2 / props.perFrame);
      const points: string[] = [];
      for (
        let frame = Math.max(-start.value, props.from - start.value);
        frame <= Math.min(bench.shot!.length, props.to) - start.value;
        frame += step
      )
        points.push(`${x(frame).toFixed(1)} ${y(curve, plotted(curve, frame)).toFixed(1)}`);
      return { curve, d: points.length ? `M${points.join('L')}` : '' };
    }),
  );
  const keyPoints = computed(() => {
    if (speed.value) return [];
    return shown.value.flatMap((curve) =>
      curve.value.keys
        .filter((key) => key.at + start.value >= props.from && key.at + start.value <= props.to)
        .slice(0, 400)
        .map((key) => ({
          curve,
          key,
          index: curve.value.keys.indexOf(key),
          x: x(key.at),
          y: y(curve, number(key.value, curve.part) * curve.entry.factor),
          picked: selection.has({ layer: bench.layerId!, path: curve.entry.path, at: key.at }),
        })),
    );
  });
  const handlesOf = (ease: Ease): [number, number, number, number] | null =>
    typeof ease === 'object' && 'cubic' in ease
      ? ease.cubic
      : ease === 'hold' || (typeof ease === 'object' && 'bounce' in ease)
        ? null
        : [1 / 3, 1 / 3, 2 / 3, 2 / 3];
  /** Both handles of the spans that a chosen keyframe begins. */
  const handles = computed(() =>
    keyPoints.value
      .filter((point) => point.picked)
      .flatMap(({ curve, key }) => {
        const next = curve.value.keys[curve.value.keys.indexOf(key) + 1];
        const cubic = handlesOf(key.ease);
        if (!next || !cubic) return [];
        const [v0, v1] = [
          number(key.value, curve.part) * curve.entry.factor,
          number(next.value, curve.part) * curve.entry.factor,
        ];
        return ([0, 2] as const).map((i) => {
          const end = i === 0 ? key : next;
          return {
            curve,
            key,
            next,
            cubic,
            i,
            v0,
            v1,
            x: x(key.at + (next.at - key.at) * cubic[i]),
            y: y(curve, v0 + (v1 - v0) * cubic[(i + 1) as 1 | 3]),
            fromX: x(end.at),
            fromY: y(curve, number(end.value, curve.part) * curve.entry.factor),
          };
        });
      }),
  );

  return { hidden, normalised, speed, curves, start, perPixel, paths, keyPoints, handles };
}
