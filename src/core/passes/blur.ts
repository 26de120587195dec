import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { choice, definePass, number } from './define';

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

/** Gaussian blur on premultiplied values. Error against a true Gaussian ≤ 1 % of range. */
export const blur = definePass({
  type: 'blur',
  title: 'Blur',
  group: 'focus',
  words: ['soften', 'out of focus', 'gaussian', 'defocus', 'smooth'],
  help: 'Softens the picture evenly. The radius is the standard deviation of a Gaussian.',
  params: {
    radius: number({ label: 'Radius', unit: 'px', default: 8, min: 0, max: 1000, slider: [0, 100], help: 'Standard deviation of the Gaussian; twice this is about the width of the softness.' }),
    edges: choice({
      label: 'Edges',
      default: 'extend',
      options: [{ value: 'extend', label: 'extend the border' }, { value: 'fade', label: 'fade to clear' }],
      help: 'What lies beyond the picture: its border repeated, or nothing.',
    }),
  },
  idle: (v) => v.radius < 0.05,
  reach: (v) => Math.ceil(v.radius * 3),
  run(picture, v, { kernels, arena, scratch }) {
    const fade = v.edges === 'fade';
    const { r, ends } = boxesFor(v.radius);
    const rect = fade ? grow(picture.rect, Math.ceil(v.radius * 3)) : picture.rect;
    const { w, h } = rect;
    const lines = scratch(Math.max(2 * w, 6 * h) * 16);
    const out = Picture.make(arena, rect);
    let from = picture.at;
    if (fade) {
      from = out.at;
      kernels.fill(out.at, w * h, 0, 0, 0, 0);
      const inset = rect.w - picture.rect.w;
      for (let y = 0; y < picture.rect.h; y++) {
        kernels.copy(picture.row(y), out.row(y + inset / 2) + (inset / 2) * 16, picture.rect.w);
      }
    }
    kernels.blurRows(from, out.at, w, h, r, ...ends, fade ? 0 : 1, lines);
    kernels.blurColumns(out.at, w, h, r, ...ends, fade ? 0 : 1, lines);
    return out;
  },
});
