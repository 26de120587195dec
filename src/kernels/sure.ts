// What is sure of a matte: what is solid, or clear, as far as some pixels around.
import { bytesOf, held } from './lanes';

/** Bits of the marks. */
export const SOLID: u8 = 1;
export const CLEAR: u8 = 2;
/** Solid, and far from any edge. */
export const DEEP: u8 = 4;

/** Bytes before and after each row of a plane of marks that is worked on. */
const MARGIN: i32 = 16;
// @ts-ignore: decorator
@inline
function strideOf(w: i32): i32 {
  return (w + MARGIN + MARGIN + 15) & ~15;
}

/** Writes what a matte says by itself, solid or clear, into rows with margins that say both. @param offset, gain from the values of the plane to the matte */
function kindsOf(plane: usize, w: i32, h: i32, offset: f32, gain: f32, out: usize): void {
  const stride = strideOf(w);
  const low = f32x4.splat(<f32>0.03 / gain + offset);
  const high = f32x4.splat(<f32>0.97 / gain + offset);
  memory.fill(out, 0xff, stride * h);
  for (let y = 0; y < h; y++) {
    const row = plane + (<usize>(y * w) << 2);
    const to = out + y * stride + MARGIN;
    let x = 0;
    for (; x + 16 <= w; x += 16) {
      const at = row + (<usize>x << 2);
      const first = i16x8.narrow_i32x4_s(kindsIn(v128.load(at), low, high), kindsIn(v128.load(at, 16), low, high));
      const second = i16x8.narrow_i32x4_s(kindsIn(v128.load(at, 32), low, high), kindsIn(v128.load(at, 48), low, high));
      v128.store(to + x, i8x16.narrow_i16x8_u(first, second));
    }
    for (; x < w; x++) store<u8>(to + x, <u8>i32x4.extract_lane(kindsIn(v128.load32_splat(row + (<usize>x << 2)), low, high), 0));
  }
}
// @ts-ignore: decorator
@inline
function kindsIn(v: v128, low: v128, high: v128): v128 {
  return v128.or(v128.and(f32x4.ge(v, high), i32x4.splat(SOLID)), v128.and(f32x4.le(v, low), i32x4.splat(CLEAR)));
}

/** What three pixels have in common, or what any of them has: itself and those `step` before and after it. @param far bytes from one to the next, along rows or columns */
function together(from: usize, to: usize, w: i32, h: i32, step: i32, along: bool, any: bool): void {
  const stride = strideOf(w);
  for (let y = 0; y < h; y++) {
    const row = from + y * stride + MARGIN;
    const before = along ? row - step : from + max(0, y - step) * stride + MARGIN;
    const after = along ? row + step : from + min(h - 1, y + step) * stride + MARGIN;
    const out = to + y * stride + MARGIN;
    for (let x = 0; x < w; x += 16) {
      const own = v128.load(row + x);
      const a = v128.load(before + x);
      const b = v128.load(after + x);
      v128.store(out + x, any ? v128.or(own, v128.or(a, b)) : v128.and(own, v128.and(a, b)));
    }
  }
}

/** Widens a square about each pixel, over which bits are joined, from one radius to another. @returns where the result is: `at` or `other` */
function widened(at: usize, other: usize, w: i32, h: i32, from: i32, to: i32, any: bool): usize {
  for (let along = 0; along < 2; along++) {
    for (let r = from; r < to; ) {
      // squares that have no gap between them, and do not reach beyond the margin
      const step = min(min(to - r, r + r + 1), MARGIN);
      together(at, other, w, h, step, along == 0, any);
      const last = at;
      at = other;
      other = last;
      r += step;
    }
  }
  return at;
}

/** Bytes that sureMarks and nearBoth work in. */
export function marksScratch(w: i32, h: i32): i32 {
  return 2 * strideOf(w) * h + MARGIN;
}

/**
 * Marks pixels that are solid as far as `solid` pixels around, clear as far as `clear` pixels, and solid as far as `deep` pixels; nothing lies
 * outside. solid ≤ clear ≤ deep. @param offset, gain from the values of the plane to the matte @param scratch as marksScratch says
 */
export function sureMarks(plane: usize, w: i32, h: i32, offset: f32, gain: f32, solid: i32, clear: i32, deep: i32, marks: usize, scratch: usize): void {
  const stride = strideOf(w);
  const second = scratch + stride * h;
  kindsOf(plane, w, h, offset, gain, scratch);
  memory.fill(marks, 0, w * h);
  let at = scratch;
  let done = 0;
  for (let k = 0; k < 3; k++) {
    const to = k == 0 ? solid : k == 1 ? clear : deep;
    at = widened(at, at == scratch ? second : scratch, w, h, done, to, false);
    done = to;
    const bit = k == 1 ? CLEAR : SOLID;
    const shift: u8 = k == 2 ? 2 : 0;
    for (let y = 0; y < h; y++) {
      const row = at + y * stride + MARGIN;
      const out = marks + y * w;
      let x = 0;
      const bits = i8x16.splat(bit);
      for (; x + 16 <= w; x += 16) v128.store(out + x, v128.or(v128.load(out + x), i8x16.shl(v128.and(v128.load(row + x), bits), shift)));
      for (; x < w; x++) store<u8>(out + x, load<u8>(out + x) | ((load<u8>(row + x) & bit) << shift));
    }
  }
}

