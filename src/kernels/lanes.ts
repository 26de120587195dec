// Four pixels side by side: their reds, greens, blues and alphas gathered, and put back.

// @ts-ignore: decorator
@inline
export function reds(p0: v128, p1: v128, p2: v128, p3: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(p0, p1, 0, 4, 1, 5), v128.shuffle<f32>(p2, p3, 0, 4, 1, 5), 0, 1, 4, 5);
}
// @ts-ignore: decorator
@inline
export function greens(p0: v128, p1: v128, p2: v128, p3: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(p0, p1, 0, 4, 1, 5), v128.shuffle<f32>(p2, p3, 0, 4, 1, 5), 2, 3, 6, 7);
}
// @ts-ignore: decorator
@inline
export function blues(p0: v128, p1: v128, p2: v128, p3: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(p0, p1, 2, 6, 3, 7), v128.shuffle<f32>(p2, p3, 2, 6, 3, 7), 0, 1, 4, 5);
}
// @ts-ignore: decorator
@inline
export function alphas(p0: v128, p1: v128, p2: v128, p3: v128): v128 {
  return v128.shuffle<f32>(v128.shuffle<f32>(p0, p1, 2, 6, 3, 7), v128.shuffle<f32>(p2, p3, 2, 6, 3, 7), 2, 3, 6, 7);
}

/** The sum of each of four vectors, side by side. */
// @ts-ignore: decorator
@inline
export function sums(a: v128, b: v128, c: v128, d: v128): v128 {
  return f32x4.add(f32x4.add(reds(a, b, c, d), greens(a, b, c, d)), f32x4.add(blues(a, b, c, d), alphas(a, b, c, d)));
}

/** One of up to four pixels, clear where there are no more. */
// @ts-ignore: decorator
@inline
export function pixel(at: usize, k: i32, count: i32): v128 {
  return k < count ? v128.load(at + (<usize>k << 4)) : f32x4.splat(0);
}

/** Writes up to four pixels. @param count how many are wanted */
// @ts-ignore: decorator
@inline
export function scatter(dst: usize, r: v128, g: v128, b: v128, a: v128, count: i32): void {
  const rg0 = v128.shuffle<f32>(r, g, 0, 4, 1, 5);
  const rg2 = v128.shuffle<f32>(r, g, 2, 6, 3, 7);
  const ba0 = v128.shuffle<f32>(b, a, 0, 4, 1, 5);
  const ba2 = v128.shuffle<f32>(b, a, 2, 6, 3, 7);
  v128.store(dst, v128.shuffle<f32>(rg0, ba0, 0, 1, 4, 5));
  if (count > 1) v128.store(dst, v128.shuffle<f32>(rg0, ba0, 2, 3, 6, 7), 16);
  if (count > 2) v128.store(dst, v128.shuffle<f32>(rg2, ba2, 0, 1, 4, 5), 32);
  if (count > 3) v128.store(dst, v128.shuffle<f32>(rg2, ba2, 2, 3, 6, 7), 48);
}

/** Writes up to four pixels as they are. @param count how many are wanted */
// @ts-ignore: decorator
@inline
export function store4(dst: usize, p0: v128, p1: v128, p2: v128, p3: v128, count: i32): void {
  v128.store(dst, p0);
  if (count > 1) v128.store(dst, p1, 16);
  if (count > 2) v128.store(dst, p2, 32);
  if (count > 3) v128.store(dst, p3, 48);
}

/** BT.709 luma of one pixel, as it is held: premultiplied ones have it times their alpha. */
// @ts-ignore: decorator
@inline
export function lumaOf(p: v128): f32 {
  return <f32>0.2126 * f32x4.extract_lane(p, 0) + <f32>0.7152 * f32x4.extract_lane(p, 1) + <f32>0.0722 * f32x4.extract_lane(p, 2);
}

/** BT.709 luma of four pixels. */
// @ts-ignore: decorator
@inline
export function lumas(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(<f32>0.2126)), f32x4.mul(g, f32x4.splat(<f32>0.7152))), f32x4.mul(b, f32x4.splat(<f32>0.0722)));
}

/** Four bytes as whole numbers side by side. */
// @ts-ignore: decorator
@inline
export function bytesOf(four: u32): v128 {
  return i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(i32x4.splat(four)));
}

/** The share of the way from one to another. */
// @ts-ignore: decorator
@inline
export function between(from: v128, to: v128, share: v128): v128 {
  return f32x4.add(from, f32x4.mul(f32x4.sub(to, from), share));
}

/** Limited to 0…1. */
// @ts-ignore: decorator
@inline
export function held(v: v128): v128 {
  return f32x4.pmin(f32x4.pmax(v, f32x4.splat(0)), f32x4.splat(1));
}

/** Bits of a number mixed until none tells of another. Source: Wellons' lowbias32. */
// @ts-ignore: decorator
@inline
export function mixed(v: u32): u32 {
  v = (v ^ (v >> 16)) * 0x7feb352d;
  v = (v ^ (v >> 15)) * 0x846ca68b;
  return v ^ (v >> 16);
}

/** The same of four numbers side by side. */
// @ts-ignore: decorator
@inline
export function mixedFour(v: v128): v128 {
  v = i32x4.mul(v128.xor(v, i32x4.shr_u(v, 16)), i32x4.splat(0x7feb352d));
  v = i32x4.mul(v128.xor(v, i32x4.shr_u(v, 15)), i32x4.splat(0x846ca68b));
  return v128.xor(v, i32x4.shr_u(v, 16));
}

/** A whole number no less and no more than two others. Comparing is quicker than min and max, which look after what is no number. */
// @ts-ignore: decorator
@inline
export function within(v: f32, least: i32, most: i32): i32 {
  return v <= <f32>least ? least : v >= <f32>most ? most : <i32>v;
}
