// Pictures moved by parts of a pixel, and pictures enlarged by whole numbers: weights that are the same for many pixels.

/** A pixel, or the border's own when it lies beyond, or nothing. */
// @ts-ignore: decorator
@inline
function tap(src: usize, w: i32, h: i32, x: i32, y: i32, extend: i32): v128 {
  if (!extend && (x < 0 || y < 0 || x >= w || y >= h)) return f32x4.splat(0);
  return v128.load(src + (<usize>(min(max(y, 0), h - 1) * w + min(max(x, 0), w - 1)) << 4));
}

/** A row of a picture moved, as in shiftPair. @param add 1 = it is added to what is there */
// @ts-ignore: decorator
@inline
function shiftRow(src: usize, dst: usize, w: i32, h: i32, y: i32, dx: f32, dy: f32, weight: f32, add: i32, extend: i32): void {
  const ix = <i32>floor(dx);
  const iy = <i32>floor(dy);
  const tx = dx - <f32>ix;
  const ty = dy - <f32>iy;
  const upper = f32x4.splat((<f32>1 - ty) * weight);
  const lower = f32x4.splat(ty * weight);
  const before = f32x4.splat(<f32>1 - tx);
  const after = f32x4.splat(tx);
  const line = <usize>w << 4;
  // where both pixels of a row are there
  const from = min(max(-ix, 0), w);
  const to = max(from, min(w, w - 1 - ix));
  const inside = y + iy >= 0 && y + iy + 1 < h;
  for (let x = 0; x < w; x++, dst += 16) {
    if (inside && x == from) {
      // what lies between two rows, in a column and in the next one
      let at = src + line * <usize>(y + iy) + (<usize>(x + ix) << 4);
      let own = f32x4.add(f32x4.mul(v128.load(at), upper), f32x4.mul(v128.load(at + line), lower));
      for (; x < to; x++, dst += 16) {
        at += 16;
        const next = f32x4.add(f32x4.mul(v128.load(at), upper), f32x4.mul(v128.load(at + line), lower));
        const sum = f32x4.add(f32x4.mul(own, before), f32x4.mul(next, after));
        v128.store(dst, add ? f32x4.add(v128.load(dst), sum) : sum);
        own = next;
      }
      if (x >= w) break;
    }
    const u = x + ix;
    const v = y + iy;
    const one = f32x4.add(f32x4.mul(tap(src, w, h, u, v, extend), upper), f32x4.mul(tap(src, w, h, u, v + 1, extend), lower));
    const two = f32x4.add(f32x4.mul(tap(src, w, h, u + 1, v, extend), upper), f32x4.mul(tap(src, w, h, u + 1, v + 1, extend), lower));
    const sum = f32x4.add(f32x4.mul(one, before), f32x4.mul(two, after));
    v128.store(dst, add ? f32x4.add(v128.load(dst), sum) : sum);
  }
}

/**
 * The sum of a picture moved in two ways, as large as it: what is read for pixel (x, y) lies at (x + dx, y + dy), in straight lines between pixels.
 * @param one, two what each counts @param extend 1 = beyond the picture its border repeats, otherwise it is clear there
 */
export function shiftPair(src: usize, dst: usize, w: i32, h: i32, dx1: f32, dy1: f32, one: f32, dx2: f32, dy2: f32, two: f32, extend: i32): void {
  for (let y = 0; y < h; y++, dst += <usize>w << 4) {
    shiftRow(src, dst, w, h, y, dx1, dy1, one, 0, extend);
    shiftRow(src, dst, w, h, y, dx2, dy2, two, 1, extend);
  }
}

/**
 * Adds a part of a picture, `times` times as large (a power of two) in straight lines between its pixels, to the rectangle of another. Beyond its border it
 * goes on as it is there. @param left, top of the part in enlarged pixels @param step bytes from a row of the rectangle to the next
 */
export function enlargeAdd(src: usize, w: i32, h: i32, times: i32, dst: usize, step: i32, left: i32, top: i32, dw: i32, dh: i32, weight: f32): void {
  const k: f32 = <f32>1 / <f32>times;
  const much = f32x4.splat(weight);
  const on = f32x4.splat(k);
  const first = f32x4.splat(times > 1 ? <f32>0.5 * k : 0);
  const start = (<f32>left + <f32>0.5) * k - <f32>0.5;
  const firstColumn = <i32>floor(start);
  const firstPart: f32 = start - <f32>firstColumn;
  // how many pixels lie between the first two of the picture
  const firstRun = <i32>ceil((<f32>1 - firstPart) * <f32>times - <f32>0.01);
  for (let y = 0; y < dh; y++, dst += step) {
    const v = (<f32>(top + y) + <f32>0.5) * k - <f32>0.5;
    const iv = <i32>floor(v);
    const tv = f32x4.splat(v - <f32>iv);
    const upper = src + (<usize>(min(max(iv, 0), h - 1) * w) << 4);
    const lower = src + (<usize>(min(max(iv + 1, 0), h - 1) * w) << 4);
    let column = firstColumn;
    let a = f32x4.mul(upright(upper, lower, w, column, tv), much);
    let part = f32x4.splat(firstPart);
    let at = dst;
    for (let x = 0, run = firstRun; x < dw; run = times) {
      const b = f32x4.mul(upright(upper, lower, w, ++column, tv), much);
      const slope = f32x4.sub(b, a);
      const last = min(x + run, dw);
      for (; x < last; x++, at += 16) {
        v128.store(at, f32x4.add(v128.load(at), f32x4.add(a, f32x4.mul(slope, part))));
        part = f32x4.add(part, on);
      }
      a = b;
      part = first;
    }
  }
}

/** What lies between two rows in a column, or in that of the border next to it. */
// @ts-ignore: decorator
@inline
function upright(upper: usize, lower: usize, w: i32, column: i32, part: v128): v128 {
  const x = <usize>min(max(column, 0), w - 1) << 4;
  const a = v128.load(upper + x);
  return f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(lower + x), a), part));
}
