// A matte's edge made to follow the brightness of the picture, which coded video keeps at full size while it halves the colour.
import { anyMarked } from './sure';

/** Where (x, y) of a w×h plane is, the nearest pixel standing for what is outside. */
// @ts-ignore: decorator
@inline
function inPlane(w: i32, h: i32, x: i32, y: i32): usize {
  return <usize>(min(max(y, 0), h - 1) * w + min(max(x, 0), w - 1)) << 2;
}

/** Box means of a side×side block of v128, in place by way of `other`, by running sums; only the inner (side−2r)² are right. */
function boxBlock(at: usize, other: usize, side: i32, r: i32): void {
  const share = f32x4.splat(<f32>1.0 / f32((r + r + 1) * (r + r + 1)));
  const line = <usize>side << 4;
  const before = <usize>(r + 1) << 4;
  const ahead = <usize>r << 4;
  for (let y = 0; y < side; y++) {
    const row = at + line * <usize>y;
    let sum = f32x4.splat(0);
    for (let k = 0; k < r + r + 1; k++) sum = f32x4.add(sum, v128.load(row + (<usize>k << 4)));
    let to = other + line * <usize>y + ahead;
    v128.store(to, sum);
    for (let x = row + ahead + 16, end = row + line - ahead; x < end; x += 16) {
      sum = f32x4.add(sum, f32x4.sub(v128.load(x + ahead), v128.load(x - before)));
      to += 16;
      v128.store(to, sum);
    }
  }
  for (let x = r; x < side - r; x++) {
    const column = other + (<usize>x << 4);
    let sum = f32x4.splat(0);
    for (let k = 0; k < r + r + 1; k++) sum = f32x4.add(sum, v128.load(column + line * <usize>k));
    let to = at + line * <usize>r + (<usize>x << 4);
    v128.store(to, f32x4.mul(sum, share));
    for (let y = r + 1; y < side - r; y++) {
      sum = f32x4.add(sum, f32x4.sub(v128.load(column + line * <usize>(y + r)), v128.load(column + line * <usize>(y - r - 1))));
      to += line;
      v128.store(to, f32x4.mul(sum, share));
    }
  }
}

/** True when a matte is all the same in a rectangle that lies inside its plane. The width is a multiple of four. */
function isFlat(alpha: usize, w: i32, x0: i32, y0: i32, wide: i32, tall: i32): bool {
  const first = v128.load32_splat(alpha + (<usize>(y0 * w + x0) << 2));
  for (let y = y0; y < y0 + tall; y++) {
    let off = f32x4.splat(0);
    for (let at = alpha + (<usize>(y * w + x0) << 2), end = at + (<usize>wide << 2); at < end; at += 16) off = f32x4.pmax(off, f32x4.abs(f32x4.sub(v128.load(at), first)));
    if (v128.any_true(f32x4.gt(off, f32x4.splat(<f32>1e-5)))) return false;
  }
  return true;
}

/** Up to here a pixel of the matte from colour counts as the screen's side of an edge, from there on as the subject's. */
const CLEAR_SIDE: f32 = 0.1;
const SOLID_SIDE: f32 = 0.9;
/** How far the luminance of one side strays, and how far off a matte from colour is at an edge: their squares say what counts how much. */
const STRAYS: f32 = 0.026 * 0.026;
const OFF: f32 = 0.2 * 0.2;

/** The matte at (x, y), its neighbours counting half as much: between chroma samples this goes over evenly. */
// @ts-ignore: decorator
@inline
function evened(alpha: usize, w: i32, h: i32, x: i32, y: i32): f32 {
  let sum: f32 = 0;
  for (let v = -1; v < 2; v++) {
    const share: f32 = v == 0 ? 0.5 : 0.25;
    const row = load<f32>(alpha + inPlane(w, h, x - 1, y + v)) + load<f32>(alpha + inPlane(w, h, x + 1, y + v));
    sum += share * (<f32>0.25 * row + <f32>0.5 * load<f32>(alpha + inPlane(w, h, x, y + v)));
  }
  return sum;
}

/** The same of four pixels from x on, whose neighbours all lie inside the plane. */
// @ts-ignore: decorator
@inline
function evenedFour(at: usize, line: usize): v128 {
  const above = rowOfThree(at - line);
  const own = rowOfThree(at);
  const below = rowOfThree(at + line);
  return f32x4.mul(f32x4.add(f32x4.add(own, own), f32x4.add(above, below)), f32x4.splat(<f32>0.0625));
}
// @ts-ignore: decorator
@inline
function rowOfThree(at: usize): v128 {
  const own = v128.load(at);
  return f32x4.add(f32x4.add(own, own), f32x4.add(v128.load(at - 4), v128.load(at + 4)));
}

