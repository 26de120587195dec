// Sharpening: what is brighter or darker than its surroundings becomes more so, in brightness alone.
import { alphas, blues, greens, lumas, pixel, reds } from './lanes';

/**
 * Adds to premultiplied pixels what tells them from their surroundings. Both are compared without their alpha, so that edges of a layer get no rim.
 * @param soft the pixels' surroundings: the picture blurred @param quiet differences up to this are left @param most that is added or taken
 */
export function sharpenSpan(src: usize, soft: usize, dst: usize, n: i32, strength: f32, quiet: f32, most: f32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const limit = f32x4.splat(most);
  for (let i = 0; i < n; i += 4, src += 64, soft += 64, dst += 64) {
    const count = min(4, n - i);
    const p0 = v128.load(src);
    const p1 = pixel(src, 1, count);
    const p2 = pixel(src, 2, count);
    const p3 = pixel(src, 3, count);
    const q0 = v128.load(soft);
    const q1 = pixel(soft, 1, count);
    const q2 = pixel(soft, 2, count);
    const q3 = pixel(soft, 3, count);
    const a = alphas(p0, p1, p2, p3);
    const around = alphas(q0, q1, q2, q3);
    const there = v128.and(f32x4.gt(a, zero), f32x4.gt(around, zero));
    const own = f32x4.div(lumas(reds(p0, p1, p2, p3), greens(p0, p1, p2, p3), blues(p0, p1, p2, p3)), v128.bitselect(a, one, there));
    const others = f32x4.div(lumas(reds(q0, q1, q2, q3), greens(q0, q1, q2, q3), blues(q0, q1, q2, q3)), v128.bitselect(around, one, there));
    const by = f32x4.sub(own, others);
    const more = f32x4.pmin(f32x4.mul(f32x4.pmax(f32x4.sub(f32x4.abs(by), f32x4.splat(quiet)), zero), f32x4.splat(strength)), limit);
    const added = v128.and(f32x4.mul(v128.bitselect(f32x4.neg(more), more, f32x4.lt(by, zero)), a), there);
    v128.store(dst, brighter(p0, v128.shuffle<f32>(added, added, 0, 0, 0, 0)));
    if (count > 1) v128.store(dst, brighter(p1, v128.shuffle<f32>(added, added, 1, 1, 1, 1)), 16);
    if (count > 2) v128.store(dst, brighter(p2, v128.shuffle<f32>(added, added, 2, 2, 2, 2)), 32);
    if (count > 3) v128.store(dst, brighter(p3, v128.shuffle<f32>(added, added, 3, 3, 3, 3)), 48);
  }
}

// @ts-ignore: decorator
@inline
function brighter(p: v128, by: v128): v128 {
  const out = f32x4.pmax(f32x4.add(p, by), f32x4.splat(0));
  return v128.shuffle<i32>(out, p, 0, 1, 2, 7);
}
