// Tone curves per channel followed by saturation.
import { straight } from './light';

/** Interpolated table look-up; the table covers 0…2 in `steps` steps and holds its end value above. */
// @ts-ignore: decorator
@inline
function curve(table: usize, x: f32, steps: f32): f32 {
  const at = min(max(x, <f32>0), <f32>1.9999) * (steps * <f32>0.5);
  const i = <i32>at;
  const a = load<f32>(table + (<usize>i << 2));
  const b = load<f32>(table + (<usize>i << 2), 4);
  return a + (b - a) * (at - <f32>i);
}

/**
 * Premultiplied display-encoded pixels through a curve per channel, then away from or towards their luma.
 * @param tables three tables of steps+1 floats each, red, green, blue, over 0…2
 * @param saturation 0 = grey, 1 = as is
 */
export function adjustSpan(src: usize, dst: usize, n: i32, tables: usize, steps: i32, saturation: f32): void {
  const size = <usize>(steps + 1) << 2;
  const span = <f32>steps;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) {
      v128.store(dst, p);
      continue;
    }
    const c = straight(p);
    const r = curve(tables, f32x4.extract_lane(c, 0), span);
    const g = curve(tables + size, f32x4.extract_lane(c, 1), span);
    const b = curve(tables + size + size, f32x4.extract_lane(c, 2), span);
    const luma: f32 = <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * b;
    let out = f32x4.splat(r);
    out = f32x4.replace_lane(out, 1, g);
    out = f32x4.replace_lane(out, 2, b);
    const grey = f32x4.splat(luma);
    out = f32x4.add(grey, f32x4.mul(f32x4.sub(out, grey), f32x4.splat(saturation)));
    out = f32x4.mul(f32x4.max(out, f32x4.splat(0)), f32x4.splat(a));
    v128.store(dst, f32x4.replace_lane(out, 3, a));
  }
}
