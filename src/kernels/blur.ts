// Gaussian blur as three running box sums in each direction, with fractional box ends so that every radius is exact.
// Source: Kovesi 2010, "Fast almost-Gaussian filtering"; fractional ends after Gwosdek et al. 2011.

/** Where pixel i of a line of n lies, or the end pixel of the line nearest to it. */
// @ts-ignore: decorator
@inline
function at(line: usize, step: usize, n: i32, i: i32): usize {
  return line + step * <usize>min(max(i, 0), n - 1);
}

/**
 * One running box over four lines at once: each pixel waits for the one before it, but lines do not wait for each other.
 * Box: 2r+1 whole pixels and the fraction `ends` of one more on each side.
 * @param srcApart, dstApart bytes from a line to the next; 0 does the same line four times @param srcStep, dstStep bytes from a pixel of a line to the next
 * @param extend 1 = beyond the line its end pixels repeat, 0 = beyond it is clear
 */
function boxLines(src: usize, srcApart: usize, srcStep: usize, dst: usize, dstApart: usize, dstStep: usize, n: i32, r: i32, ends: f32, extend: i32): void {
  const share = f32x4.splat(<f32>1.0 / (f32(r + r + 1) + <f32>2.0 * ends));
  const tip = f32x4.splat(ends);
  const src2 = srcApart * 2;
  const src3 = srcApart * 3;
  const dst2 = dstApart * 2;
  const dst3 = dstApart * 3;
  let sum0 = f32x4.splat(0);
  let sum1 = sum0;
  let sum2 = sum0;
  let sum3 = sum0;
  for (let i = -r; i <= r; i++) {
    if (!extend && <u32>i >= <u32>n) continue;
    const p = at(src, srcStep, n, i);
    sum0 = f32x4.add(sum0, v128.load(p));
    sum1 = f32x4.add(sum1, v128.load(p + srcApart));
    sum2 = f32x4.add(sum2, v128.load(p + src2));
    sum3 = f32x4.add(sum3, v128.load(p + src3));
  }
  // beyond a line that does not go on nothing counts
  const before = at(src, srcStep, n, -r - 1);
  const there = f32x4.splat(<f32>extend);
  let before0 = f32x4.mul(v128.load(before), there);
  let before1 = f32x4.mul(v128.load(before + srcApart), there);
  let before2 = f32x4.mul(v128.load(before + src2), there);
  let before3 = f32x4.mul(v128.load(before + src3), there);
  for (let i = 0; i < n; i++, dst += dstStep) {
    const p = at(src, srcStep, n, i + r + 1);
    let next0 = v128.load(p);
    let next1 = v128.load(p + srcApart);
    let next2 = v128.load(p + src2);
    let next3 = v128.load(p + src3);
    if (!extend && i + r + 1 >= n) next0 = next1 = next2 = next3 = f32x4.splat(0);
    v128.store(dst, f32x4.mul(f32x4.add(sum0, f32x4.mul(f32x4.add(before0, next0), tip)), share));
    v128.store(dst + dstApart, f32x4.mul(f32x4.add(sum1, f32x4.mul(f32x4.add(before1, next1), tip)), share));
    v128.store(dst + dst2, f32x4.mul(f32x4.add(sum2, f32x4.mul(f32x4.add(before2, next2), tip)), share));
    v128.store(dst + dst3, f32x4.mul(f32x4.add(sum3, f32x4.mul(f32x4.add(before3, next3), tip)), share));
    const q = at(src, srcStep, n, i - r);
    before0 = v128.load(q);
    before1 = v128.load(q + srcApart);
    before2 = v128.load(q + src2);
    before3 = v128.load(q + src3);
    if (!extend && i < r) before0 = before1 = before2 = before3 = f32x4.splat(0);
    sum0 = f32x4.sub(f32x4.add(sum0, next0), before0);
    sum1 = f32x4.sub(f32x4.add(sum1, next1), before1);
    sum2 = f32x4.sub(f32x4.add(sum2, next2), before2);
    sum3 = f32x4.sub(f32x4.add(sum3, next3), before3);
  }
}

/** All three boxes over lines, in place or not. @param scratch eight lines of n pixels */
function blurLines(src: usize, dst: usize, apart: usize, step: usize, n: i32, r: i32, ends1: f32, ends2: f32, ends3: f32, extend: i32, scratch: usize): void {
  const other = scratch + (<usize>n << 6);
  boxLines(src, apart, step, scratch, 16, 64, n, r, ends1, extend);
  boxLines(scratch, 16, 64, other, 16, 64, n, r, ends2, extend);
  boxLines(other, 16, 64, dst, apart, step, n, r, ends3, extend);
}

/**
 * Blurs every row. @param scratch eight lines of w pixels @param r, ends1, ends2, ends3 the three boxes, as in boxLines
 */
export function blurRows(src: usize, dst: usize, w: i32, h: i32, r: i32, ends1: f32, ends2: f32, ends3: f32, extend: i32, scratch: usize): void {
  const line = <usize>w << 4;
  let y = 0;
  for (; y + 4 <= h; y += 4) blurLines(src + line * <usize>y, dst + line * <usize>y, line, 16, w, r, ends1, ends2, ends3, extend, scratch);
  for (; y < h; y++) blurLines(src + line * <usize>y, dst + line * <usize>y, 0, 16, w, r, ends1, ends2, ends3, extend, scratch);
}

/** Columns that are taken out of a picture together: as wide as two lines of the cache, since rows lie far apart. */
const STRIP: i32 = 8;

/** Blurs every column in place, a strip at a time. @param scratch sixteen columns of h pixels */
export function blurColumns(at: usize, w: i32, h: i32, r: i32, ends1: f32, ends2: f32, ends3: f32, extend: i32, scratch: usize): void {
  const line = <usize>w << 4;
  const room = scratch + <usize>h * 128;
  for (let x = 0; x < w; x += STRIP) {
    const wide = <usize>min(STRIP, w - x) << 4;
    const strip = at + (<usize>x << 4);
    for (let y = 0; y < h; y++) moved(scratch + <usize>y * 128, strip + line * <usize>y, wide);
    for (let half: usize = 0; half < wide; half += 64)
      blurLines(scratch + half, scratch + half, 16, 128, h, r, ends1, ends2, ends3, extend, room);
    for (let y = 0; y < h; y++) moved(strip + line * <usize>y, scratch + <usize>y * 128, wide);
  }
}

// @ts-ignore: decorator
@inline
function moved(to: usize, from: usize, bytes: usize): void {
  for (let i: usize = 0; i < bytes; i += 16) v128.store(to + i, v128.load(from + i));
}
