// Tables of floats.
import { greens, reds } from './lanes';

/** Interpolated look-up; x in 0…1, the table has steps+1 floats. */
// @ts-ignore: decorator
@inline
export function look(table: usize, x: f32, steps: i32): f32 {
  const at: f32 = (x < 0 ? <f32>0 : x > <f32>0.99999 ? <f32>0.99999 : x) * <f32>steps;
  const i = <i32>at;
  const a = load<f32>(table + (<usize>i << 2));
  return a + (load<f32>(table + (<usize>i << 2), 4) - a) * (at - <f32>i);
}

/** The same for four at once. */
// @ts-ignore: decorator
@inline
export function lookFour(table: usize, x: v128, steps: i32): v128 {
  const at = f32x4.mul(f32x4.pmin(f32x4.pmax(x, f32x4.splat(0)), f32x4.splat(<f32>0.99999)), f32x4.splat(<f32>steps));
  const i = i32x4.trunc_sat_f32x4_s(at);
  const p0 = v128.load64_zero(table + (<usize>i32x4.extract_lane(i, 0) << 2));
  const p1 = v128.load64_zero(table + (<usize>i32x4.extract_lane(i, 1) << 2));
  const p2 = v128.load64_zero(table + (<usize>i32x4.extract_lane(i, 2) << 2));
  const p3 = v128.load64_zero(table + (<usize>i32x4.extract_lane(i, 3) << 2));
  const a = reds(p0, p1, p2, p3);
  return f32x4.add(a, f32x4.mul(f32x4.sub(greens(p0, p1, p2, p3), a), f32x4.sub(at, f32x4.convert_i32x4_s(i))));
}
