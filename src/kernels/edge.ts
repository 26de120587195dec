// Colour at the edges of what was cut out, and keys side by side.
import { decode, encode, straight } from './light';

/** A pixel is solid from here on. */
const SOLID: f32 = 0.97;

/** What is done with a pixel when colour is carried out to the edge: nothing, it lends its colour, it borrows one, or it may do both. */
const LENDS: u8 = 1;
const BORROWS: u8 = 2;
const BESIDE: u8 = 3;
/** Light of the screen is mixed into solid pixels up to this many from the edge, because coding and lenses blur. */
const MIXED: i32 = 2;
/** A pixel beside the edge counts this much of one farther in. */
const BESIDE_SHARE: f32 = 0.02;

// @ts-ignore: decorator
@inline
function isSolid(marks: usize, w: i32, h: i32, x: i32, y: i32): bool {
  return <u32>x < <u32>w && <u32>y < <u32>h && (load<u8>(marks + (y * w + x)) & LENDS) != 0;
}

/** Four pixels' marks by their coverage. */
// @ts-ignore: decorator
@inline
function marksOf(at: usize): v128 {
  let alpha = v128.load32_zero(at, 12);
  alpha = v128.load32_lane(at, alpha, 1, 28);
  alpha = v128.load32_lane(at, alpha, 2, 44);
  alpha = v128.load32_lane(at, alpha, 3, 60);
  const some = v128.and(f32x4.gt(alpha, f32x4.splat(0)), i32x4.splat(BORROWS));
  return v128.bitselect(i32x4.splat(LENDS), some, f32x4.ge(alpha, f32x4.splat(SOLID)));
}

/** Sorts pixels for the work on the edge: those partly clear borrow, solid ones lend. @param marks one byte a pixel */
export function edgeMarks(at: usize, n: i32, marks: usize): void {
  let i = 0;
  for (; i + 16 <= n; i += 16, at += 256) {
    const low = i16x8.narrow_i32x4_s(marksOf(at), marksOf(at + 64));
    const high = i16x8.narrow_i32x4_s(marksOf(at + 128), marksOf(at + 192));
    v128.store(marks + i, i8x16.narrow_i16x8_s(low, high));
  }
  for (; i < n; i++, at += 16) {
    const alpha = load<f32>(at, 12);
    store<u8>(marks + i, alpha >= SOLID ? LENDS : alpha > 0 ? BORROWS : 0);
  }
}

/** Tells solid pixels right beside the edge from those farther in. @param marks one byte a pixel, sorted, with room for sixteen more */
export function besideMarks(marks: usize, w: i32, h: i32): void {
  const lends = i8x16.splat(LENDS);
  for (let y = 0; y < h; y++) {
    const row = marks + y * w;
    const above = y > 0 ? row - w : row;
    const below = y < h - 1 ? row + w : row;
    for (let x = 0; x < w; x += 16) {
      // sixteen pixels at a time are passed over when none of them can be a clear one beside a solid one
      const sides = v128.or(x > 0 ? v128.load(row + x - 1) : lends, v128.load(row + x + 1));
      const around = v128.or(sides, v128.or(v128.load(above + x), v128.load(below + x)));
      if (v128.any_true(v128.and(v128.andnot(around, v128.load(row + x)), lends))) markBeside(marks, w, h, x, y);
    }
  }
}

/** Marks what is solid near those of sixteen pixels that are not solid but have a solid one beside them. */
function markBeside(marks: usize, w: i32, h: i32, x0: i32, y: i32): void {
  for (let x = x0; x < min(x0 + 16, w); x++) {
    if (isSolid(marks, w, h, x, y) || !(isSolid(marks, w, h, x - 1, y) || isSolid(marks, w, h, x + 1, y) || isSolid(marks, w, h, x, y - 1) || isSolid(marks, w, h, x, y + 1))) continue;
    for (let v = y - MIXED; v <= y + MIXED; v++) for (let u = x - MIXED; u <= x + MIXED; u++) if (isSolid(marks, w, h, u, v)) store<u8>(marks + (v * w + u), BESIDE);
  }
}

