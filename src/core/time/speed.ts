// How a layer's own time runs: source frames are the integral of speed over layer frames.
import type { Key, Value } from '../base/value';
import { cubicParameter } from './easing';
import { steadyAt } from './values';

/** Nodes and weights on 0…1 of Gauss–Legendre's rule, exact up to degree 5. */
const NODES = [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)] as const;
const WEIGHTS = [5 / 18, 8 / 18, 5 / 18] as const;

/** ∫ speed from a to b within one span. */
function spanIntegral(value: Value<number>, from: Key<number>, to: Key<number>, a: number, b: number): number {
  const gauss = (f: (t: number) => number, start: number, end: number) =>
    (end - start) * NODES.reduce((sum, node, i) => sum + WEIGHTS[i]! * f(start + node * (end - start)), 0);
  const kind = from.ease;
  if (kind === 'hold') return from.value * (b - a);
  if (typeof kind === 'object' && 'cubic' in kind) {
    // with the curve's own parameter s: ∫ v dt = ∫ v(s) x'(s) ds, a polynomial of degree five
    const [x1, y1, x2, y2] = kind.cubic;
    const long = to.at - from.at;
    const y = (s: number) => 3 * y1 * s * (1 - s) ** 2 + 3 * y2 * s * s * (1 - s) + s ** 3;
    const dx = (s: number) => 3 * x1 * (1 - s) * (1 - 3 * s) + 3 * x2 * s * (2 - 3 * s) + 3 * s * s;
    const at = (frame: number) => cubicParameter(x1, x2, (frame - from.at) / long);
    return gauss((s) => (from.value + (to.value - from.value) * y(s)) * dx(s) * long, at(a), at(b));
  }
  const speed = (frame: number) => steadyAt(value, frame);
  if (typeof kind === 'string') return gauss(speed, a, b); // linear and smooth are cubics of time at most
  // a bounce is made of parabolas: pieces so short that a kink inside one weighs nothing
  const pieces = Math.max(1, Math.ceil((b - a) * 64));
  let sum = 0;
  for (let i = 0; i < pieces; i++) sum += gauss(speed, a + ((b - a) * i) / pieces, a + ((b - a) * (i + 1)) / pieces);
  return sum;
}

/** Source frames that pass from layer frame 0 to `frame` (which may be a fraction, or negative). Jitter does not count. */
export function sourceFramesTo(speed: Value<number>, frame: number): number {
  if ('still' in speed) return speed.still * frame;
  if (frame < 0) return -integral(speed, frame, 0);
  return integral(speed, 0, frame);
}

/** Source frame that shows at a layer frame. */
export const sourceFrameAt = ({ offset, speed }: { offset: number; speed: Value<number> }, frame: number): number =>
  offset + sourceFramesTo(speed, frame);

function integral(speed: Value<number> & { keys: Key<number>[] }, a: number, b: number): number {
  const { keys } = speed;
  const first = keys[0]!;
  const last = keys[keys.length - 1]!;
  let sum = first.value * Math.max(0, Math.min(b, first.at) - a);
  sum += last.value * Math.max(0, b - Math.max(a, last.at));
  for (let i = 0; i + 1 < keys.length; i++) {
    const [from, to] = [Math.max(a, keys[i]!.at), Math.min(b, keys[i + 1]!.at)];
    if (to > from) sum += spanIntegral(speed, keys[i]!, keys[i + 1]!, from, to);
  }
  return sum;
}

/**
 * Layer frames that it takes until `frames` source frames have gone by, forwards or backwards.
 * @returns whole frames, at least 1; null when that many are not reached within `most`
 */
export function lengthFor(speed: Value<number>, frames: number, most: number): number | null {
  if ('still' in speed) return speed.still === 0 ? null : Math.max(1, Math.round(Math.abs(frames / speed.still)));
  for (let length = 1, reached = 0; length <= most; length++) {
    reached += integral(speed, length - 1, length);
    if (Math.abs(reached) >= Math.abs(frames) - 1e-6) return length;
  }
  return null;
}
