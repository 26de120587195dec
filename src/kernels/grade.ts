// Grading of premultiplied display-encoded pixels, four at a time where that pays.
import { alphas, blues, greens, reds, scatter } from './lanes';
import { decode, encode, straight } from './light';
import { look } from './tables';

// @ts-ignore: decorator
@inline
function lumaOf(r: f32, g: f32, b: f32): f32 {
  return <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * b;
}
/** Hue 0…1 from red by the hexagon of the channels, and by how much the channels differ. */
let span: f32 = 0;
function hueOf(r: f32, g: f32, b: f32): f32 {
  const most = max(r, max(g, b));
  span = most - min(r, min(g, b));
  if (span <= 0) return 0;
  const six: f32 = most == r ? (g - b) / span : most == g ? (b - r) / span + 2 : (r - g) / span + 4;
  return (six < 0 ? six + 6 : six) * <f32>(1.0 / 6.0);
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

/** Writes a straight colour back, premultiplied. */
// @ts-ignore: decorator
@inline
function put(dst: usize, r: f32, g: f32, b: f32, a: f32): void {
  store<f32>(dst, max(r, <f32>0) * a);
  store<f32>(dst, max(g, <f32>0) * a, 4);
  store<f32>(dst, max(b, <f32>0) * a, 8);
  store<f32>(dst, a, 12);
}

/** Brightness and saturation by luma. @param gains, saturations tables over luma 0…1, steps+1 floats each */
export function byLumaSpan(src: usize, dst: usize, n: i32, gains: usize, saturations: usize, steps: i32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const c = straight(p);
    const r = f32x4.extract_lane(c, 0);
    const g = f32x4.extract_lane(c, 1);
    const b = f32x4.extract_lane(c, 2);
    const luma = lumaOf(r, g, b);
    const gain = look(gains, luma, steps);
    const s: f32 = look(saturations, luma, steps);
    put(dst, (luma + (r - luma) * s) * gain, (luma + (g - luma) * s) * gain, (luma + (b - luma) * s) * gain, f32x4.extract_lane(p, 3));
  }
}

/**
 * Hue, saturation and brightness by hue, then saturation by saturation.
 * @param turns, saturations, gains tables over the colour circle 0…1 from red: what is added to the hue (turns), and factors
 * @param bySaturation factors of saturation over saturation 0…1 @param steps of each table, which has steps+1 floats
 */
export function byHueSpan(src: usize, dst: usize, n: i32, turns: usize, saturations: usize, gains: usize, bySaturation: usize, steps: i32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const c = straight(p);
    let r = f32x4.extract_lane(c, 0);
    let g = f32x4.extract_lane(c, 1);
    let b = f32x4.extract_lane(c, 2);
    const hue = hueOf(r, g, b);
    if (span <= 0) {
      v128.store(dst, p);
      continue;
    }
    const most = max(r, max(g, b));
    const by = look(turns, hue, steps);
    if (by != 0) {
      const now: f32 = (hue + by - floor(hue + by)) * 6;
      const least = most - span;
      const x: f32 = least + span * max(<f32>0, min(<f32>1, abs(now - 3) - 1));
      const y: f32 = least + span * max(<f32>0, min(<f32>1, 2 - abs(now - 2)));
      const z: f32 = least + span * max(<f32>0, min(<f32>1, 2 - abs(now - 4)));
      // as bright as it was
      const scale: f32 = lumaOf(r, g, b) / max(lumaOf(x, y, z), <f32>1e-6);
      r = x * scale;
      g = y * scale;
      b = z * scale;
    }
    const share: f32 = min(span / most * 6, <f32>1);
    const s: f32 = (<f32>1 + (look(saturations, hue, steps) - 1) * share) * look(bySaturation, span / most, steps);
    const gain: f32 = <f32>1 + (look(gains, hue, steps) - 1) * min(span / most, <f32>1);
    const luma = lumaOf(r, g, b);
    put(dst, (luma + (r - luma) * s) * gain, (luma + (g - luma) * s) * gain, (luma + (b - luma) * s) * gain, f32x4.extract_lane(p, 3));
  }
}

/** Colours by brightness. @param table steps+1 times four floats over luma 0…1: a colour and how much of it is taken @param keep 1 keeps how bright it was */
export function toneSpan(src: usize, dst: usize, n: i32, table: usize, steps: i32, keep: i32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const a = f32x4.extract_lane(p, 3);
    const c = straight(p);
    const r = f32x4.extract_lane(c, 0);
    const g = f32x4.extract_lane(c, 1);
    const b = f32x4.extract_lane(c, 2);
    const luma = lumaOf(r, g, b);
    const at: f32 = min(max(luma, <f32>0), <f32>0.99999) * <f32>steps;
    const row = table + (<usize>(<i32>at) << 4);
    const low = v128.load(row);
    const t = f32x4.add(low, f32x4.mul(f32x4.sub(v128.load(row, 16), low), f32x4.splat(at - floor(at))));
    let x = f32x4.extract_lane(t, 0);
    let y = f32x4.extract_lane(t, 1);
    let z = f32x4.extract_lane(t, 2);
    if (keep) {
      const off: f32 = luma - lumaOf(x, y, z);
      x += off;
      y += off;
      z += off;
    }
    const share = f32x4.extract_lane(t, 3);
    put(dst, r + (x - r) * share, g + (y - g) * share, b + (z - b) * share, a);
  }
}

/**
 * How much each pixel belongs to a range of colours.
 * @param hues, saturations, lumas tables over 0…1, steps+1 floats each: how much each belongs @param out one float a pixel
 */
export function colourRangePlane(src: usize, n: i32, hues: usize, saturations: usize, lumas: usize, steps: i32, out: usize): void {
  for (let i = 0; i < n; i++, src += 16, out += 4) {
    const c = straight(v128.load(src));
    const r = f32x4.extract_lane(c, 0);
    const g = f32x4.extract_lane(c, 1);
    const b = f32x4.extract_lane(c, 2);
    const hue = hueOf(r, g, b);
    const most = max(r, max(g, b));
    const s: f32 = most > 0 ? span / most : 0;
    store<f32>(out, look(hues, hue, steps) * look(saturations, s, steps) * look(lumas, lumaOf(r, g, b), steps));
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
  let dx: f32 = <f32>x + <f32>0.5 - cx;
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    let gains = f32x4.splat(1);
    let same = true;
    for (let k = 0; k < 4; k++, dx += 1) {
      const u: f32 = abs(dx * cos + dy * sin) / rx;
      const v: f32 = abs(dy * cos - dx * sin) / ry;
      const far: f32 = sqrt(u * u + v * v);
      // between the circle and the square about it
      const gain = look(table, (far + (max(u, v) - far) * square) * <f32>0.5, steps);
      same = same && gain == 1;
      gains = k == 0 ? f32x4.replace_lane(gains, 0, gain) : k == 1 ? f32x4.replace_lane(gains, 1, gain) : k == 2 ? f32x4.replace_lane(gains, 2, gain) : f32x4.replace_lane(gains, 3, gain);
    }
    if (same) {
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
