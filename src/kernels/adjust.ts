// Tone curves per channel followed by saturation, four pixels at a time.

import { alphas, blues, greens, lumas, reds, scatter } from './lanes';

/** What adding 2²³ does to a small positive number: its whole part lies in the low bits of the mantissa. */
const WHOLE: f32 = 8388608.0;

/** Four values of one channel through its curve: pairs (value, rise to the next) over 0…2. */
// @ts-ignore: decorator
@inline
function curve(c: v128, table: usize, perValue: v128): v128 {
  const magic = f32x4.splat(WHOLE);
  const at = f32x4.mul(f32x4.pmin(f32x4.pmax(c, f32x4.splat(0)), f32x4.splat(<f32>1.9999)), perValue);
  const whole = f32x4.add(f32x4.pmax(f32x4.sub(at, f32x4.splat(<f32>0.5)), f32x4.splat(0)), magic);
  const step = i32x4.shl(v128.and(whole, i32x4.splat(0x7fffff)), 3);
  const one = v128.load64_zero(table + <usize>i32x4.extract_lane(step, 0));
  const two = v128.load64_lane(table + <usize>i32x4.extract_lane(step, 1), one, 1);
  const three = v128.load64_zero(table + <usize>i32x4.extract_lane(step, 2));
  const four = v128.load64_lane(table + <usize>i32x4.extract_lane(step, 3), three, 1);
  const value = v128.shuffle<f32>(two, four, 0, 2, 4, 6);
  const rise = v128.shuffle<f32>(two, four, 1, 3, 5, 7);
  return f32x4.add(value, f32x4.mul(rise, f32x4.sub(at, f32x4.sub(whole, magic))));
}

/**
 * Premultiplied display-encoded pixels through a curve per channel, then away from or towards their luma.
 * @param tables three tables of `steps` pairs (value, rise to the next), red, green, blue, over 0…2; the end holds above
 * @param saturation 0 = grey, 1 = as is
 */
export function adjustSpan(src: usize, dst: usize, n: i32, tables: usize, steps: i32, saturation: f32): void {
  const size = <usize>steps << 3;
  const perValue = f32x4.splat(<f32>steps * <f32>0.5);
  const amount = f32x4.splat(saturation);
  const zero = f32x4.splat(0);
  for (let left = n; left > 0; left -= 4, src += 64, dst += 64) {
    const p0 = v128.load(src);
    const p1 = left > 1 ? v128.load(src, 16) : zero;
    const p2 = left > 2 ? v128.load(src, 32) : zero;
    const p3 = left > 3 ? v128.load(src, 48) : zero;
    const a = alphas(p0, p1, p2, p3);
    if (!v128.any_true(f32x4.gt(a, zero))) {
      memory.fill(dst, 0, <usize>min(left, 4) << 4);
      continue;
    }
    const per = f32x4.div(f32x4.splat(1), f32x4.pmax(a, f32x4.splat(<f32>1e-9)));
    let r = curve(f32x4.mul(reds(p0, p1, p2, p3), per), tables, perValue);
    let g = curve(f32x4.mul(greens(p0, p1, p2, p3), per), tables + size, perValue);
    let b = curve(f32x4.mul(blues(p0, p1, p2, p3), per), tables + size + size, perValue);
    const luma = lumas(r, g, b);
    r = f32x4.mul(f32x4.pmax(f32x4.add(luma, f32x4.mul(f32x4.sub(r, luma), amount)), zero), a);
    g = f32x4.mul(f32x4.pmax(f32x4.add(luma, f32x4.mul(f32x4.sub(g, luma), amount)), zero), a);
    b = f32x4.mul(f32x4.pmax(f32x4.add(luma, f32x4.mul(f32x4.sub(b, luma), amount)), zero), a);
    scatter(dst, r, g, b, a, left);
  }
}
