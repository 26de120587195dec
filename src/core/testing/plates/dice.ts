// Seeded chance and noise.

/** A source of numbers 0…1. Source: mulberry32, public domain. */
export function diceOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
export const between = (dice: () => number, low: number, high: number): number => low + (high - low) * dice();
export const oneOf = <T>(dice: () => number, list: readonly T[]): T => list[Math.floor(dice() * list.length)]!;
/** Numbers about 0 with a standard deviation of 1. */
export const gauss = (dice: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - dice())) * Math.cos(2 * Math.PI * dice());

/** Smooth noise of several octaves about 0, −1…1, of places in pixels. @param cell size of the coarsest grain @param rough weight of each finer octave */
export function cloud(seed: number, cell: number, octaves: number, rough: number): (x: number, y: number) => number {
  const at = (i: number, j: number, k: number) => {
    let n = Math.imul(i, 374761393) + Math.imul(j, 668265263) + Math.imul(k + seed, 2246822519);
    n = Math.imul(n ^ (n >>> 13), 1274126177);
    return ((n ^ (n >>> 16)) >>> 0) / 2147483648 - 1;
  };
  const total = Array.from({ length: octaves }, (_, k) => rough ** k).reduce((sum, v) => sum + v, 0);
  return (x, y) => {
    let sum = 0;
    for (let k = 0, size = cell, weight = 1; k < octaves; k++, size /= 2, weight *= rough) {
      const [u, v] = [x / size, y / size];
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const smooth = (t: number) => t * t * (3 - 2 * t);
      const [fx, fy] = [smooth(u - i), smooth(v - j)];
      const upper = at(i, j, k) + (at(i + 1, j, k) - at(i, j, k)) * fx;
      const lower = at(i, j + 1, k) + (at(i + 1, j + 1, k) - at(i, j + 1, k)) * fx;
      sum += (upper + (lower - upper) * fy) * weight;
    }
    return sum / total;
  };
}
