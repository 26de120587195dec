// A plane of luma, and what is seen of it where it is flat.

export interface SeenPlane {
  /** w×h values 0…1, display-encoded */
  luma: Float32Array;
  /** 1 where it counts */
  inside: Uint8Array;
  w: number;
  h: number;
}

export const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;

/** Side of the tiles that are looked at. */
const TILE = 8;
/** Of the medians that tiles have of something, the one below which a share of them lies: noise, where a picture has few edges. 0 where none tells. */
export function medianWhereFlat({ inside, w, h }: SeenPlane, share: number, of: (i: number) => number): number {
  const tiles: number[] = [];
  for (let top = 1; top + TILE < h; top += TILE) {
    for (let left = 1; left + TILE < w; left += TILE) {
      const own: number[] = [];
      for (let y = top; y < top + TILE; y++)
        for (let x = left; x < left + TILE; x++) {
          const i = y * w + x;
          if (inside[i] && inside[i - w - 1] && inside[i + w + 1]) own.push(Math.abs(of(i)));
        }
      if (own.length < (TILE * TILE) / 2) continue;
      own.sort((a, b) => a - b);
      // what clips has nothing to see
      const middle = quantile(own, 0.5);
      if (middle > 0) tiles.push(middle);
    }
  }
  if (!tiles.length) return 0;
  tiles.sort((a, b) => a - b);
  return quantile(tiles, share);
}

/** A plane blurred by a Gaussian, border repeated. */
export function blurred(plane: Float32Array, w: number, h: number, sigma: number): Float32Array {
  const reach = Math.ceil(3 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)));
  const whole = weights.reduce((sum, v) => sum + v);
  const held = (v: number, n: number) => Math.min(n - 1, Math.max(0, v));
  const along = (from: Float32Array, at: (x: number, y: number, k: number) => number) => {
    const out = new Float32Array(w * h);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++) sum += weights[k + reach]! * from[at(x, y, k)]!;
        out[y * w + x] = sum / whole;
      }
    return out;
  };
  const rows = along(plane, (x, y, k) => y * w + held(x + k, w));
  return along(rows, (x, y, k) => held(y + k, h) * w + x);
}