/**
 * How wide the edges of a matte are, pixels: those that are half clear for each crossing of one half along rows and columns, of every third row.
 * @param plane with room for three more @param offset, gain from its values to the matte
 */
export function edgeWidth(plane: usize, w: i32, h: i32, offset: f32, gain: f32): f32 {
  const low = f32x4.splat(offset + <f32>0.1 / gain);
  const half = f32x4.splat(offset + <f32>0.5 / gain);
  const high = f32x4.splat(offset + <f32>0.9 / gain);
  const line = <usize>w << 2;
  let band = 0;
  let crossings = 0;
  for (let y = 1; y < h; y += 3) {
    const row = plane + line * <usize>y;
    for (let x = 1; x < w; x += 4) {
      const at = row + (<usize>x << 2);
      const v = v128.load(at);
      const solid = f32x4.ge(v, half);
      const soft = v128.and(f32x4.gt(v, low), f32x4.lt(v, high));
      const across = v128.xor(solid, f32x4.ge(v128.load(at - 4), half));
      const down = v128.xor(solid, f32x4.ge(v128.load(at - line), half));
      // those beyond the row's end do not count
      const those = w - x < 4 ? (1 << (w - x)) - 1 : 15;
      band += popcnt(i32x4.bitmask(soft) & those);
      crossings += popcnt(i32x4.bitmask(across) & those) + popcnt(i32x4.bitmask(down) & those);
    }
  }
  // a slanting edge is crossed both ways
  return crossings ? (<f32>band * <f32>1.27) / <f32>crossings : 0;
}

/** True when any pixel of a square tile is marked; there are sixteen bytes more than marks. */
export function anyMarked(marks: usize, w: i32, h: i32, x0: i32, y0: i32, side: i32): bool {
  let all = i8x16.splat(0);
  const right = min(w, x0 + side);
  for (let y = y0; y < min(h, y0 + side); y++) {
    let x = x0;
    for (; x + 16 <= right; x += 16) all = v128.or(all, v128.load(marks + y * w + x));
    for (; x < right; x++) all = v128.or(all, i8x16.splat(load<u8>(marks + y * w + x)));
  }
  return v128.any_true(all);
}

/**
 * Marks pixels without a mark where something surely solid and something clear are both within r pixels: at edges without hair.
 * @param cut the matte that says what is clear, with its offset and gain @param near 255 where it is so, else 0; with room for sixteen more
 * @param scratch as marksScratch says
 */
export function nearBoth(cut: usize, marks: usize, w: i32, h: i32, offset: f32, gain: f32, r: i32, near: usize, scratch: usize): void {
  const stride = strideOf(w);
  kindsOf(cut, w, h, offset, gain, scratch);
  for (let y = 0; y < h; y++) {
    const row = scratch + y * stride;
    const from = marks + y * w;
    memory.fill(row, 0, MARGIN);
    memory.fill(row + MARGIN + w, 0, stride - MARGIN - w);
    let x = 0;
    for (; x + 16 <= w; x += 16) {
      const own = v128.and(v128.load(row + MARGIN + x), i8x16.splat(CLEAR));
      v128.store(row + MARGIN + x, v128.or(own, v128.and(v128.load(from + x), i8x16.splat(SOLID))));
    }
    for (; x < w; x++) store<u8>(row + MARGIN + x, (load<u8>(row + MARGIN + x) & CLEAR) | (load<u8>(from + x) & SOLID));
  }
  const joined = widened(scratch, scratch + stride * h, w, h, 0, r, true);
  const both = i8x16.splat(SOLID | CLEAR);
  for (let y = 0; y < h; y++) {
    // the rows' ends are written over by the next one's beginning
    for (let x = 0; x < w; x += 16) {
      const here = i8x16.eq(v128.load(joined + y * stride + MARGIN + x), both);
      v128.store(near + y * w + x, v128.and(here, i8x16.eq(v128.load(marks + y * w + x), i8x16.splat(0))));
    }
  }
}

/** Moves marked pixels of a matte towards another one. @param offset, gain from the other's values to the matte @param share 0…1 @param n pixels, with room for three more */
export function towardsMarked(out: usize, other: usize, marks: usize, n: i32, offset: f32, gain: f32, share: f32): void {
  for (let end = marks + n; marks < end; marks += 4, out += 16, other += 16) {
    const four = load<u32>(marks);
    if (!four) continue;
    const v = v128.load(out);
    const to = held(f32x4.mul(f32x4.sub(v128.load(other), f32x4.splat(offset)), f32x4.splat(gain)));
    const moved = f32x4.add(v, f32x4.mul(f32x4.sub(to, v), f32x4.splat(share)));
    v128.store(out, v128.bitselect(moved, v, i32x4.ne(bytesOf(four), i32x4.splat(0))));
  }
}
