// Transfer between display-encoded values and linear light (IEC 61966-2-1), four lanes at a time.

/**
 * Display-encoded 0…2 → linear light. Power part as a degree-7 polynomial; error ≤ 4e-5.
 * Source: IEC 61966-2-1.
 */
// @ts-ignore: decorator
@inline
export function decode(x: v128): v128 {
  const c = f32x4.min(f32x4.max(x, f32x4.splat(0)), f32x4.splat(2));
  let p = f32x4.splat(<f32>0.00415625576);
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>-0.0360758839));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>0.13524385));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>-0.304977745));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>0.634889599));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>0.535435597));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>0.0303510884));
  p = f32x4.add(f32x4.mul(p, c), f32x4.splat(<f32>0.000995969427));
  const toe = f32x4.mul(c, f32x4.splat(<f32>(1.0 / 12.92)));
  return v128.bitselect(toe, p, f32x4.le(c, f32x4.splat(<f32>0.04045)));
}

/**
 * Linear light 0…6 → display-encoded. Power part as a degree-6 polynomial in the fourth root; error ≤ 3e-5.
 * Source: IEC 61966-2-1.
 */
// @ts-ignore: decorator
@inline
export function encode(x: v128): v128 {
  const c = f32x4.min(f32x4.max(x, f32x4.splat(0)), f32x4.splat(6));
  const s = f32x4.sqrt(f32x4.sqrt(c));
  let p = f32x4.splat(<f32>0.0153776432);
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>-0.105306787));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>0.312759087));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>-0.569966108));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>1.24249652));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>0.166425309));
  p = f32x4.add(f32x4.mul(p, s), f32x4.splat(<f32>-0.0617980389));
  const toe = f32x4.mul(c, f32x4.splat(<f32>12.92));
  return v128.bitselect(toe, p, f32x4.le(c, f32x4.splat(<f32>0.0031308)));
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
    const c = f32x4.mul(encode(straight(p)), f32x4.splat(a));
    v128.store(at, f32x4.replace_lane(c, 3, a));
  }
}
