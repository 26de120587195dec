// Coverage of a rectangle with rounded corners and a soft edge.

/**
 * Multiplies one row of pixels by the coverage of a rounded rectangle.
 * @param x centre of the first pixel, @param y centre of the row, both in the rectangle's own space:
 *   origin at its centre, so that it spans ±halfW, ±halfH
 * @param radius corner radius @param feather width of the soft edge, inside and outside alike; 0 = one pixel
 */
export function cropSpan(
  src: usize, dst: usize, n: i32, x: f32, y: f32, halfW: f32, halfH: f32, radius: f32, feather: f32,
): void {
  const perFeather: f32 = <f32>1.0 / max(feather, <f32>1.0);
  const qy = abs(y) - halfH + radius;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const qx = abs(x + <f32>i) - halfW + radius;
    const ox = max(qx, <f32>0);
    const oy = max(qy, <f32>0);
    const distance = sqrt(ox * ox + oy * oy) + min(max(qx, qy), <f32>0) - radius;
    const t = min(max(<f32>0.5 - distance * perFeather, <f32>0), <f32>1);
    v128.store(dst, f32x4.mul(v128.load(src), f32x4.splat(t)));
  }
}
