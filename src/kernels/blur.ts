// Gaussian blur as three running box sums in each direction, with fractional box ends so that every radius is exact.
// Source: Kovesi 2010, "Fast almost-Gaussian filtering"; fractional ends after Gwosdek et al. 2011.

/**
 * One running box over a line of pixels. Box: 2r+1 whole pixels and the fraction `ends` of one more on each side.
 * @param extend 1 = beyond the line its end pixels repeat, 0 = beyond it is clear
 */
// @ts-ignore: decorator
@inline
function boxLine(src: usize, dst: usize, n: i32, r: i32, ends: f32, extend: i32): void {
  const share = f32x4.splat(<f32>1.0 / (f32(r + r + 1) + <f32>2.0 * ends));
  const tip = f32x4.splat(ends);
  let sum = f32x4.splat(0);
  for (let i = -r; i <= r; i++) sum = f32x4.add(sum, pixel(src, n, i, extend));
  let before = pixel(src, n, -r - 1, extend);
  // in the middle both ends of the box lie inside the line
  const middle = min(r, n);
  const late = max(middle, n - r - 1);
  for (let i = 0; i < n; i++) {
    if (i == middle) {
      let ahead = src + (<usize>(i + r + 1) << 4);
      let behind = src + (<usize>(i - r) << 4);
      let to = dst + (<usize>i << 4);
      for (; i < late; i++, ahead += 16, behind += 16, to += 16) {
        const next = v128.load(ahead);
        v128.store(to, f32x4.mul(f32x4.add(sum, f32x4.mul(f32x4.add(before, next), tip)), share));
        before = v128.load(behind);
        sum = f32x4.sub(f32x4.add(sum, next), before);
      }
      if (i >= n) break;
    }
    const after = inside(src, n, i + r + 1, extend);
    const out = f32x4.add(sum, f32x4.mul(f32x4.add(before, after), tip));
    v128.store(dst + (<usize>i << 4), f32x4.mul(out, share));
    before = inside(src, n, i - r, extend);
    sum = f32x4.sub(f32x4.add(sum, after), before);
  }
}

// @ts-ignore: decorator
@inline
function pixel(src: usize, n: i32, i: i32, extend: i32): v128 {
  if (i >= 0 && i < n) return v128.load(src + (<usize>i << 4));
  return extend ? v128.load(src + (<usize>min(max(i, 0), n - 1) << 4)) : f32x4.splat(0);
}

// @ts-ignore: decorator
@inline
function inside(src: usize, n: i32, i: i32, extend: i32): v128 {
  if (<u32>i < <u32>n) return v128.load(src + (<usize>i << 4));
  return extend ? v128.load(src + (<usize>(i < 0 ? 0 : n - 1) << 4)) : f32x4.splat(0);
}

/**
 * Blurs every row. @param scratch two lines of w pixels @param r, ends1, ends2, ends3 the three boxes, as in boxLine
 */
export function blurRows(src: usize, dst: usize, w: i32, h: i32, r: i32, ends1: f32, ends2: f32, ends3: f32, extend: i32, scratch: usize): void {
  const line = <usize>w << 4;
  const other = scratch + line;
  for (let y = 0; y < h; y++) {
    boxLine(src, scratch, w, r, ends1, extend);
    boxLine(scratch, other, w, r, ends2, extend);
    boxLine(other, dst, w, r, ends3, extend);
    src += line;
    dst += line;
  }
}

/**
 * Blurs every column in place, one narrow strip at a time so that the strip stays in the cache.
 * @param scratch six columns of h pixels
 */
export function blurColumns(at: usize, w: i32, h: i32, r: i32, ends1: f32, ends2: f32, ends3: f32, extend: i32, scratch: usize): void {
  const line = <usize>w << 4;
  const column = <usize>h << 4;
  const STRIP = 4;
  for (let x = 0; x < w; x += STRIP) {
    const wide = min(STRIP, w - x);
    const strip = at + (<usize>x << 4);
    const store = scratch + column * 2;
    for (let y = 0; y < h; y++) {
      const row = strip + line * <usize>y;
      for (let k = 0; k < wide; k++) {
        v128.store(store + column * <usize>k + (<usize>y << 4), v128.load(row + (<usize>k << 4)));
      }
    }
    for (let k = 0; k < wide; k++) {
      const own = store + column * <usize>k;
      boxLine(own, scratch, h, r, ends1, extend);
      boxLine(scratch, scratch + column, h, r, ends2, extend);
      boxLine(scratch + column, own, h, r, ends3, extend);
    }
    for (let y = 0; y < h; y++) {
      const row = strip + line * <usize>y;
      for (let k = 0; k < wide; k++) {
        v128.store(row + (<usize>k << 4), v128.load(store + column * <usize>k + (<usize>y << 4)));
      }
    }
  }
}
