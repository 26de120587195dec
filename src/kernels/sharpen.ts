// Sharpening: what is brighter or darker than its surroundings becomes more so, in brightness alone.
import { lumaOf } from './lanes';

/**
 * Adds to premultiplied pixels what tells them from their surroundings. Both are compared without their alpha, so that edges of a layer get no rim.
 * @param soft the pixels' surroundings: the picture blurred @param quiet differences up to this are left @param most that is added or taken
 */
export function sharpenSpan(src: usize, soft: usize, dst: usize, n: i32, strength: f32, quiet: f32, most: f32): void {
  for (let i = 0; i < n; i++, src += 16, soft += 16, dst += 16) {
    const p = v128.load(src);
    const q = v128.load(soft);
    const a = f32x4.extract_lane(p, 3);
    const around = f32x4.extract_lane(q, 3);
    if (a <= 0 || around <= 0) {
      v128.store(dst, p);
      continue;
    }
    const by: f32 = lumaOf(p) / a - lumaOf(q) / around;
    const more: f32 = min(max(abs(by) - quiet, <f32>0) * strength, most);
    const out = f32x4.add(p, f32x4.splat((by < 0 ? -more : more) * a));
    v128.store(dst, f32x4.replace_lane(f32x4.pmax(out, f32x4.splat(0)), 3, a));
  }
}
