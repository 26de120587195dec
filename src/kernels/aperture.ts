// Light spread over the shape of an aperture.
import { lumaOf } from './lanes';
import { straight } from './light';

/** Running sums along a row: dst[i] is the sum of all before pixel i; n+1 pixels. */
export function sumsRow(src: usize, dst: usize, n: i32): void {
  let sum = f32x4.splat(0);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    v128.store(dst, sum);
    sum = f32x4.add(sum, v128.load(src));
  }
  v128.store(dst, sum);
}

/** dst += the sum of what lies from `left` before each pixel's middle to `right` after it, in pixels. @param sums of the row, at the first pixel, with as many beside it as are reached @param share what a pixel counts */
export function spanRow(sums: usize, dst: usize, n: i32, left: f32, right: f32, share: f32): void {
  const from: f32 = <f32>0.5 - left;
  const to: f32 = <f32>0.5 + right;
  const a = <i32>floor(from);
  const b = <i32>floor(to);
  const fa = f32x4.splat(from - <f32>a);
  const fb = f32x4.splat(to - <f32>b);
  const w = f32x4.splat(share);
  let low = sums + ((<isize>a) << 4);
  let high = sums + ((<isize>b) << 4);
  let l = v128.load(low);
  let h = v128.load(high);
  // two at a time, as what is counted costs no more than counting
  for (const stop = dst + (<usize>(n & ~1) << 4); dst < stop; dst += 32, low += 32, high += 32) {
    const l1 = v128.load(low, 16);
    const h1 = v128.load(high, 16);
    v128.store(dst, f32x4.add(v128.load(dst), between(l, l1, h, h1, fa, fb, w)));
    l = v128.load(low, 32);
    h = v128.load(high, 32);
    v128.store(dst, f32x4.add(v128.load(dst, 16), between(l1, l, h1, h, fa, fb, w)), 16);
  }
  if (n & 1) v128.store(dst, f32x4.add(v128.load(dst), between(l, v128.load(low, 16), h, v128.load(high, 16), fa, fb, w)));
}

/** What lies between two places of running sums, each a part of the way from one pixel to the next. */
// @ts-ignore: decorator
@inline
function between(l: v128, l1: v128, h: v128, h1: v128, fa: v128, fb: v128, share: v128): v128 {
  const lower = f32x4.add(l, f32x4.mul(f32x4.sub(l1, l), fa));
  const upper = f32x4.add(h, f32x4.mul(f32x4.sub(h1, h), fb));
  return f32x4.mul(f32x4.sub(upper, lower), share);
}

/** Makes pixels of linear light brighter the further their luma lies above `from`. @param more times brighter at white */
export function liftBright(at: usize, n: i32, from: f32, more: f32): void {
  const room: f32 = max(<f32>1 - from, <f32>1e-3);
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    const own = straight(p);
    const luma: f32 = lumaOf(own);
    if (luma <= from) continue;
    const t: f32 = min((luma - from) / room, <f32>1);
    v128.store(at, f32x4.replace_lane(f32x4.mul(p, f32x4.splat(<f32>1 + more * t * t * (<f32>3 - <f32>2 * t))), 3, a));
  }
}

/** Colours in 0…alpha, n pixels. */
export function limitSpan(at: usize, n: i32): void {
  const zero = f32x4.splat(0);
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    v128.store(at, f32x4.replace_lane(f32x4.pmin(f32x4.pmax(p, zero), f32x4.splat(a)), 3, a));
  }
}
