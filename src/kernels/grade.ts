// Grading of premultiplied display-encoded pixels, four at a time where that pays.
import { alphas, blues, greens, lumas, pixel, reds, scatter, store4 } from './lanes';
import { decode, encode } from './light';
import { lookFour } from './tables';

/** Hue 0…1 from red by the hexagon of the channels, of four colours; 0 where they do not differ. @param most, span of the channels the largest, and by how much they differ */
// @ts-ignore: decorator
@inline
function hues(r: v128, g: v128, b: v128, most: v128, span: v128): v128 {
  const zero = f32x4.splat(0);
  const differ = f32x4.gt(span, zero);
  const per = f32x4.div(f32x4.splat(1), v128.bitselect(span, f32x4.splat(1), differ));
  const fromGreen = f32x4.add(f32x4.mul(f32x4.sub(b, r), per), f32x4.splat(2));
  const fromBlue = f32x4.add(f32x4.mul(f32x4.sub(r, g), per), f32x4.splat(4));
  const six = v128.bitselect(f32x4.mul(f32x4.sub(g, b), per), v128.bitselect(fromGreen, fromBlue, f32x4.eq(most, g)), f32x4.eq(most, r));
  const round = f32x4.add(six, v128.and(f32x4.lt(six, zero), f32x4.splat(6)));
  return v128.and(f32x4.mul(round, f32x4.splat(<f32>(1.0 / 6.0))), differ);
}
// @ts-ignore: decorator
@inline
function largest(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmax(r, f32x4.pmax(g, b));
}
// @ts-ignore: decorator
@inline
function least(r: v128, g: v128, b: v128): v128 {
  return f32x4.pmin(r, f32x4.pmin(g, b));
}
/** Alphas to divide by: 1 where nothing is. */
// @ts-ignore: decorator
@inline
function whole(a: v128): v128 {
  return v128.bitselect(a, f32x4.splat(1), f32x4.gt(a, f32x4.splat(0)));
}

/** Row of a matrix times four reds, greens and blues. */
// @ts-ignore: decorator
@inline
function mixedBy(m: usize, r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(r, v128.load32_splat(m)), f32x4.mul(g, v128.load32_splat(m, 4))), f32x4.mul(b, v128.load32_splat(m, 8)));
}

/** A matrix of nine floats, row by row, on linear light. */
export function lightMatrixSpan(src: usize, dst: usize, n: i32, m: usize): void {
  const zero = f32x4.splat(0);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = left > 1 ? v128.load(src, 16) : zero;
    const p2 = left > 2 ? v128.load(src, 32) : zero;
    const p3 = left > 3 ? v128.load(src, 48) : zero;
    const a = alphas(p0, p1, p2, p3);
    const per = f32x4.div(f32x4.splat(1), f32x4.pmax(a, f32x4.splat(<f32>1e-9)));
    const r = decode(f32x4.mul(reds(p0, p1, p2, p3), per));
    const g = decode(f32x4.mul(greens(p0, p1, p2, p3), per));
    const b = decode(f32x4.mul(blues(p0, p1, p2, p3), per));
    scatter(dst, f32x4.mul(encode(mixedBy(m, r, g, b)), a), f32x4.mul(encode(mixedBy(m + 12, r, g, b)), a), f32x4.mul(encode(mixedBy(m + 24, r, g, b)), a), a, left);
  }
}

/** A matrix of nine floats, row by row, on the encoded values; what falls below nothing is nothing. */
export function matrixSpan(src: usize, dst: usize, n: i32, m: usize): void {
  const zero = f32x4.splat(0);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = left > 1 ? v128.load(src, 16) : zero;
    const p2 = left > 2 ? v128.load(src, 32) : zero;
    const p3 = left > 3 ? v128.load(src, 48) : zero;
    const r = reds(p0, p1, p2, p3);
    const g = greens(p0, p1, p2, p3);
    const b = blues(p0, p1, p2, p3);
    scatter(dst, f32x4.pmax(mixedBy(m, r, g, b), zero), f32x4.pmax(mixedBy(m + 12, r, g, b), zero), f32x4.pmax(mixedBy(m + 24, r, g, b), zero), alphas(p0, p1, p2, p3), left);
  }
}

