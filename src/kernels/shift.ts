// Pictures moved by parts of a pixel, and pictures enlarged by whole numbers: weights that are the same for many pixels.

/** A pixel, or the border's own when it lies beyond, or nothing. */
// @ts-ignore: decorator
@inline
function tap(src: usize, w: i32, h: i32, x: i32, y: i32, extend: i32): v128 {
  if (!extend && (x < 0 || y < 0 || x >= w || y >= h)) return f32x4.splat(0);
  return v128.load(src + (<usize>(min(max(y, 0), h - 1) * w + min(max(x, 0), w - 1)) << 4));
}

/**
 * A picture of the same size moved: what is read for pixel (x, y) lies at (x + dx, y + dy), in straight lines between pixels.
 * @param weight what it counts @param add 1 = it is added to what is there @param extend 1 = beyond the picture its border repeats, otherwise it is clear there
 */
export function shiftSpan(src: usize, dst: usize, w: i32, h: i32, dx: f32, dy: f32, weight: f32, add: i32, extend: i32): void {
  const ix = <i32>floor(dx);
  const iy = <i32>floor(dy);
  const tx = dx - <f32>ix;
  const ty = dy - <f32>iy;
  const w00 = f32x4.splat((<f32>1 - tx) * (<f32>1 - ty) * weight);
  const w10 = f32x4.splat(tx * (<f32>1 - ty) * weight);
  const w01 = f32x4.splat((<f32>1 - tx) * ty * weight);
  const w11 = f32x4.splat(tx * ty * weight);
  const line = <usize>w << 4;
  // where both pixels of a row are there
  const from = min(max(-ix, 0), w);
  const to = max(from, min(w, w - 1 - ix));
  for (let y = 0; y < h; y++) {
    const inside = y + iy >= 0 && y + iy + 1 < h;
    for (let x = 0; x < w; x++, dst += 16) {
      if (inside && x == from) {
        let at = src + line * <usize>(y + iy) + (<usize>(x + ix) << 4);
        for (; x < to; x++, at += 16, dst += 16) {
          const top = f32x4.add(f32x4.mul(v128.load(at), w00), f32x4.mul(v128.load(at, 16), w10));
          const low = f32x4.add(f32x4.mul(v128.load(at + line), w01), f32x4.mul(v128.load(at + line, 16), w11));
          const sum = f32x4.add(top, low);
          v128.store(dst, add ? f32x4.add(v128.load(dst), sum) : sum);
        }
        if (x >= w) break;
      }
      const u = x + ix;
      const v = y + iy;
      const top = f32x4.add(f32x4.mul(tap(src, w, h, u, v, extend), w00), f32x4.mul(tap(src, w, h, u + 1, v, extend), w10));
      const low = f32x4.add(f32x4.mul(tap(src, w, h, u, v + 1, extend), w01), f32x4.mul(tap(src, w, h, u + 1, v + 1, extend), w11));
      const sum = f32x4.add(top, low);
      v128.store(dst, add ? f32x4.add(v128.load(dst), sum) : sum);
    }
  }
}

/**
 * Adds a part of a picture, `times` times as large in straight lines between its pixels, to the rectangle of another. Beyond its border it
 * goes on as it is there. @param left, top of the part in enlarged pixels @param step bytes from a row of the rectangle to the next
 */
export function enlargeAdd(src: usize, w: i32, h: i32, times: i32, dst: usize, step: i32, left: i32, top: i32, dw: i32, dh: i32, weight: f32): void {
  const k: f32 = <f32>1 / <f32>times;
  const much = f32x4.splat(weight);
  for (let y = 0; y < dh; y++, dst += step) {
    const v = (<f32>(top + y) + <f32>0.5) * k - <f32>0.5;
    const iv = <i32>floor(v);
    const tv = f32x4.splat(v - <f32>iv);
    const upper = src + (<usize>(min(max(iv, 0), h - 1) * w) << 4);
    const lower = src + (<usize>(min(max(iv + 1, 0), h - 1) * w) << 4);
    let at = dst;
    for (let x = 0; x < dw; ) {
      const u = (<f32>(left + x) + <f32>0.5) * k - <f32>0.5;
      const iu = <i32>floor(u);
      const one = <usize>min(max(iu, 0), w - 1) << 4;
      const two = <usize>min(max(iu + 1, 0), w - 1) << 4;
      const a0 = v128.load(upper + one);
      const b0 = v128.load(upper + two);
      const a = f32x4.mul(f32x4.add(a0, f32x4.mul(f32x4.sub(v128.load(lower + one), a0), tv)), much);
      const b = f32x4.mul(f32x4.add(b0, f32x4.mul(f32x4.sub(v128.load(lower + two), b0), tv)), much);
      const slope = f32x4.sub(b, a);
      // all pixels between these two
      let t = u - <f32>iu;
      for (; x < dw && t < <f32>0.99999; x++, t += k, at += 16)
        v128.store(at, f32x4.add(v128.load(at), f32x4.add(a, f32x4.mul(slope, f32x4.splat(t)))));
    }
  }
}
