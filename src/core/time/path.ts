// The way of a position on the picture: Bézier spans between keyframes, walked by length.
import type { Key } from '../base/value';

type Point = [number, number];
const STEPS = 48;

interface Walk {
  to: Key<Point>;
  points: Point[];
  /** length up to each point */
  lengths: number[];
}
const walks = new WeakMap<Key<Point>, Walk>();

/** A point of the span from one keyframe to the next. @param t curve parameter 0…1 */
export function bentAt(from: Key<Point>, to: Key<Point>, t: number): Point {
  const u = 1 - t;
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  const axis = (i: 0 | 1) => {
    const start = from.value[i];
    const end = to.value[i];
    return (
      a * start +
      b * (start + (from.bend?.out[i] ?? (end - start) / 3)) +
      c * (end + (to.bend?.in[i] ?? (start - end) / 3)) +
      d * end
    );
  };
  return [axis(0), axis(1)];
}

function walk(from: Key<Point>, to: Key<Point>): Walk {
  const known = walks.get(from);
  if (known?.to === to) return known;
  const points = Array.from({ length: STEPS + 1 }, (_, i) => bentAt(from, to, i / STEPS));
  const lengths = [0];
  for (let i = 1; i <= STEPS; i++)
    lengths.push(lengths[i - 1]! + Math.hypot(points[i]![0] - points[i - 1]![0], points[i]![1] - points[i - 1]![1]));
  const made = { to, points, lengths };
  walks.set(from, made);
  return made;
}

/** Length of a span in pixels. */
export const spanLength = (from: Key<Point>, to: Key<Point>): number => walk(from, to).lengths[STEPS]!;

/** The point at a share of a span's length; shares outside 0…1 go on straight, so that overshoot is seen. */
export function walked(from: Key<Point>, to: Key<Point>, share: number): Point {
  const { points, lengths } = walk(from, to);
  const at = share * lengths[STEPS]!;
  let i = 1;
  while (i < STEPS && lengths[i]! < at) i++;
  const long = lengths[i]! - lengths[i - 1]!;
  const t = long > 0 ? (at - lengths[i - 1]!) / long : 0;
  const [p, q] = [points[i - 1]!, points[i]!];
  return [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
}

/** The point at a share of the whole path's length, whatever the keyframes' times are. */
export function walkedEvenly(keys: readonly Key<Point>[], share: number): Point {
  const lengths = keys.slice(1).map((to, i) => spanLength(keys[i]!, to));
  let left = share * lengths.reduce((sum, length) => sum + length, 0);
  let i = 0;
  while (i < lengths.length - 1 && left > lengths[i]!) left -= lengths[i++]!;
  return lengths[i]! > 0 ? walked(keys[i]!, keys[i + 1]!, left / lengths[i]!) : keys[i]!.value;
}
