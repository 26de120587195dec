import type { Ease } from '../document/value';

const coordinate = (a: number, b: number, t: number) => ((1 + 3 * a - 3 * b) * t + (3 * b - 6 * a)) * t * t + 3 * a * t;

/**
 * Progress 0…1 through a span → eased progress.
 * Cubic handles follow CSS Easing 1: x of both handles in 0…1, y free.
 */
export function ease(kind: Ease, t: number): number {
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  if (kind === 'hold') return 0;
  if (kind === 'linear') return t;
  const [x1, y1, x2, y2] = kind.cubic;
  let low = 0;
  let high = 1;
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (coordinate(x1, x2, middle) < t) low = middle;
    else high = middle;
  }
  return coordinate(y1, y2, (low + high) / 2);
}
