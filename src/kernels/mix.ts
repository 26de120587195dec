// Weighted sums of whole pictures.
import { alphas, between, blues, greens, held, lumas, pixel, reds } from './lanes';

/** dst += src · weight, n pixels. */
export function addScaled(src: usize, dst: usize, n: i32, weight: f32): void {
  const w = f32x4.splat(weight);
  for (let end = src + (<usize>n << 4); src < end; src += 16, dst += 16) v128.store(dst, f32x4.add(v128.load(dst), f32x4.mul(v128.load(src), w)));
}

/** dst = a + (b − a) · t, n pixels. */
export function lerpSpan(a: usize, b: usize, dst: usize, n: i32, t: f32): void {
  const share = f32x4.splat(t);
  const end = a + (<usize>n << 4);
  for (; a + 64 <= end; a += 64, b += 64, dst += 64) {
    v128.store(dst, between(v128.load(a), v128.load(b), share));
    v128.store(dst, between(v128.load(a, 16), v128.load(b, 16), share), 16);
    v128.store(dst, between(v128.load(a, 32), v128.load(b, 32), share), 32);
    v128.store(dst, between(v128.load(a, 48), v128.load(b, 48), share), 48);
  }
  for (; a < end; a += 16, b += 16, dst += 16) v128.store(dst, between(v128.load(a), v128.load(b), share));
}

/** dst = src · plane, n pixels; the plane has one float a pixel. */
export function scaleByPlane(src: usize, plane: usize, dst: usize, n: i32): void {
  for (let end = src + (<usize>n << 4); src < end; src += 16, dst += 16, plane += 4) v128.store(dst, f32x4.mul(v128.load(src), v128.load32_splat(plane)));
}

/** dst = a + (b − a) · plane, n pixels. */
export function lerpByPlane(a: usize, b: usize, plane: usize, dst: usize, n: i32): void {
  for (let end = a + (<usize>n << 4); a < end; a += 16, b += 16, dst += 16, plane += 4) {
    const from = v128.load(a);
    v128.store(dst, f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(b), from), v128.load32_splat(plane))));
  }
}

/**
 * at += (other − at) · how far a place lies from a line or a point, from 0 at `from` to 1 where that times `per` has grown by 1; n pixels of a row.
 * @param first, step the distance of the row's first pixel along one direction, and how much more that of the next one is; to one side negative @param aside its distance along the other direction
 */
export function bandSpan(at: usize, other: usize, n: i32, first: f32, step: f32, aside: f32, from: f32, per: f32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const square = f32x4.splat(aside * aside);
  for (let i = 0; i < n; i += 4, at += 64, other += 64) {
    const along = f32x4.add(f32x4.splat(first + step * <f32>i), f32x4.mul(f32x4.splat(step), f32x4(0, 1, 2, 3)));
    const far = f32x4.sqrt(f32x4.add(f32x4.mul(along, along), square));
    const share = f32x4.pmin(f32x4.pmax(f32x4.mul(f32x4.sub(far, f32x4.splat(from)), f32x4.splat(per)), zero), one);
    towards(at, other, v128.shuffle<f32>(share, share, 0, 0, 0, 0));
    if (i + 1 < n) towards(at + 16, other + 16, v128.shuffle<f32>(share, share, 1, 1, 1, 1));
    if (i + 2 < n) towards(at + 32, other + 32, v128.shuffle<f32>(share, share, 2, 2, 2, 2));
    if (i + 3 < n) towards(at + 48, other + 48, v128.shuffle<f32>(share, share, 3, 3, 3, 3));
  }
}

// @ts-ignore: decorator
@inline
function towards(at: usize, other: usize, share: v128): void {
  const own = v128.load(at);
  v128.store(at, f32x4.add(own, f32x4.mul(f32x4.sub(v128.load(other), own), share)));
}

/** dst = v, n floats. */
export function fillPlane(dst: usize, n: i32, v: f32): void {
  const all = f32x4.splat(v);
  let left = n;
  for (; left >= 4; left -= 4, dst += 16) v128.store(dst, all);
  for (; left > 0; left--, dst += 4) store<f32>(dst, v);
}

/** dst = dst · plane, n floats. */
export function timesPlane(dst: usize, plane: usize, n: i32): void {
  let left = n;
  for (; left >= 4; left -= 4, dst += 16, plane += 16) v128.store(dst, f32x4.mul(v128.load(dst), v128.load(plane)));
  for (; left > 0; left--, dst += 4, plane += 4) store<f32>(dst, load<f32>(dst) * load<f32>(plane));
}

/** Alpha, or BT.709 luma over black, of n premultiplied pixels as one float each; one less it when inverted. */
export function coveragePlane(src: usize, n: i32, byBrightness: i32, invert: i32, dst: usize): void {
  const one = f32x4.splat(1);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 16) {
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, left);
    const p2 = pixel(src, 2, left);
    const p3 = pixel(src, 3, left);
    const c = held(byBrightness ? lumas(reds(p0, p1, p2, p3), greens(p0, p1, p2, p3), blues(p0, p1, p2, p3)) : alphas(p0, p1, p2, p3));
    const four = invert ? f32x4.sub(one, c) : c;
    if (left >= 4) v128.store(dst, four);
    else {
      v128.store32_lane(dst, four, 0);
      if (left > 1) v128.store32_lane(dst, four, 1, 4);
      if (left > 2) v128.store32_lane(dst, four, 2, 8);
    }
  }
}

/** The median of several pictures, by channel; of an even number of them the mean of the two in the middle. @param list their addresses @param room 16 bytes for each */
export function medianOf(list: usize, count: i32, room: usize, dst: usize, n: i32): void {
  const half = <usize>(count >> 1) << 4;
  const even = (count & 1) == 0;
  for (let i: usize = 0; i < <usize>n << 4; i += 16) {
    for (let k = 0; k < count; k++) {
      let v = v128.load(<usize>load<u32>(list + (<usize>k << 2)) + i);
      let at = room;
      for (let j = 0; j < k; j++, at += 16) {
        const held = v128.load(at);
        v128.store(at, f32x4.pmin(v, held));
        v = f32x4.pmax(held, v);
      }
      v128.store(at, v);
    }
    const middle = v128.load(room + half);
    v128.store(dst + i, even ? f32x4.mul(f32x4.add(middle, v128.load(room + half - 16)), f32x4.splat(0.5)) : middle);
  }
}

/** A plane of n pixels' red, green, blue and alpha, each times a number, together. */
export function weighedPlane(src: usize, dst: usize, n: i32, r: f32, g: f32, b: f32, a: f32): void {
  const weights = f32x4(r, g, b, a);
  for (let i = 0; i < n; i++, src += 16, dst += 4) {
    const p = f32x4.mul(v128.load(src), weights);
    store<f32>(dst, f32x4.extract_lane(p, 0) + f32x4.extract_lane(p, 1) + f32x4.extract_lane(p, 2) + f32x4.extract_lane(p, 3));
  }
}
