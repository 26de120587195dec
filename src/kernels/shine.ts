// Light that bright parts give off: taken out of a picture, and added to one.
import { alphas, blues, greens, lumas, mixed, mixedFour, pixel, reds, scatter } from './lanes';
import { decode, encode } from './light';

// @ts-ignore: decorator
@inline
function most(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmax(r, f32x4.pmax(g, b));
}

/** Four numbers −½…½ by lot, for places x…x+3 of a row. @param row its own number */
// @ts-ignore: decorator
@inline
function lots(x: i32, row: u32): v128 {
  const v = i32x4.shr_u(mixedFour(v128.xor(i32x4.add(i32x4.splat(x), i32x4(0, 1, 2, 3)), i32x4.splat(row))), 8);
  return f32x4.sub(f32x4.mul(f32x4.convert_i32x4_s(v), f32x4.splat(<f32>1 / <f32>16777216)), f32x4.splat(0.5));
}

/**
 * The light, linear and premultiplied, of what of n display-encoded pixels is brighter than a threshold, times a colour. Luma up to threshold −
 * knee gives nothing, from threshold + knee on all that is above the threshold; a parabola lies between. Below zero everything gives all of its light.
 */
export function brightSpan(src: usize, dst: usize, n: i32, threshold: f32, knee: f32, r: f32, g: f32, b: f32): void {
  const all = threshold <= 0;
  const low = f32x4.splat(threshold - knee);
  const limit = f32x4.splat(threshold);
  const high = f32x4.splat(threshold + knee);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  // luma is no more than the brightest channel is
  const dark = all ? f32x4.splat(-1) : encode(low);
  const bend = f32x4.splat(<f32>1 / max(<f32>4 * knee, <f32>1e-6));
  for (let i = 0; i < n; i += 4, src += 64, dst += 64) {
    const count = min(4, n - i);
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, count);
    const p2 = pixel(src, 2, count);
    const p3 = pixel(src, 3, count);
    const alpha = alphas(p0, p1, p2, p3);
    const pr = reds(p0, p1, p2, p3);
    const pg = greens(p0, p1, p2, p3);
    const pb = blues(p0, p1, p2, p3);
    const there = f32x4.gt(alpha, zero);
    const given = v128.and(there, f32x4.gt(most(pr, pg, pb), f32x4.mul(dark, alpha)));
    if (!v128.any_true(given)) {
      scatter(dst, zero, zero, zero, zero, count);
      continue;
    }
    const own = v128.bitselect(alpha, one, there);
    const cr = decode(f32x4.div(pr, own));
    const cg = decode(f32x4.div(pg, own));
    const cb = decode(f32x4.div(pb, own));
    let much = alpha;
    if (!all) {
      const luma = lumas(cr, cg, cb);
      const above = f32x4.pmax(f32x4.sub(luma, low), zero);
      const over = v128.bitselect(f32x4.sub(luma, limit), f32x4.mul(f32x4.mul(above, above), bend), f32x4.ge(luma, high));
      much = v128.and(f32x4.mul(alpha, f32x4.div(over, luma)), f32x4.gt(over, zero));
    }
    much = v128.and(much, given);
    scatter(dst, f32x4.mul(cr, f32x4.mul(f32x4.splat(r), much)), f32x4.mul(cg, f32x4.mul(f32x4.splat(g), much)), f32x4.mul(cb, f32x4.mul(f32x4.splat(b), much)), much, count);
  }
}

/** Less light than this is not seen on anything: a hundredth of a step of eight bits on black. */
const UNSEEN: f32 = 3e-6;

/**
 * Adds linear light to a row of n display-encoded pixels. Where nothing is, light covers as much as its brightest channel is on a display. What
 * is lit is moved by up to half a step of eight bits, by lot, so that slow ramps show no bands. @param alone only the light is left @param x, y of the row's first pixel
 */
