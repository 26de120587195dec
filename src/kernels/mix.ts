// Weighted sums of whole pictures.

/** dst += src · weight, n pixels. */
export function addScaled(src: usize, dst: usize, n: i32, weight: f32): void {
  const w = f32x4.splat(weight);
  for (let end = src + (<usize>n << 4); src < end; src += 16, dst += 16) v128.store(dst, f32x4.add(v128.load(dst), f32x4.mul(v128.load(src), w)));
}

/** dst = a + (b − a) · t, n pixels. */
export function lerpSpan(a: usize, b: usize, dst: usize, n: i32, t: f32): void {
  const share = f32x4.splat(t);
  for (let end = a + (<usize>n << 4); a < end; a += 16, b += 16, dst += 16) {
    const from = v128.load(a);
    v128.store(dst, f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(b), from), share)));
  }
}
