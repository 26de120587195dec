// Grain: seeded noise of its own place and moment, added by brightness.
import { lumaOf, mixed } from './lanes';

/** About a normal number of deviation 1: the sum of four bytes. */
// @ts-ignore: decorator
@inline
function normal(v: u32): f32 {
  const sum = <i32>(v & 255) + <i32>((v >> 8) & 255) + <i32>((v >> 16) & 255) + <i32>(v >> 24);
  return (<f32>sum - <f32>510) * <f32>(1.0 / 147.802);
}

/** Four independent normal numbers a pixel, by its place alone. @param x, y of the first pixel */
export function grainNoise(dst: usize, n: i32, x: i32, y: i32, seed: u32): void {
  const row = mixed(<u32>y * 0x9e3779b1 + seed);
  for (let i = 0; i < n; i++, dst += 16) {
    const at = mixed(<u32>(x + i) ^ row);
    store<f32>(dst, normal(at));
    store<f32>(dst, normal(mixed(at + 0x68bc21eb)), 4);
    store<f32>(dst, normal(mixed(at + 0x02e5be93)), 8);
    store<f32>(dst, normal(mixed(at + 0x967a889b)), 12);
  }
}

/**
 * Adds noise to premultiplied pixels.
 * @param noise four numbers a pixel: one for each channel, and one for all of them @param own, all what of each is taken
 * @param dark, middle, bright how much of it at black, at half and at white @param red, green, blue how much of it they have
 */
export function grainSpan(src: usize, noise: usize, dst: usize, n: i32, own: f32, all: f32, dark: f32, middle: f32, bright: f32, red: f32, green: f32, blue: f32): void {
  const channels = f32x4(red, green, blue, 0);
  for (let i = 0; i < n; i++, src += 16, noise += 16, dst += 16) {
    const p = v128.load(src);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) {
      v128.store(dst, p);
      continue;
    }
    const luma: f32 = lumaOf(p) / a;
    const at: f32 = min(max(luma, <f32>0), <f32>1);
    const strength: f32 = at < <f32>0.5 ? dark + (middle - dark) * <f32>2 * at : middle + (bright - middle) * (<f32>2 * at - <f32>1);
    const q = v128.load(noise);
    const sum = f32x4.add(f32x4.mul(q, f32x4.splat(own)), f32x4.splat(all * f32x4.extract_lane(q, 3)));
    const out = f32x4.add(p, f32x4.mul(f32x4.mul(sum, channels), f32x4.splat(strength * a)));
    v128.store(dst, f32x4.replace_lane(f32x4.pmax(out, f32x4.splat(0)), 3, a));
  }
}