/** Writes up to four straight colours back, premultiplied: apart from their luma by s, and times a gain. */
// @ts-ignore: decorator
@inline
function putApart(dst: usize, r: v128, g: v128, b: v128, luma: v128, s: v128, gain: v128, a: v128, left: i32): void {
  const zero = f32x4.splat(0);
  const x = f32x4.mul(f32x4.add(luma, f32x4.mul(f32x4.sub(r, luma), s)), gain);
  const y = f32x4.mul(f32x4.add(luma, f32x4.mul(f32x4.sub(g, luma), s)), gain);
  const z = f32x4.mul(f32x4.add(luma, f32x4.mul(f32x4.sub(b, luma), s)), gain);
  scatter(dst, f32x4.mul(f32x4.pmax(x, zero), a), f32x4.mul(f32x4.pmax(y, zero), a), f32x4.mul(f32x4.pmax(z, zero), a), a, left);
}

/** Brightness and saturation by luma. @param gains, saturations tables over luma 0…1, steps+1 floats each */
export function byLumaSpan(src: usize, dst: usize, n: i32, gains: usize, saturations: usize, steps: i32): void {
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, left);
    const p2 = pixel(src, 2, left);
    const p3 = pixel(src, 3, left);
    const a = alphas(p0, p1, p2, p3);
    const by = whole(a);
    const r = f32x4.div(reds(p0, p1, p2, p3), by);
    const g = f32x4.div(greens(p0, p1, p2, p3), by);
    const b = f32x4.div(blues(p0, p1, p2, p3), by);
    const luma = lumas(r, g, b);
    putApart(dst, r, g, b, luma, lookFour(saturations, luma, steps), lookFour(gains, luma, steps), a, left);
  }
}

/** A channel of a colour of a hue (six times it), as far above the least channel as the others allow: how far its hue is off where it is strongest. */
// @ts-ignore: decorator
@inline
function channelAt(off: v128): v128 {
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), off));
}

/**
 * Hue, saturation and brightness by hue, then saturation by saturation.
 * @param turns, saturations, gains tables over the colour circle 0…1 from red: what is added to the hue (turns), and factors
 * @param bySaturation factors of saturation over saturation 0…1 @param steps of each table, which has steps+1 floats
 */
export function byHueSpan(src: usize, dst: usize, n: i32, turns: usize, saturations: usize, gains: usize, bySaturation: usize, steps: i32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const two = f32x4.splat(2);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, left);
    const p2 = pixel(src, 2, left);
    const p3 = pixel(src, 3, left);
    const a = alphas(p0, p1, p2, p3);
    const by = whole(a);
    let r = f32x4.div(reds(p0, p1, p2, p3), by);
    let g = f32x4.div(greens(p0, p1, p2, p3), by);
    let b = f32x4.div(blues(p0, p1, p2, p3), by);
    const most = largest(r, g, b);
    const low = least(r, g, b);
    const span = f32x4.sub(most, low);
    if (!v128.any_true(f32x4.gt(span, zero))) {
      store4(dst, p0, p1, p2, p3, left);
      continue;
    }
    const hue = hues(r, g, b, most, span);
    const turn = lookFour(turns, hue, steps);
    const turned = f32x4.ne(turn, zero);
    if (v128.any_true(turned)) {
      const sum = f32x4.add(hue, turn);
      const now = f32x4.mul(f32x4.sub(sum, f32x4.floor(sum)), f32x4.splat(6));
      const x = f32x4.add(low, f32x4.mul(span, channelAt(f32x4.sub(f32x4.abs(f32x4.sub(now, f32x4.splat(3))), one))));
      const y = f32x4.add(low, f32x4.mul(span, channelAt(f32x4.sub(two, f32x4.abs(f32x4.sub(now, two))))));
      const z = f32x4.add(low, f32x4.mul(span, channelAt(f32x4.sub(two, f32x4.abs(f32x4.sub(now, f32x4.splat(4)))))));
      // as bright as it was
      const scale = f32x4.div(lumas(r, g, b), f32x4.pmax(lumas(x, y, z), f32x4.splat(<f32>1e-6)));
      r = v128.bitselect(f32x4.mul(x, scale), r, turned);
      g = v128.bitselect(f32x4.mul(y, scale), g, turned);
      b = v128.bitselect(f32x4.mul(z, scale), b, turned);
    }
    const saturation = v128.and(f32x4.div(span, most), f32x4.gt(most, zero));
    const share = f32x4.pmin(f32x4.mul(saturation, f32x4.splat(6)), one);
    const strong = f32x4.add(one, f32x4.mul(f32x4.sub(lookFour(saturations, hue, steps), one), share));
    const gain = f32x4.add(one, f32x4.mul(f32x4.sub(lookFour(gains, hue, steps), one), f32x4.pmin(saturation, one)));
    putApart(dst, r, g, b, lumas(r, g, b), f32x4.mul(strong, lookFour(bySaturation, saturation, steps)), gain, a, left);
  }
}

