// Grain: seeded noise of its own place and moment, added by brightness.
import { lumaOf, mixed, mixedFour } from './lanes';

/** About normal numbers of deviation 1: each the sum of four bytes. */
// @ts-ignore: decorator
@inline
function normal(v: v128): v128 {
  const byte = i32x4.splat(255);
  const two = i32x4.add(v128.and(v, byte), v128.and(i32x4.shr_u(v, 8), byte));
  const sum = i32x4.add(i32x4.add(two, v128.and(i32x4.shr_u(v, 16), byte)), i32x4.shr_u(v, 24));
  return f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(sum, i32x4.splat(510))), f32x4.splat(<f32>(1.0 / 147.802)));
}

/** Four numbers of a pixel from its own, of which the first is that number. */
// @ts-ignore: decorator
@inline
function four(own: u32): v128 {
  const others = mixedFour(i32x4.add(i32x4.splat(own), i32x4(0, 0x68bc21eb, 0x02e5be93, <i32>0x967a889b)));
  return normal(i32x4.replace_lane(others, 0, own));
}

/** Four independent normal numbers a pixel, by its place alone. @param x, y of the first pixel */
export function grainNoise(dst: usize, n: i32, x: i32, y: i32, seed: u32): void {
  const row = i32x4.splat(mixed(<u32>y * 0x9e3779b1 + seed));
  for (let i = 0; i < n; i += 4, dst += 64) {
    const at = mixedFour(v128.xor(i32x4.add(i32x4.splat(x + i), i32x4(0, 1, 2, 3)), row));
    v128.store(dst, four(i32x4.extract_lane(at, 0)));
    if (i + 1 < n) v128.store(dst, four(i32x4.extract_lane(at, 1)), 16);
    if (i + 2 < n) v128.store(dst, four(i32x4.extract_lane(at, 2)), 32);
    if (i + 3 < n) v128.store(dst, four(i32x4.extract_lane(at, 3)), 48);
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
