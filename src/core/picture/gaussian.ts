import type { Arena } from './arena';
import type { Kernels } from './kernels';

/** Half-width of the boxes, and for each of the three the fraction of one more pixel on both sides. */
export interface Boxes {
  r: number;
  ends: readonly [number, number, number];
}

/**
 * Three boxes that one after the other make a Gaussian: each is 2r+1 whole pixels and a fraction of one more on each side,
 * their variances add up to σ² exactly. Below one pixel three like boxes are too flat in the middle, so there they are
 * chosen to have the Gaussian's fourth cumulant (none) as well.
 * @param sigma standard deviation in pixels, > 0
 * Source: Kovesi 2010; fractional ends after Gwosdek et al. 2011.
 */
export function boxesFor(sigma: number): Boxes {
  const variance = (sigma * sigma) / 3;
  if (sigma < 1) return { r: 0, ends: smallEnds(sigma * sigma) };
  const r = Math.floor((Math.sqrt(12 * variance + 1) - 1) / 2);
  const n = 2 * r + 1;
  const whole = (r * (r + 1) * n) / 3;
  const ends = (variance * n - whole) / (2 * ((r + 1) ** 2 - variance));
  return { r, ends: [ends, ends, ends] };
}

/** Side weights p of three kernels [p, 1−2p, p] with Σ2p = σ² and Σ(2p − 12p²) = 0 where that has a solution, as fractions of the middle. */
function smallEnds(variance: number): [number, number, number] {
  const sum = variance / 2;
  const solvable = variance >= 1 / 3;
  const a = solvable ? (4 * sum - Math.sqrt(Math.max(0, 2 * variance - 8 * sum * sum))) / 12 : sum / 3;
  const fraction = (p: number) => Math.max(0, p / (1 - 2 * p));
  return [fraction(a), fraction(a), fraction(sum - 2 * a)];
}

/** Up to this radius a picture is blurred by the Gaussian's own weights; from there on three boxes are quicker. */
const NEAR = 3;

/** Half of the weights, the middle first, of three boxes [p, 1, p] after each other; all of them add up to 1. */
function smallWeights(ends: readonly number[]): number[] {
  const all = ends.reduce<number[]>(
    (sofar, end) => {
      const [side, middle] = [end / (1 + 2 * end), 1 / (1 + 2 * end)];
      const at = (i: number) => sofar[i] ?? 0;
      return Array.from({ length: sofar.length + 2 }, (_, i) => side * (at(i) + at(i - 2)) + middle * at(i - 1));
    },
    [1],
  );
  return all.slice((all.length - 1) / 2);
}

/** Half of a Gaussian's weights, the middle first, cut off at three standard deviations; all of them add up to 1. */
function weightsFor(sigma: number): number[] {
  if (sigma < 1) return smallWeights(boxesFor(sigma).ends);
  const half = Array.from({ length: Math.ceil(3 * sigma) + 1 }, (_, i) => Math.exp(-(i * i) / (2 * sigma * sigma)));
  const whole = 2 * half.reduce((sum, v) => sum + v) - half[0]!;
  return half.map((v) => v / whole);
}

/**
 * Gaussian blur of w×h premultiplied pixels. Error against a true Gaussian ≤ 1 % of range.
 * @param to may be `from` @param sigma in pixels, > 0 @param extend beyond the picture its border repeats, otherwise it is clear there
 */
export function gaussian(
  { kernels, arena }: { kernels: Kernels; arena: Arena },
  from: number,
  to: number,
  w: number,
  h: number,
  sigma: number,
  extend: boolean,
): void {
  if (sigma <= NEAR) {
    const weights = weightsFor(sigma);
    const r = weights.length - 1;
    const room = (2 * r + 4) * (w + 2 * r + 16) * 16;
    return arena.scratch(room + 64 + r * 16, (at) => {
      arena.floats(at, r + 1).set(weights);
      kernels.blurNear(from, to, w, h, r, at, extend ? 1 : 0, at + 16 * Math.ceil((r + 1) / 4));
    });
  }
  const { r, ends } = boxesFor(sigma);
  arena.scratch(16 * Math.max(w, h) * 16, (lines) => {
    kernels.blurRows(from, to, w, h, r, ...ends, extend ? 1 : 0, lines);
    kernels.blurColumns(to, w, h, r, ...ends, extend ? 1 : 0, lines);
  });
}