/** Colours by brightness. @param table steps+1 times four floats over luma 0…1: a colour and how much of it is taken @param keep 1 keeps how bright it was */
export function toneSpan(src: usize, dst: usize, n: i32, table: usize, steps: i32, keep: i32): void {
  const zero = f32x4.splat(0);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, left);
    const p2 = pixel(src, 2, left);
    const p3 = pixel(src, 3, left);
    const a = alphas(p0, p1, p2, p3);
    const by = whole(a);
    const r = f32x4.div(reds(p0, p1, p2, p3), by);
    const g = f32x4.div(greens(p0, p1, p2, p3), by);
    const b = f32x4.div(blues(p0, p1, p2, p3), by);
    const luma = lumas(r, g, b);
    const at = f32x4.mul(f32x4.pmin(f32x4.pmax(luma, zero), f32x4.splat(<f32>0.99999)), f32x4.splat(<f32>steps));
    const row = i32x4.trunc_sat_f32x4_s(at);
    const part = f32x4.sub(at, f32x4.convert_i32x4_s(row));
    const t0 = toneAt(table, i32x4.extract_lane(row, 0), v128.shuffle<f32>(part, part, 0, 0, 0, 0));
    const t1 = toneAt(table, i32x4.extract_lane(row, 1), v128.shuffle<f32>(part, part, 1, 1, 1, 1));
    const t2 = toneAt(table, i32x4.extract_lane(row, 2), v128.shuffle<f32>(part, part, 2, 2, 2, 2));
    const t3 = toneAt(table, i32x4.extract_lane(row, 3), v128.shuffle<f32>(part, part, 3, 3, 3, 3));
    const x = reds(t0, t1, t2, t3);
    const y = greens(t0, t1, t2, t3);
    const z = blues(t0, t1, t2, t3);
    const share = alphas(t0, t1, t2, t3);
    const off = keep ? f32x4.sub(luma, lumas(x, y, z)) : zero;
    scatter(dst, toned(r, x, off, share, a), toned(g, y, off, share, a), toned(b, z, off, share, a), a, left);
  }
}
// @ts-ignore: decorator
@inline
function toneAt(table: usize, row: i32, part: v128): v128 {
  const at = table + (<usize>row << 4);
  const low = v128.load(at);
  return f32x4.add(low, f32x4.mul(f32x4.sub(v128.load(at, 16), low), part));
}
// @ts-ignore: decorator
@inline
function toned(own: v128, tone: v128, off: v128, share: v128, a: v128): v128 {
  const out = f32x4.add(own, f32x4.mul(f32x4.sub(f32x4.add(tone, off), own), share));
  return f32x4.mul(f32x4.pmax(out, f32x4.splat(0)), a);
}

/**
 * How much each pixel belongs to a range of colours.
 * @param hueTable, saturations, lumaTable tables over 0…1, steps+1 floats each: how much each belongs @param out one float a pixel
 */
