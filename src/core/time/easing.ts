import type { Ease } from '../base/value';

const coordinate = (a: number, b: number, t: number) => ((1 + 3 * a - 3 * b) * t + (3 * b - 6 * a)) * t * t + 3 * a * t;
const slope = (a: number, b: number, t: number) => (3 * (1 + 3 * a - 3 * b) * t + 2 * (3 * b - 6 * a)) * t + 3 * a;

/** The curve parameter at which x is reached, 0…1. Newton's steps, kept within a shrinking bracket. */
export function cubicParameter(x1: number, x2: number, x: number): number {
  let [low, high, t] = [0, 1, x];
  for (let i = 0; i < 60; i++) {
    const off = coordinate(x1, x2, t) - x;
    if (off > -1e-12 && off < 1e-12) break;
    if (off > 0) high = t;
    else low = t;
    const steep = slope(x1, x2, t);
    const next = steep > 1e-6 ? t - off / steep : -1;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}

/** Progress of a ball let fall from 0 onto 1 that comes back `times` times, half as long each time. */
function bounced(times: number, t: number): number {
  let whole = 1;
  for (let k = 1; k <= times; k++) whole += 2 * 0.5 ** k;
  let left = t * whole;
  if (left <= 1) return left * left;
  left -= 1;
  for (let k = 1; k <= times; k++) {
    const half = 0.5 ** k;
    if (left <= 2 * half) return 1 - (half * half - (left - half) ** 2);
    left -= 2 * half;
  }
  return 1;
}

/**
 * Progress 0…1 through a span → eased progress. `smooth` depends on the neighbours and is done in values.ts; alone it is linear.
 * Source: CSS Easing 1 for cubic handles: x of both in 0…1, y free.
 */
export function ease(kind: Ease, t: number): number {
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  if (kind === 'hold') return 0;
  if (kind === 'linear' || kind === 'smooth') return t;
  if ('bounce' in kind) return bounced(kind.bounce, t);
  const [x1, y1, x2, y2] = kind.cubic;
  return coordinate(y1, y2, cubicParameter(x1, x2, t));
}

/** Presets by strength 0…1. */
export const EASINGS = {
  in: (strength: number): Ease => ({ cubic: [strength, 0, 1, 1] }),
  out: (strength: number): Ease => ({ cubic: [0, 0, 1 - strength, 1] }),
  both: (strength: number): Ease => ({ cubic: [strength, 0, 1 - strength, 1] }),
  overshoot: (strength: number): Ease => ({ cubic: [0.3, 1 + strength, 0.6, 1] }),
};
