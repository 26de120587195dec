import type { Motion } from './flow';

/** A matte of one frame moved to another by motion. @param motion from the other frame's pixels to this one's, at half size */
export function carriedMatte(matte: Uint8Array, w: number, h: number, motion: Motion): Uint8Array {
  const out = new Uint8Array(w * h);
  const last = { x: w - 1, y: h - 1 };
  for (let y = 0, at = 0; y < h; y++) {
    const v = Math.min(motion.h - 1, y >> 1);
    for (let x = 0; x < w; x++, at++) {
      const i = (v * motion.w + Math.min(motion.w - 1, x >> 1)) * 2;
      const u = Math.min(last.x, Math.max(0, x + 2 * motion.pairs[i]!));
      const t = Math.min(last.y, Math.max(0, y + 2 * motion.pairs[i + 1]!));
      const [x0, y0] = [Math.floor(u), Math.floor(t)];
      const [x1, y1] = [Math.min(last.x, x0 + 1), Math.min(last.y, y0 + 1)];
      const top = matte[y0 * w + x0]! + (matte[y0 * w + x1]! - matte[y0 * w + x0]!) * (u - x0);
      const low = matte[y1 * w + x0]! + (matte[y1 * w + x1]! - matte[y1 * w + x0]!) * (u - x0);
      out[at] = Math.round(top + (low - top) * (t - y0));
    }
  }
  return out;
}

/** How much two mattes are of one mind, 0…1: one less what they differ by, in relation to their soft and covered border. */
export function agreement(a: Uint8Array, b: Uint8Array, w: number): number {
  let [gap, border] = [0, 0];
  for (let i = w; i < a.length; i++) {
    gap += Math.abs(a[i]! - b[i]!);
    border += Math.abs(a[i]! - a[i - 1]!) + Math.abs(a[i]! - a[i - w]!);
  }
  // a border that has moved by three pixels counts as disagreement altogether
  return border ? Math.max(0, 1 - gap / (3 * border)) : gap ? 0 : 1;
}