export function colourRangePlane(src: usize, n: i32, hueTable: usize, saturations: usize, lumaTable: usize, steps: i32, out: usize): void {
  const zero = f32x4.splat(0);
  for (let left = n; left > 0; left -= 4, src += 64, out += 16) {
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, left);
    const p2 = pixel(src, 2, left);
    const p3 = pixel(src, 3, left);
    const by = whole(alphas(p0, p1, p2, p3));
    const r = f32x4.div(reds(p0, p1, p2, p3), by);
    const g = f32x4.div(greens(p0, p1, p2, p3), by);
    const b = f32x4.div(blues(p0, p1, p2, p3), by);
    const most = largest(r, g, b);
    const span = f32x4.sub(most, least(r, g, b));
    const saturation = v128.and(f32x4.div(span, most), f32x4.gt(most, zero));
    const byColour = f32x4.mul(lookFour(hueTable, hues(r, g, b, most, span), steps), lookFour(saturations, saturation, steps));
    const belongs = f32x4.mul(byColour, lookFour(lumaTable, lumas(r, g, b), steps));
    if (left >= 4) v128.store(out, belongs);
    else {
      store<f32>(out, f32x4.extract_lane(belongs, 0));
      if (left > 1) store<f32>(out, f32x4.extract_lane(belongs, 1), 4);
      if (left > 2) store<f32>(out, f32x4.extract_lane(belongs, 2), 8);
    }
  }
}

/**
 * Darkens or brightens by how far a pixel lies from a middle. @param x, y of the first pixel
 * @param table gain of linear light over distance 0…2 of the radii, steps+1 floats @param cos, sin of the shape's turn
 * @param square 0 an ellipse … 1 a rectangle
 */
export function vignetteSpan(src: usize, dst: usize, n: i32, x: i32, y: i32, cx: f32, cy: f32, rx: f32, ry: f32, cos: f32, sin: f32, square: f32, table: usize, steps: i32): void {
  const dy: f32 = <f32>y + <f32>0.5 - cy;
  const zero = f32x4.splat(0);
  const first: f32 = <f32>x + <f32>0.5 - cx;
  const one = f32x4.splat(1);
  for (let left = n, i: i32 = 0; left > 0; left -= 4, i += 4, src += 64, dst += 64) {
    const dx = f32x4.add(f32x4.splat(first + <f32>i), f32x4(0, 1, 2, 3));
    const u = f32x4.mul(f32x4.abs(f32x4.add(f32x4.mul(dx, f32x4.splat(cos)), f32x4.splat(dy * sin))), f32x4.splat(<f32>1 / rx));
    const v = f32x4.mul(f32x4.abs(f32x4.sub(f32x4.splat(dy * cos), f32x4.mul(dx, f32x4.splat(sin)))), f32x4.splat(<f32>1 / ry));
    const far = f32x4.sqrt(f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v)));
    // between the circle and the square about it
    const off = f32x4.add(far, f32x4.mul(f32x4.sub(f32x4.pmax(u, v), far), f32x4.splat(square)));
    const gains = lookFour(table, f32x4.mul(off, f32x4.splat(0.5)), steps);
    if (v128.all_true<i32>(f32x4.eq(gains, one))) {
      memory.copy(dst, src, <usize>min(left, 4) << 4);
      continue;
    }
    const p0 = v128.load(src);
    const p1 = left > 1 ? v128.load(src, 16) : zero;
    const p2 = left > 2 ? v128.load(src, 32) : zero;
    const p3 = left > 3 ? v128.load(src, 48) : zero;
    const a = alphas(p0, p1, p2, p3);
    const per = f32x4.div(f32x4.splat(1), f32x4.pmax(a, f32x4.splat(<f32>1e-9)));
    const r = encode(f32x4.mul(decode(f32x4.mul(reds(p0, p1, p2, p3), per)), gains));
    const g = encode(f32x4.mul(decode(f32x4.mul(greens(p0, p1, p2, p3), per)), gains));
    const b = encode(f32x4.mul(decode(f32x4.mul(blues(p0, p1, p2, p3), per)), gains));
    scatter(dst, f32x4.mul(r, a), f32x4.mul(g, a), f32x4.mul(b, a), a, left);
  }
}
