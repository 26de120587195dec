// How much of a picture is there already, pixel by pixel: by place, by brightness, by lot.
import { lumaOf, mixed } from './lanes';

// @ts-ignore: decorator
@inline
function clamped(v: f32): f32 {
  return min(max(v, <f32>0), <f32>1);
}
// @ts-ignore: decorator
@inline
function put(src: usize, dst: usize, share: f32): void {
  v128.store(dst, f32x4.mul(v128.load(src), f32x4.splat(share)));
}
// @ts-ignore: decorator
@inline
function lot(v: u32): f32 {
  return <f32>(mixed(v) >> 8) * <f32>(1.0 / 16777216.0);
}

/** A row of which `at + i × step` shares are there, kept to 0…1. */
export function rampSpan(src: usize, dst: usize, n: i32, at: f32, step: f32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) put(src, dst, clamped(at + step * <f32>i));
}

/**
 * A row seen through slats. @param at place of the first pixel across the slats, in slats @param step slats a pixel
 * @param open how far each is open, 0…1 @param soft width of their soft edge @param pixel width of a pixel across them, both in slats
 */
export function slatSpan(src: usize, dst: usize, n: i32, at: f32, step: f32, open: f32, soft: f32, pixel: f32): void {
  const to: f32 = open * (<f32>1 + soft);
  const first: f32 = clamped(to / soft);
  const last: f32 = clamped((to - <f32>1) / soft);
  const half: f32 = pixel * <f32>0.5;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const v: f32 = at + step * <f32>i;
    const from: f32 = v - floor(v);
    let share: f32 = clamped((to - from) / soft);
    // where one slat ends in a pixel and the next begins
    if (from < half) share += (last - share) * (half - from) / pixel;
    else if (from > <f32>1 - half) share += (first - share) * (from - <f32>1 + half) / pixel;
    put(src, dst, share);
  }
}

/**
 * A row of what lies within an opening about a middle. @param x, y of the first pixel, from the middle and turned with the opening
 * @param stepX, stepY to the next pixel @param form 0 circle, 1 square, 2 diamond, 3 five-pointed star @param radius of the opening @param soft width of its soft edge
 */
export function irisSpan(
  src: usize, dst: usize, n: i32, x: f32, y: f32, stepX: f32, stepY: f32, form: i32, radius: f32, soft: f32,
): void {
  const per: f32 = <f32>1 / soft;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const u: f32 = abs(x + stepX * <f32>i);
    const v: f32 = y + stepY * <f32>i;
    let far: f32;
    if (form == 0) far = sqrt(u * u + v * v) - radius;
    else if (form == 1) far = max(u, abs(v)) - radius;
    else if (form == 2) far = (u + abs(v)) * <f32>0.70710678 - radius;
    else far = starDistance(u, v, radius);
    put(src, dst, clamped(<f32>0.5 - far * per));
  }
}
/** Signed distance to a star with five points, one of them up: folded to one half of one point. @param u at least 0 */
// @ts-ignore: decorator
@inline
function starDistance(u: f32, v: f32, radius: f32): f32 {
  // axes at 36° and at −36°, about which the plane is folded
  const k1x: f32 = 0.809016994;
  const k1y: f32 = -0.587785252;
  let px = u;
  let py = -v;
  const d1: f32 = max(k1x * px + k1y * py, <f32>0) * <f32>2;
  px -= d1 * k1x;
  py -= d1 * k1y;
  const d2: f32 = max(-k1x * px + k1y * py, <f32>0) * <f32>2;
  px += d2 * k1x;
  py -= d2 * k1y;
  px = abs(px);
  py -= radius;
  const inner: f32 = 0.45;
  const bx: f32 = inner * -k1y;
  const by: f32 = inner * k1x - <f32>1;
  const h: f32 = min(max((px * bx + py * by) / (bx * bx + by * by), <f32>0), radius);
  const qx: f32 = px - bx * h;
  const qy: f32 = py - by * h;
  const far: f32 = sqrt(qx * qx + qy * qy);
  return py * bx - px * by < 0 ? -far : far;
}

/**
 * A row of what a hand that turns clockwise has gone over. @param x, y of the first pixel from the hand's middle, the beginning upwards
 * @param stepX, stepY to the next pixel @param sin, cos of how far it has turned @param wide whether that is more than half @param soft width of the soft edges
 */
