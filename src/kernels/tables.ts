// Tables of floats.

/** Interpolated look-up; x in 0…1, the table has steps+1 floats. */
// @ts-ignore: decorator
@inline
export function look(table: usize, x: f32, steps: i32): f32 {
  const at: f32 = (x < 0 ? <f32>0 : x > <f32>0.99999 ? <f32>0.99999 : x) * <f32>steps;
  const i = <i32>at;
  const a = load<f32>(table + (<usize>i << 2));
  return a + (load<f32>(table + (<usize>i << 2), 4) - a) * (at - <f32>i);
}
