// Light that bright parts give off: taken out of a picture, and added to one.
import { lumaOf, mixed } from './lanes';
import { decode, encode, straight } from './light';

/** The most of red, green and blue. Choosing is quicker than `max`, which looks after what is no number. */
// @ts-ignore: decorator
@inline
function brightest(p: v128): f32 {
  const r = f32x4.extract_lane(p, 0);
  const g = f32x4.extract_lane(p, 1);
  const b = f32x4.extract_lane(p, 2);
  const two: f32 = r > g ? r : g;
  return two > b ? two : b;
}

/**
 * The light, linear and premultiplied, of what of n display-encoded pixels is brighter than a threshold, times a colour. Luma up to threshold −
 * knee gives nothing, from threshold + knee on all that is above the threshold; a parabola lies between. Below zero everything gives all of its light.
 */
export function brightSpan(src: usize, dst: usize, n: i32, threshold: f32, knee: f32, r: f32, g: f32, b: f32): void {
  const tint = f32x4(r, g, b, 1);
  const low = threshold - knee;
  // luma is no more than the brightest channel is
  const dark: f32 = threshold <= 0 ? <f32>-1 : f32x4.extract_lane(encode(f32x4.splat(low)), 0);
  const bend: f32 = <f32>1 / max(<f32>4 * knee, <f32>1e-6);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const alpha = f32x4.extract_lane(p, 3);
    const most: f32 = brightest(p);
    if (alpha <= 0 || most <= dark * alpha) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    const c = decode(straight(p));
    if (threshold <= 0) {
      v128.store(dst, f32x4.replace_lane(f32x4.mul(f32x4.mul(c, tint), f32x4.splat(alpha)), 3, alpha));
      continue;
    }
    const luma: f32 = lumaOf(c);
    const over: f32 = luma <= low ? 0 : luma >= threshold + knee ? luma - threshold : (luma - low) * (luma - low) * bend;
    const given = f32x4.mul(f32x4.mul(f32x4.replace_lane(c, 3, 1), tint), f32x4.splat(alpha));
    v128.store(dst, over > 0 ? f32x4.mul(given, f32x4.splat(over / luma)) : f32x4.splat(0));
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
  const row = mixed(<u32>y * 0x9e3779b1 + 0x51ed270b);
  for (let i = 0; i < n; i++, under += 16, light += 16) {
    const p = alone ? f32x4.splat(0) : v128.load(under);
    const l = f32x4.mul(v128.load(light), gain);
    const most: f32 = brightest(l);
    if (most <= UNSEEN) {
      v128.store(under, p);
      continue;
    }
    const before = f32x4.extract_lane(p, 3);
    let alpha = before;
    let c: v128;
    if (before >= 1) c = encode(f32x4.add(decode(p), l));
    else {
      const free: f32 = <f32>1 - before;
      // so that over black it looks as bright as it is
      const shown = f32x4.extract_lane(encode(f32x4.splat(most)), 0);
      const cover: f32 = shown < 1 ? shown : <f32>1;
      alpha = before + free * cover;
      const sum = f32x4.add(f32x4.mul(decode(straight(p)), f32x4.splat(before)), f32x4.mul(l, f32x4.splat(before + free * (cover / most))));
      c = f32x4.mul(encode(f32x4.div(sum, f32x4.splat(alpha))), f32x4.splat(alpha));
    }
    const lot: f32 = (<f32>(mixed(<u32>(x + i) ^ row) >> 8) / <f32>16777216 - <f32>0.5) * alpha * <f32>(0.99 / 255);
    v128.store(under, f32x4.replace_lane(f32x4.pmax(f32x4.add(c, f32x4.splat(lot)), f32x4.splat(0)), 3, alpha));
  }
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