export function sweepSpan(
  src: usize, dst: usize, n: i32, x: f32, y: f32, stepX: f32, stepY: f32, sin: f32, cos: f32, wide: i32, soft: f32,
): void {
  const per: f32 = <f32>1 / soft;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const u: f32 = x + stepX * <f32>i;
    const v: f32 = y + stepY * <f32>i;
    const begun: f32 = clamped(<f32>0.5 + u * per);
    const ended: f32 = clamped(<f32>0.5 - (u * cos + v * sin) * per);
    put(src, dst, wide ? max(begun, ended) : min(begun, ended));
  }
}

/** A row of what is at most as bright as `edge`, or at least so. @param soft width of the ramp @param dark 1 = the dark first */
export function byBrightnessSpan(src: usize, dst: usize, n: i32, edge: f32, soft: f32, dark: i32): void {
  const per: f32 = <f32>1 / soft;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    const luma: f32 = clamped(
      lumaOf(p) / a,
    );
    put(src, dst, clamped((edge - (dark ? luma : <f32>1 - luma)) * per));
  }
}

/** A row of cells, each there from its own lot on. @param x of the first pixel and y, in cells @param step cells a pixel @param edge lots below this are there @param soft */
export function crumbleSpan(
  src: usize, dst: usize, n: i32, x: f32, y: f32, step: f32, seed: u32, edge: f32, soft: f32,
): void {
  const row = mixed(<u32><i32>floor(y) * 0x9e3779b1 + seed);
  const per: f32 = <f32>1 / soft;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const cell = <i32>floor(x + step * <f32>i);
    put(src, dst, clamped((edge - lot(<u32>cell ^ row)) * per));
  }
}

/** Noise along a line, −1…1: four octaves, smooth between whole places. */
// @ts-ignore: decorator
@inline
function raggedAt(along: f32, seed: u32): f32 {
  let sum: f32 = 0;
  let strength: f32 = 0.5;
  let at: f32 = along;
  for (let octave: u32 = 0; octave < 4; octave++, at *= 2.03, strength *= 0.5) {
    const cell = floor(at);
    const t: f32 = at - cell;
    const own = seed + octave * 0x68bc21eb;
    const a = lot(<u32><i32>cell + own);
    const b = lot(<u32>(<i32>cell + 1) + own);
    sum += strength * (<f32>2 * (a + (b - a) * t * t * (<f32>3 - <f32>2 * t)) - <f32>1);
  }
  return sum;
}

/**
 * A row of what lies on the near side of a tear, with the paper's fibre along it.
 * @param across of the first pixel, from the tear, positive where the picture is; pixels @param along the tear, in tooth widths @param stepAcross, stepAlong to the next pixel
 * @param rough how far the tear goes to either side, pixels @param rim width of the fibre that shows, pixels; @param red, green, blue of it
 */
export function tornSpan(
  src: usize, dst: usize, n: i32, across: f32, along: f32, stepAcross: f32, stepAlong: f32, rough: f32, rim: f32, seed: u32,
  red: f32, green: f32, blue: f32,
): void {
  const clear: f32 = rough + rim + <f32>0.5;
  const gone: f32 = -rough - <f32>0.5;
  const paper = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(1), 0, red), 1, green), 2, blue);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const at: f32 = along + stepAlong * <f32>i;
    const from: f32 = across + stepAcross * <f32>i;
    // far enough from the tear there is all of the picture, or nothing
    if (from >= clear) {
      v128.store(dst, v128.load(src));
      continue;
    }
    if (from <= gone) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    const inside: f32 = from + rough * raggedAt(at, seed);
    const there: f32 = clamped(inside + <f32>0.5);
    if (there <= 0) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    const p = v128.load(src);
    // the fibre ends raggedly too, by other teeth
    const bare: f32 = clamped(<f32>0.5 - inside + rim * (<f32>0.6 + <f32>0.4 * raggedAt(at * <f32>1.7, seed ^ 0x5bd1e995)));
    const alpha: f32 = f32x4.extract_lane(p, 3);
    const shown = f32x4.add(f32x4.mul(p, f32x4.splat(<f32>1 - bare)), f32x4.mul(paper, f32x4.splat(bare * alpha)));
    v128.store(dst, f32x4.mul(shown, f32x4.splat(there)));
  }
}