/** Evens a plane: neighbours count half as much, those at corners a quarter; the border is repeated. */
export function evenPlane(plane: usize, w: i32, h: i32, out: usize): void {
  const line = <usize>w << 2;
  for (let y = 0; y < h; y++) {
    const row = plane + line * <usize>y;
    const to = out + line * <usize>y;
    let x = 0;
    if (y > 0 && y < h - 1 && w > 5) {
      store<f32>(to, evened(plane, w, h, 0, y));
      for (x = 1; x + 4 < w; x += 4) v128.store(to + (<usize>x << 2), evenedFour(row + (<usize>x << 2), line));
    }
    for (; x < w; x++) store<f32>(to + (<usize>x << 2), evened(plane, w, h, x, y));
  }
}

/** Luminance of a luma 0…1: close to decoding it, within 0.003. */
// @ts-ignore: decorator
@inline
function light(luma: f32): f32 {
  return luma * luma * (<f32>0.7 + <f32>0.3 * luma);
}

/** True when a matte is all the same in a rectangle that may reach beyond its plane. */
function isFlatNear(alpha: usize, w: i32, h: i32, x0: i32, y0: i32, side: i32): bool {
  if (x0 >= 0 && y0 >= 0 && x0 + side <= w && y0 + side <= h) return isFlat(alpha, w, x0, y0, side, side);
  let low: f32 = 1;
  let high: f32 = 0;
  for (let y = max(0, y0); y < min(h, y0 + side); y++) {
    for (let x = max(0, x0); x < min(w, x0 + side); x++) {
      const v = load<f32>(alpha + (<usize>(y * w + x) << 2));
      low = min(low, v);
      high = max(high, v);
    }
  }
  return high - low < <f32>1e-5;
}

/** Pixels along a side of a tile; a multiple of 4. */
const TILE: i32 = 16;

/** Bytes that guidePlane works in: three blocks of four floats and one of one. */
export function guideScratch(r: i32): i32 {
  const side = TILE + 4 * r;
  return side * side * (3 * 16 + 4);
}

/**
 * Refines a matte by the luma. Two estimates are mixed: in each small window the matte is a linear function of the luma; and where the two
 * sides of the edge differ in luminance, the pixel's own luminance between theirs is its share. The more the sides differ, the more the second
 * counts. Tiles that are solid or clear all over are copied.
 * @param out plane like `alpha` @param wanted a byte a pixel, with sixteen more: tiles without any are left out; 0 for all of them
 * @param r radius of the windows, 1…8; sides are looked for twice as far @param eps regularisation
 * @param offset, gain from a share by luminance to the matte's scale @param scratch as guideScratch says
 * Source: He, Sun and Tang 2010, "Guided image filtering"; for the second, C = αF + (1−α)S with the sides' means.
 */
export function guidePlane(alpha: usize, luma: usize, out: usize, w: i32, h: i32, wanted: usize, r: i32, eps: f32, offset: f32, gain: f32, scratch: usize): void {
  for (let y = 0; y < h; y += TILE) {
    for (let x = 0; x < w; x += TILE) {
      if (!wanted || anyMarked(wanted, w, h, x, y, TILE)) guideTile(alpha, luma, out, w, h, x, y, TILE, r, eps, offset, gain, scratch);
    }
  }
}

/** One square tile of it. */
function guideTile(alpha: usize, luma: usize, out: usize, w: i32, h: i32, x0: i32, y0: i32, size: i32, r: i32, eps: f32, offset: f32, gain: f32, scratch: usize): void {
  const pad = r + r;
  const left = x0 - pad;
  const top = y0 - pad;
  const side = size + pad + pad;
  const x1 = min(x0 + size, w);
  const y1 = min(y0 + size, h);
  if (isFlatNear(alpha, w, h, left, top, side)) {
    for (let y = y0; y < y1; y++) memory.copy(out + inPlane(w, h, x0, y), alpha + inPlane(w, h, x0, y), <usize>(x1 - x0) << 2);
    return;
  }
  const block = <usize>(side * side) << 4;
  const other = scratch + block;
  const sides = other + block;
  const even = sides + block;
  evenBlock(alpha, w, h, left, top, side, even, true);
  const near = other;
  evenBlock(luma, w, h, left, top, side, near, false);
  pack(near, even, side * side, scratch, sides);
  boxBlock(scratch, other, side, r);
  // in each window the matte is a·luma + b
  fitLines(scratch, side * side, eps);
  boxBlock(scratch, other, side, r);
  boxBlock(sides, other, side, pad);
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const at = inPlane(w, h, x, y);
      const k = (y - top) * side + x - left;
      const i = load<f32>(luma + at);
      const ab = scratch + (<usize>k << 4);
      const byWindow = min(max(load<f32>(ab) * i + load<f32>(ab, 4), <f32>0), <f32>1);
      store<f32>(out + at, bySides(byWindow, load<f32>(even + (<usize>k << 2)), light(i), sides + (<usize>k << 4), offset, gain));
    }
  }
}

