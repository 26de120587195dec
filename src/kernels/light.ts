// Transfer between display-encoded values and linear light (IEC 61966-2-1), four lanes at a time.

// Constants are loaded from memory: building a vector from an immediate in the loop costs several instructions each.
// prettier-ignore
const CONSTANTS = memory.data<f32>([
  0.00415625576, -0.0360758839, 0.13524385, -0.304977745, 0.634889599, 0.535435597, 0.0303510884, 0.000995969427, // decode, degree 7 to 0
  0.0153776432, -0.105306787, 0.312759087, -0.569966108, 1.24249652, 0.166425309, -0.0617980389, // encode, degree 6 to 0
  2, 0.0773993808, 0.04045, 6, 12.92, 0.0031308, // its limits and toes
]);

// @ts-ignore: decorator
@inline
function constant(i: usize): v128 {
  return v128.load32_splat(CONSTANTS + (i << 2));
}

/** Two neighbouring terms of a polynomial: the constant times x, and the next. */
// @ts-ignore: decorator
@inline
function line(i: usize, x: v128): v128 {
  return f32x4.add(f32x4.mul(constant(i), x), constant(i + 1));
}

/**
 * Display-encoded 0…2 → linear light. Power part as a degree-7 polynomial; error ≤ 4e-5.
 * Source: IEC 61966-2-1.
 */
// @ts-ignore: decorator
@inline
export function decode(x: v128): v128 {
  const c = f32x4.pmin(f32x4.pmax(x, f32x4.splat(0)), constant(15));
  // in pairs and pairs of pairs, which wait less for each other than one after another would
  const square = f32x4.mul(c, c);
  const high = f32x4.add(f32x4.mul(line(0, c), square), line(2, c));
  const low = f32x4.add(f32x4.mul(line(4, c), square), line(6, c));
  const p = f32x4.add(f32x4.mul(high, f32x4.mul(square, square)), low);
  const toe = f32x4.mul(c, constant(16));
  return v128.bitselect(toe, p, f32x4.le(c, constant(17)));
}

/**
 * Linear light 0…6 → display-encoded. Power part as a degree-6 polynomial in the fourth root; error ≤ 3e-5.
 * Source: IEC 61966-2-1.
 */
// @ts-ignore: decorator
@inline
export function encode(x: v128): v128 {
  const c = f32x4.pmin(f32x4.pmax(x, f32x4.splat(0)), constant(18));
  const square = f32x4.sqrt(c);
  const s = f32x4.sqrt(square);
  // its fourth power is what was given
  const high = f32x4.add(f32x4.mul(constant(8), square), line(9, s));
  const low = f32x4.add(f32x4.mul(line(11, s), square), line(13, s));
  const p = f32x4.add(f32x4.mul(high, c), low);
  const toe = f32x4.mul(c, constant(19));
  return v128.bitselect(toe, p, f32x4.le(c, constant(20)));
}

/** Colour of a premultiplied pixel without its alpha; a clear pixel gives 0. Lane 3 becomes 1 (or 0 when clear). */
// @ts-ignore: decorator
@inline
export function straight(p: v128): v128 {
  const a = f32x4.extract_lane(p, 3);
  return a > 0 ? f32x4.div(p, f32x4.splat(a)) : f32x4.splat(0);
}

/** Display-encoded premultiplied pixels → linear-light premultiplied, in place. @param n pixels */
export function toLinearSpan(at: usize, n: i32): void {
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) continue;
    if (a == 1) {
      v128.store(at, f32x4.replace_lane(decode(p), 3, a));
      continue;
    }
    const c = f32x4.mul(decode(straight(p)), f32x4.splat(a));
    v128.store(at, f32x4.replace_lane(c, 3, a));
  }
}

/** Linear-light premultiplied pixels → display-encoded premultiplied, in place. @param n pixels */
export function toDisplaySpan(at: usize, n: i32): void {
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) continue;
    if (a == 1) {
      v128.store(at, f32x4.replace_lane(encode(p), 3, a));
      continue;
    }
    const c = f32x4.mul(encode(straight(p)), f32x4.splat(a));
    v128.store(at, f32x4.replace_lane(c, 3, a));
  }
}
