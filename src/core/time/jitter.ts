import type { Jitter } from '../document/value';

/** A number in −1…1 that depends on its arguments only; neighbouring arguments give unrelated numbers. */
export function noiseAt(seed: number, stream: number, index: number): number {
  let h =
    (Math.imul(seed | 0, 0x9e3779b1) ^ Math.imul(stream | 0, 0x85ebca77) ^ Math.imul(index | 0, 0xc2b2ae3d)) >>> 0;
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  h ^= h >>> 15;
  return ((h >>> 0) / 0xffffffff) * 2 - 1;
}

/**
 * What jitter adds at a frame, within ±amount. It holds each target and goes to the next over the share `smooth` of the time.
 * @param stream tells the parts of a value apart (x, y)
 */
export function jitterAt({ amount, every, smooth, seed }: Jitter, frame: number, stream = 0): number {
  const place = frame / every;
  const index = Math.floor(place);
  const from = noiseAt(seed, stream, index);
  if (smooth <= 0) return amount * from;
  const t = Math.min(1, Math.max(0, (place - index - (1 - smooth)) / smooth));
  return amount * (from + (noiseAt(seed, stream, index + 1) - from) * t * t * (3 - 2 * t));
}