/** Pixels that lend as they are, those beside the edge by a small share of themselves, the others clear. */
export function lendersOnly(src: usize, marks: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const mark = load<u8>(marks + i);
    const share: f32 = mark == LENDS ? 1 : mark == BESIDE ? BESIDE_SHARE : 0;
    v128.store(dst, f32x4.mul(v128.load(src), f32x4.splat(share)));
  }
}

/** How strong the screen's channel is against the larger of the others; two colours that differ in this by the screen's light. */
// @ts-ignore: decorator
@inline
function castOf(p: v128, channel: i32): f32 {
  const r = f32x4.extract_lane(p, 0);
  const g = f32x4.extract_lane(p, 1);
  const b = f32x4.extract_lane(p, 2);
  const others = channel == 0 ? max(g, b) : channel == 1 ? max(r, b) : max(r, g);
  return (channel == 0 ? r : channel == 1 ? g : b) / max(others, <f32>0.02);
}

/** A solid pixel beside the edge has the screen's light when its cast exceeds that of the colour farther in by so much. */
const CAST: f32 = 0.1;

/**
 * Gives pixels that borrow the colour of another picture, where that has any, and leaves their coverage.
 * @param channel of the screen, whose light is looked for in pixels beside the edge
 */
export function colourFrom(at: usize, other: usize, marks: usize, n: i32, channel: i32): void {
  for (let i = 0; i < n; i++, at += 16, other += 16) {
    const mark = load<u8>(marks + i);
    const weight = load<f32>(other, 12);
    if (mark < BORROWS || weight < <f32>1e-3) continue;
    const alpha = load<f32>(at, 12);
    const own = v128.load(at);
    const lent = f32x4.mul(v128.load(other), f32x4.splat(alpha / weight));
    if (mark == BESIDE && castOf(own, channel) < castOf(lent, channel) + CAST) continue;
    // little weight means that solid colour is far away: then the pixel keeps its own
    const trust = min(<f32>1, weight * 8);
    v128.store(at, f32x4.replace_lane(f32x4.add(own, f32x4.mul(f32x4.sub(lent, own), f32x4.splat(trust))), 3, alpha));
  }
}

/** Of two pictures the pixel that covers more, or less. */
export function pickByAlpha(a: usize, b: usize, dst: usize, n: i32, more: i32): void {
  for (let i = 0; i < n; i++, a += 16, b += 16, dst += 16) {
    const first = more ? load<f32>(a, 12) >= load<f32>(b, 12) : load<f32>(a, 12) <= load<f32>(b, 12);
    v128.store(dst, v128.load(first ? a : b));
  }
}

/** How far two straight display-encoded colours are apart: luma, and colour about twice as much as luma, as one float a pixel. */
export function differencePlane(a: usize, b: usize, n: i32, dst: usize): void {
  for (let i = 0; i < n; i++, a += 16, b += 16, dst += 4) {
    const d = f32x4.sub(straight(v128.load(a)), straight(v128.load(b)));
    const r = f32x4.extract_lane(d, 0);
    const g = f32x4.extract_lane(d, 1);
    const l = f32x4.extract_lane(d, 2);
    const y: f32 = <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * l;
    const u: f32 = l - y;
    const v: f32 = r - y;
    store<f32>(dst, sqrt<f32>(y * y + <f32>1.5 * (u * u + v * v)));
  }
}

/** F = (C − (1−α)B)/α in linear light with the plate as B, covered by α; the plane has one float a pixel. */
export function unmixPlate(src: usize, plate: usize, plane: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, plate += 16, plane += 4, dst += 16) {
    const share = load<f32>(plane);
    const p = v128.load(src);
    if (share >= 1 || share <= 0) {
      v128.store(dst, share > 0 ? p : f32x4.splat(0));
      continue;
    }
    const c = decode(straight(p));
    const b = decode(straight(v128.load(plate)));
    const f = f32x4.mul(f32x4.pmax(f32x4.sub(c, f32x4.mul(b, f32x4.splat(<f32>1 - share))), f32x4.splat(0)), f32x4.splat(<f32>1 / share));
    const alpha: f32 = load<f32>(src, 12) * share;
    const out = f32x4.mul(encode(f32x4.pmin(f, f32x4.splat(1))), f32x4.splat(alpha));
    v128.store(dst, f32x4.replace_lane(out, 3, alpha));
  }
}