export function lightRow(under: usize, light: usize, n: i32, strength: f32, alone: i32, x: i32, y: i32): void {
  const gain = f32x4.splat(strength);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const unseen = f32x4.splat(UNSEEN);
  const step = f32x4.splat(<f32>(0.99 / 255));
  const row = mixed(<u32>y * 0x9e3779b1 + 0x51ed270b);
  for (let i = 0; i < n; i += 4, under += 64, light += 64) {
    const count = min(4, n - i);
    const l0 = v128.load(light);
    const l1 = pixel(light, 1, count);
    const l2 = pixel(light, 2, count);
    const l3 = pixel(light, 3, count);
    const lr = f32x4.mul(reds(l0, l1, l2, l3), gain);
    const lg = f32x4.mul(greens(l0, l1, l2, l3), gain);
    const lb = f32x4.mul(blues(l0, l1, l2, l3), gain);
    const brightest = most(lr, lg, lb);
    const lit = f32x4.gt(brightest, unseen);
    if (!v128.any_true(lit)) {
      if (alone) scatter(under, zero, zero, zero, zero, count);
      continue;
    }
    const p0 = alone ? zero : v128.load(under);
    const p1 = alone ? zero : pixel(under, 1, count);
    const p2 = alone ? zero : pixel(under, 2, count);
    const p3 = alone ? zero : pixel(under, 3, count);
    const before = alphas(p0, p1, p2, p3);
    const pr = reds(p0, p1, p2, p3);
    const pg = greens(p0, p1, p2, p3);
    const pb = blues(p0, p1, p2, p3);
    let alpha = before;
    let r: v128;
    let g: v128;
    let b: v128;
    if (v128.all_true<i32>(f32x4.ge(before, one))) {
      r = encode(f32x4.add(decode(pr), lr));
      g = encode(f32x4.add(decode(pg), lg));
      b = encode(f32x4.add(decode(pb), lb));
    } else {
      const free = f32x4.pmax(f32x4.sub(one, before), zero);
      // so that over black it looks as bright as it is
      const cover = f32x4.pmin(encode(brightest), one);
      alpha = f32x4.add(before, f32x4.mul(free, cover));
      const own = v128.bitselect(before, one, f32x4.gt(before, zero));
      const share = f32x4.add(before, f32x4.mul(free, f32x4.div(cover, f32x4.pmax(brightest, unseen))));
      const whole = f32x4.pmax(alpha, f32x4.splat(<f32>1e-9));
      r = onTop(pr, own, before, f32x4.mul(lr, share), alpha, whole);
      g = onTop(pg, own, before, f32x4.mul(lg, share), alpha, whole);
      b = onTop(pb, own, before, f32x4.mul(lb, share), alpha, whole);
    }
    const lot = f32x4.mul(lots(x + i, row), f32x4.mul(alpha, step));
    r = v128.bitselect(f32x4.pmax(f32x4.add(r, lot), zero), pr, lit);
    g = v128.bitselect(f32x4.pmax(f32x4.add(g, lot), zero), pg, lit);
    b = v128.bitselect(f32x4.pmax(f32x4.add(b, lot), zero), pb, lit);
    scatter(under, r, g, b, v128.bitselect(alpha, before, lit), count);
  }
}

/** One channel of four pixels with light on it. @param own their alphas, 1 where they are clear @param whole alphas of the result, more than 0 */
// @ts-ignore: decorator
@inline
function onTop(p: v128, own: v128, before: v128, light: v128, alpha: v128, whole: v128): v128 {
  const sum = f32x4.add(f32x4.mul(decode(f32x4.div(p, own)), before), light);
  return f32x4.mul(encode(f32x4.div(sum, whole)), alpha);
}

/** Screens a colour over pixels, as much as a plane says; only as far as they cover. */
export function screenPlane(at: usize, plane: usize, n: i32, r: f32, g: f32, b: f32): void {
  const colour = f32x4(r, g, b, 0);
  for (let end = at + (<usize>n << 4); at < end; at += 16, plane += 4) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    const light = f32x4.mul(colour, f32x4.splat(load<f32>(plane)));
    v128.store(at, f32x4.replace_lane(f32x4.add(p, f32x4.mul(light, f32x4.sub(f32x4.splat(a), p))), 3, a));
  }
}
