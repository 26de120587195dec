import { boxesFor } from '../picture/gaussian';

/** Gaussian blur of a plane in place, its border repeated. Three boxes with fractional ends, as the blur pass. */
export function blurPlane(plane: Float32Array, w: number, h: number, sigma: number): void {
  const { r, ends } = boxesFor(sigma);
  blurLines(plane, w, h, r, ends);
  const turned = transposed(plane, w, h);
  blurLines(turned, h, w, r, ends);
  plane.set(transposed(turned, h, w));
}

/** Blurs lines of n values one after the other. */
function blurLines(plane: Float32Array, n: number, lines: number, r: number, ends: readonly number[]): void {
  const room = r + 1;
  const from = new Float32Array(n + 2 * room);
  const to = new Float32Array(n);
  for (let l = 0; l < lines; l++) {
    const start = l * n;
    to.set(plane.subarray(start, start + n));
    for (const end of ends) {
      from.fill(to[0]!, 0, room);
      from.set(to, room);
      from.fill(to[n - 1]!, room + n);
      const weight = 1 / (2 * r + 1 + 2 * end);
      let sum = 0;
      for (let i = 1; i <= 2 * r + 1; i++) sum += from[i]!;
      for (let i = 0; i < n; i++) {
        to[i] = (sum + end * (from[i]! + from[i + 2 * room]!)) * weight;
        sum += from[i + 2 * room]! - from[i + 1]!;
      }
    }
    plane.set(to, start);
  }
}

/** Side of the blocks in which a plane is turned, so that both ways stay in the cache. */
const BLOCK = 32;
function transposed(plane: Float32Array, w: number, h: number): Float32Array {
  const out = new Float32Array(plane.length);
  for (let y0 = 0; y0 < h; y0 += BLOCK) {
    for (let x0 = 0; x0 < w; x0 += BLOCK) {
      const [y1, x1] = [Math.min(h, y0 + BLOCK), Math.min(w, x0 + BLOCK)];
      for (let y = y0; y < y1; y++) for (let x = x0; x < x1; x++) out[x * h + y] = plane[y * w + x]!;
    }
  }
  return out;
}
