/** A number in −1…1 that depends on its arguments only; neighbouring arguments give unrelated numbers. */
export function noiseAt(seed: number, stream: number, index: number): number {
  let h =
    (Math.imul(seed | 0, 0x9e3779b1) ^ Math.imul(stream | 0, 0x85ebca77) ^ Math.imul(index | 0, 0xc2b2ae3d)) >>> 0;
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  h ^= h >>> 15;
  return ((h >>> 0) / 0xffffffff) * 2 - 1;
}

/** Seeded noise: a new target in ±amount every so many frames, gone to over the share `smooth` of that time. */
export interface Wander {
  amount: number;
  every: number;
  smooth: number;
  seed: number;
}

/**
 * Where a wandering number is at a frame, within ±amount.
 * @param stream tells the parts of a value apart (x, y)
 */
export function wanderAt({ amount, every, smooth, seed }: Wander, frame: number, stream = 0): number {
  const place = frame / every;
  const index = Math.floor(place);
  const from = noiseAt(seed, stream, index);
  if (smooth <= 0) return amount * from;
  const t = Math.min(1, Math.max(0, (place - index - (1 - smooth)) / smooth));
  return amount * (from + (noiseAt(seed, stream, index + 1) - from) * t * t * (3 - 2 * t));
}
