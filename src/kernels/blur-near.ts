// Gaussian blur of a small radius by its weights, which is quicker there than running sums.

const APART: usize = 192;

/** Weighted sum of one pixel and `r` pairs to its sides, of four pixels at a time. @param before, after of the pairs, nearest first */
// @ts-ignore: decorator
@inline
function pairSums(middle: usize, pairs: usize, r: i32, weights: usize, offset: usize, to: usize): void {
  const own = v128.load32_splat(weights);
  let a = f32x4.mul(v128.load(middle), own);
  let b = f32x4.mul(v128.load(middle, 16), own);
  let c = f32x4.mul(v128.load(middle, 32), own);
  let d = f32x4.mul(v128.load(middle, 48), own);
  for (let k = 0; k < r; k++, pairs += 8) {
    weights += 4;
    const weight = v128.load32_splat(weights);
    const before = <usize>load<u32>(pairs) + offset;
    const after = <usize>load<u32>(pairs, 4) + offset;
    a = f32x4.add(a, f32x4.mul(f32x4.add(v128.load(before), v128.load(after)), weight));
    b = f32x4.add(b, f32x4.mul(f32x4.add(v128.load(before, 16), v128.load(after, 16)), weight));
    c = f32x4.add(c, f32x4.mul(f32x4.add(v128.load(before, 32), v128.load(after, 32)), weight));
    d = f32x4.add(d, f32x4.mul(f32x4.add(v128.load(before, 48), v128.load(after, 48)), weight));
  }
  v128.store(to, a);
  v128.store(to, b, 16);
  v128.store(to, c, 32);
  v128.store(to, d, 48);
}

/** Row y of the ring, the border rows standing for those beyond, or the clear row. */
// @ts-ignore: decorator
@inline
function ringRow(ring: usize, line: usize, count: i32, y: i32, h: i32, extend: i32): u32 {
  if (!extend && <u32>y >= <u32>h) return <u32>(ring + line * <usize>count);
  return <u32>(ring + line * <usize>(min(max(y, 0), h - 1) % count));
}

/**
 * Blurs along rows and columns in one go; the rows that are done wait in a ring until those above and below them are.
 * @param dst may be src @param r pixels to each side, ≥ 1 @param weights r+1 floats, the middle one first, all 2r+1 adding up to 1
 * @param extend 1 = beyond the picture its border repeats, 0 = beyond it is clear
 * @param scratch (2r+4)·(w+2r+16) v128 and 2r+2 floats
 */
export function blurNear(src: usize, dst: usize, w: i32, h: i32, r: i32, weights: usize, extend: i32, scratch: usize): void {
  const count = r + r + 1;
  const length = <usize>w << 4;
  const wide = <usize>((w + 3) & ~3) << 4;
  // rows of a round length would all fall on the same few lines of the cache
  const line = wide + APART;
  const pairs = scratch;
  const padded = pairs + (<usize>((r + 1) & ~1) << 3);
  const ring = padded + wide + (<usize>r << 5);
  memory.fill(ring, 0, line * <usize>(count + 1));
  const first = padded + (<usize>r << 4);
  for (let y = 0, next = 0; y < h; y++) {
    for (; next <= min(y + r, h - 1); next++) {
      const row = src + length * <usize>next;
      memory.copy(first, row, length);
      const left = extend ? v128.load(row) : f32x4.splat(0);
      const right = extend ? v128.load(row + length - 16) : f32x4.splat(0);
      for (let k = 0; k < r; k++) {
        v128.store(padded + (<usize>k << 4), left);
        v128.store(first + length + (<usize>k << 4), right);
        store<u32>(pairs + (<usize>k << 3), <u32>(first - (<usize>(k + 1) << 4)));
        store<u32>(pairs + (<usize>k << 3), <u32>(first + (<usize>(k + 1) << 4)), 4);
      }
      const to = ring + line * <usize>(next % count);
      for (let x: usize = 0; x < wide; x += 64) pairSums(first + x, pairs, r, weights, x, to + x);
    }
    for (let k = 0; k < r; k++) {
      store<u32>(pairs + (<usize>k << 3), ringRow(ring, line, count, y - k - 1, h, extend));
      store<u32>(pairs + (<usize>k << 3), ringRow(ring, line, count, y + k + 1, h, extend), 4);
    }
    const own = <usize>ringRow(ring, line, count, y, h, extend);
    const to = dst + length * <usize>y;
    let x: usize = 0;
    for (; x + 64 <= length; x += 64) pairSums(own + x, pairs, r, weights, x, to + x);
    if (x < length) {
      // the last few pixels by way of the padded row, so that nothing is written past the end
      pairSums(own + x, pairs, r, weights, x, padded);
      memory.copy(to + x, padded, length - x);
    }
  }
}
