// Light that bright parts give off: taken out of a picture, and added to one.
import { mixed } from './lanes';
import { encode } from './light';

/**
 * What of n premultiplied pixels in linear light is brighter than a threshold, times a colour. Luma up to threshold − knee gives
 * nothing, from threshold + knee on all that is above the threshold; a parabola lies between. Below zero everything gives all of its light.
 */
export function brightSpan(src: usize, dst: usize, n: i32, threshold: f32, knee: f32, r: f32, g: f32, b: f32): void {
  const tint = f32x4(r, g, b, 1);
  const low = threshold - knee;
  const bend: f32 = <f32>1 / max(<f32>4 * knee, <f32>1e-6);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    if (threshold <= 0) {
      v128.store(dst, f32x4.mul(p, tint));
      continue;
    }
    const alpha = f32x4.extract_lane(p, 3);
    const luma: f32 = alpha > 0 ? (<f32>0.2126 * f32x4.extract_lane(p, 0) + <f32>0.7152 * f32x4.extract_lane(p, 1) + <f32>0.0722 * f32x4.extract_lane(p, 2)) / alpha : 0;
    const over: f32 = luma <= low ? 0 : luma >= threshold + knee ? luma - threshold : (luma - low) * (luma - low) * bend;
    v128.store(dst, over > 0 ? f32x4.mul(f32x4.mul(p, tint), f32x4.splat(over / luma)) : f32x4.splat(0));
  }
}

/**
 * Adds light to n premultiplied pixels, both linear. Where nothing is, light covers as much as its brightest channel is on a display.
 * @param alone only the light is left
 */
export function addLight(under: usize, light: usize, n: i32, strength: f32, alone: i32): void {
  const gain = f32x4.splat(strength);
  for (let i = 0; i < n; i++, under += 16, light += 16) {
    const p = alone ? f32x4.splat(0) : v128.load(under);
    const l = f32x4.mul(v128.load(light), gain);
    const most: f32 = max(max(f32x4.extract_lane(l, 0), f32x4.extract_lane(l, 1)), f32x4.extract_lane(l, 2));
    if (most <= 0) {
      v128.store(under, p);
      continue;
    }
    const alpha = f32x4.extract_lane(p, 3);
    if (alpha >= 1) {
      v128.store(under, f32x4.replace_lane(f32x4.add(p, l), 3, alpha));
      continue;
    }
    const free: f32 = <f32>1 - alpha;
    // so that over black it looks as bright as it is
    const cover: f32 = min(f32x4.extract_lane(encode(f32x4.splat(most)), 0), <f32>1);
    const sum = f32x4.add(p, f32x4.mul(l, f32x4.splat(alpha + free * (cover / most))));
    v128.store(under, f32x4.replace_lane(sum, 3, alpha + free * cover));
  }
}

/** Moves n premultiplied pixels by up to half a step of eight bits, by lot, so that slow ramps show no bands; what eight bits hold stays. */
export function unband(at: usize, n: i32, x: i32, y: i32): void {
  const row = mixed(<u32>y * 0x9e3779b1 + 0x51ed270b);
  for (let i = 0; i < n; i++, at += 16) {
    const alpha = load<f32>(at, 12);
    if (alpha <= 0) continue;
    const lot: f32 = (<f32>(mixed(<u32>(x + i) ^ row) >> 8) / <f32>16777216 - <f32>0.5) * alpha * <f32>(0.99 / 255);
    const p = f32x4.pmax(f32x4.add(v128.load(at), f32x4.splat(lot)), f32x4.splat(0));
    v128.store(at, f32x4.replace_lane(p, 3, alpha));
  }
}
