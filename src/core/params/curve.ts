import { z } from 'zod';
import { hermite, slopeAt } from '../base/monotone';
import { lookOf } from '../base/hue';
import { defineKind, type Declared, type ParamBase } from './define';

/** A point that a curve goes through: what comes in, and what becomes of it. */
export type CurvePoint = readonly [from: number, to: number];

/** What becomes of each value 0…1: a smooth curve through points that never overshoots between them. */
export interface CurveParam extends ParamBase<readonly CurvePoint[]> {
  kind: 'curve';
  default: readonly CurvePoint[];
  /** drawn in this colour; plain when left out */
  tone?: 'red' | 'green' | 'blue';
  /** what lies along it, when it says how much is changed rather than what becomes of a value */
  over?: 'hue' | 'brightness' | 'saturation' | 'life';
  /** its heights are shares 0…1, and this word stands between a place and its share; when left out they are changes */
  heights?: 'belongs by' | 'is';
}
export const curve = (p: Declared<CurveParam>): CurveParam => ({ kind: 'curve', ...p });

/** The curve that changes nothing. */
export const STRAIGHT: readonly CurvePoint[] = [
  [0, 0],
  [1, 1],
];
/** The curve of a change that changes nothing. */
export const FLAT: readonly CurvePoint[] = [
  [0, 0.5],
  [1, 0.5],
];
export const isFlat = (points: readonly CurvePoint[]): boolean => points.every(([, to]) => to === 0.5);
export const isStraight = (points: readonly CurvePoint[]): boolean => points.every(([from, to]) => from === to);
/** Most points of a curve, and how near they may come to each other. */
export const MOST_POINTS = 16;
export const NEAREST = 1 / 256;

/** What a curve makes of a value. Before its first point it is even; beyond its last it goes on as steeply as light itself. */
export const curveAt = (points: readonly CurvePoint[], x: number): number => curveOf(points)(x);
/** The same for many values. */
export function curveOf(points: readonly CurvePoint[]): (x: number) => number {
  const places = points.map(([from]) => from);
  const values = points.map(([, to]) => to);
  const all = { n: points.length, at: (k: number) => places[k]!, value: (k: number) => values[k]! };
  const slopes = points.map((_, i) => slopeAt(all, i));
  const last = points.length - 1;
  return (x) => {
    if (x <= places[0]!) return values[0]!;
    if (x >= places[last]!) return values[last]! + Math.max(0, x - Math.max(1, places[last]!));
    let i = 0;
    while (places[i + 1]! <= x) i++;
    const from = places[i]!;
    const long = places[i + 1]! - from;
    return hermite(values[i]!, values[i + 1]!, slopes[i]! * long, slopes[i + 1]! * long, (x - from) / long);
  };
}

/** Where a colour lies along a curve: its own channel, or what the curve is over; a life has no place for it. @param colour display-encoded */
export function placeOn(
  { over, tone }: { over?: Exclude<CurveParam['over'], 'life'>; tone?: CurveParam['tone'] },
  colour: readonly [number, number, number],
): number {
  const { hue, saturation, luma } = lookOf(colour);
  if (over) return { hue, saturation, brightness: luma }[over];
  return tone ? colour[{ red: 0, green: 1, blue: 2 }[tone]]! : luma;
}
/** How far about a picked hue its neighbours are held, in turns. */
const HELD = 0.09;
/**
 * The points with one more on the curve at a place; null when it has enough, or one is there already.
 * @param hue it is a hue: what lies beside it is held as it is by two further points
 */
export function withPointAt(points: readonly CurvePoint[], place: number, hue = false): CurvePoint[] | null {
  const inTurn = (x: number) => x - Math.floor(x);
  const wanted = hue ? [place, inTurn(place - HELD), inTurn(place + HELD)] : [place];
  let now: readonly CurvePoint[] = points;
  for (const [i, at] of wanted.entries()) {
    const x = Math.min(1, Math.max(0, Math.round(at * 1000) / 1000));
    if (now.length >= MOST_POINTS || now.some(([from]) => Math.abs(from - x) < 2 * NEAREST)) {
      if (i === 0) return null;
      continue;
    }
    const to = Math.min(1, Math.max(0, Math.round(curveAt(points, x) * 1000) / 1000));
    now = [...now, [x, to] as const].sort(([p], [q]) => p - q);
  }
  return [...now];
}

const share = z.number().min(0).max(1);

export const curveKind = defineKind<CurveParam>({
  kind: 'curve',
  schema: () =>
    z
      .array(z.tuple([share, share]))
      .min(2)
      .max(MOST_POINTS)
      .refine((points) => points.every(([x], i) => i === 0 || points[i - 1]![0] < x), 'points must ascend'),
  range: () => `2 to ${MOST_POINTS} points`,
});