/** A square of a plane, which it may reach beyond; evened or as it is. */
function evenBlock(plane: usize, w: i32, h: i32, left: i32, top: i32, side: i32, to: usize, evenly: bool): void {
  const inside = left > 0 && top > 0 && left + side < w && top + side < h;
  for (let y = top; y < top + side; y++) {
    if (inside) {
      const row = plane + inPlane(w, h, left, y);
      for (let at = row; at < row + (<usize>side << 2); at += 16, to += 16) v128.store(to, evenly ? evenedFour(at, <usize>w << 2) : v128.load(at));
    } else for (let x = left; x < left + side; x++, to += 4) store<f32>(to, evenly ? evened(plane, w, h, x, y) : load<f32>(plane + inPlane(w, h, x, y)));
  }
}

/** Four values of each of four pixels, from four vectors of one value each. */
// @ts-ignore: decorator
@inline
function storeFour(to: usize, a: v128, b: v128, c: v128, d: v128): void {
  const ab0 = v128.shuffle<f32>(a, b, 0, 4, 1, 5);
  const ab2 = v128.shuffle<f32>(a, b, 2, 6, 3, 7);
  const cd0 = v128.shuffle<f32>(c, d, 0, 4, 1, 5);
  const cd2 = v128.shuffle<f32>(c, d, 2, 6, 3, 7);
  v128.store(to, v128.shuffle<f32>(ab0, cd0, 0, 1, 4, 5));
  v128.store(to, v128.shuffle<f32>(ab0, cd0, 2, 3, 6, 7), 16);
  v128.store(to, v128.shuffle<f32>(ab2, cd2, 0, 1, 4, 5), 32);
  v128.store(to, v128.shuffle<f32>(ab2, cd2, 2, 3, 6, 7), 48);
}

/**
 * What the means are taken of: luma, matte and their products; and whether a pixel is sure to be on the solid or the clear side,
 * with its light. @param n a multiple of 4
 */
function pack(luma: usize, matte: usize, n: i32, lines: usize, sides: usize): void {
  const one = f32x4.splat(1);
  for (; n > 0; n -= 4, luma += 16, matte += 16, lines += 64, sides += 64) {
    const i = v128.load(luma);
    const p = v128.load(matte);
    storeFour(lines, i, p, f32x4.mul(i, i), f32x4.mul(i, p));
    const solid = v128.and(f32x4.ge(p, f32x4.splat(SOLID_SIDE)), one);
    const clear = v128.and(f32x4.le(p, f32x4.splat(CLEAR_SIDE)), one);
    const lit = f32x4.mul(f32x4.mul(i, i), f32x4.add(f32x4.mul(i, f32x4.splat(<f32>0.3)), f32x4.splat(<f32>0.7)));
    storeFour(sides, solid, f32x4.mul(solid, lit), clear, f32x4.mul(clear, lit));
  }
}

/** From the means of each window to the line matte = a·luma + b in it, in place. @param n a multiple of 4 */
function fitLines(at: usize, n: i32, eps: f32): void {
  for (; n > 0; n -= 4, at += 64) {
    const ip0 = v128.shuffle<f32>(v128.load(at), v128.load(at, 16), 0, 4, 1, 5);
    const ip2 = v128.shuffle<f32>(v128.load(at, 32), v128.load(at, 48), 0, 4, 1, 5);
    const pp0 = v128.shuffle<f32>(v128.load(at), v128.load(at, 16), 2, 6, 3, 7);
    const pp2 = v128.shuffle<f32>(v128.load(at, 32), v128.load(at, 48), 2, 6, 3, 7);
    const i = v128.shuffle<f32>(ip0, ip2, 0, 1, 4, 5);
    const p = v128.shuffle<f32>(ip0, ip2, 2, 3, 6, 7);
    const squares = v128.shuffle<f32>(pp0, pp2, 0, 1, 4, 5);
    const products = v128.shuffle<f32>(pp0, pp2, 2, 3, 6, 7);
    const spread = f32x4.add(f32x4.sub(squares, f32x4.mul(i, i)), f32x4.splat(eps));
    const a = f32x4.div(f32x4.sub(products, f32x4.mul(i, p)), spread);
    const b = f32x4.sub(p, f32x4.mul(a, i));
    storeFour(at, a, b, i, p);
  }
}

/** A matte mixed with what the luminance between that of the two sides says. @param means share and light of the solid side, then of the clear side */
// @ts-ignore: decorator
@inline
function bySides(matte: f32, even: f32, lit: f32, means: usize, offset: f32, gain: f32): f32 {
  const solid = load<f32>(means);
  const clear = load<f32>(means, 8);
  if (even >= SOLID_SIDE || even <= CLEAR_SIDE || solid < <f32>1e-4 || clear < <f32>1e-4) return matte;
  const dark = load<f32>(means, 12) / clear;
  const apart = load<f32>(means, 4) / solid - dark;
  const squared = apart * apart;
  if (squared < <f32>1e-5) return matte;
  const share = min(max((lit - dark) / apart, <f32>0), <f32>1);
  const found = min(max(offset + gain * share, <f32>0), <f32>1);
  const weight = squared * OFF;
  return (weight * found + STRAYS * matte) / (weight + STRAYS);
}