/** The same colours with other coverage: straight colour of src, alpha of the plane. */
export function coverBy(src: usize, plane: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, plane += 4, dst += 16) {
    const alpha = load<f32>(plane);
    v128.store(dst, f32x4.replace_lane(f32x4.mul(straight(v128.load(src)), f32x4.splat(alpha)), 3, alpha));
  }
}

/**
 * Screens the light below over the inner edge of a layer, in place.
 * @param under blurred picture of what is below @param soft the layer blurred alike, for its alpha
 */
export function lightWrap(at: usize, under: usize, soft: usize, n: i32, strength: f32): void {
  for (let i = 0; i < n; i++, at += 16, under += 16, soft += 16) {
    const alpha = load<f32>(at, 12);
    const share = min(<f32>1, max(<f32>0, (<f32>1 - load<f32>(soft, 12)) * <f32>2)) * strength;
    if (alpha <= 0 || share <= 0) continue;
    const own = v128.load(at);
    const light = f32x4.pmin(f32x4.mul(v128.load(under), f32x4.splat(share)), f32x4.splat(1));
    // premultiplied screen that leaves the coverage: F + (α − F)·U
    const lit = f32x4.add(own, f32x4.mul(f32x4.sub(f32x4.splat(alpha), own), light));
    v128.store(at, f32x4.replace_lane(lit, 3, alpha));
  }
}

/** True when none of sixteen pixels borrows. */
// @ts-ignore: decorator
@inline
function noneBorrows(marks: usize): bool {
  return !v128.any_true(v128.and(v128.load(marks), i8x16.splat(BORROWS)));
}

const LOWEST: u64 = 0x0101010101010101;

/** Of up to eight pixels those that lend, as the lowest bit of their bytes. @param beside whether those beside the edge lend too */
// @ts-ignore: decorator
@inline
function lendersOf(marks: usize, count: i32, beside: bool): u64 {
  const eight = load<u64>(marks);
  // BESIDE has the bits of both others
  const lend = (beside ? eight : eight & ~(eight >> 1)) & LOWEST;
  return count < 8 ? lend & ((<u64>1 << (<u64>count << 3)) - 1) : lend;
}

/**
 * Gives each pixel that borrows the mean colour of those that lend up to r away, near ones first, and leaves its coverage. Those
 * beside the edge borrow when they have the screen's light. In place. @param channel of the screen
 */
export function extendNear(at: usize, w: i32, h: i32, r: i32, marks: usize, channel: i32): void {
  const reach = <f32>((r + 1) * (r + 1));
  for (let y = 0, i = 0; y < h; y++) {
    for (let x = 0; x < w; x++, i++) {
      if (x + 16 <= w && noneBorrows(marks + i)) {
        x += 15;
        i += 15;
        continue;
      }
      const mark = load<u8>(marks + i);
      if (mark < BORROWS) continue;
      let sum = f32x4.splat(0);
      let weight: f32 = 0;
      const left = max(0, x - r);
      const right = min(w - 1, x + r);
      for (let v = max(0, y - r); v <= min(h - 1, y + r); v++) {
        const row = marks + v * w;
        for (let from = left; from <= right; from += 8) {
          for (let lenders = lendersOf(row + from, right - from + 1, mark != BESIDE); lenders; lenders &= lenders - 1) {
            const u = from + (<i32>ctz(lenders) >> 3);
            let near: f32 = reach - <f32>((u - x) * (u - x) + (v - y) * (v - y));
            if (near <= 0) continue;
            if (load<u8>(row + u) == BESIDE) near *= BESIDE_SHARE;
            const p = v128.load(at + (<usize>(v * w + u) << 4));
            sum = f32x4.add(sum, f32x4.mul(p, f32x4.splat(near)));
            weight += near * f32x4.extract_lane(p, 3);
          }
        }
      }
      if (weight <= 0) continue;
      const own = v128.load(at + (<usize>i << 4));
      const alpha = f32x4.extract_lane(own, 3);
      const lent = f32x4.mul(sum, f32x4.splat(alpha / weight));
      if (mark == BESIDE && castOf(own, channel) < castOf(lent, channel) + CAST) continue;
      v128.store(at + (<usize>i << 4), f32x4.replace_lane(lent, 3, alpha));
    }
  }
}
