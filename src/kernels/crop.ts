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
  // where every pixel is solid, and so only copied
  const limit = min(<f32>0, radius - (feather > 1 ? feather : <f32>1) * <f32>0.5);
  const solid = halfW - radius + limit;
  const from = qy <= limit && solid > 0 ? max(0, <i32>ceil(-solid - x)) : n;
  const to = qy <= limit ? min(n, <i32>floor(solid - x) + 1) : n;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    if (i == from && to > from) {
      const bytes = <usize>(to - from) << 4;
      memory.copy(dst, src, bytes);
      src += bytes;
      dst += bytes;
      i = to;
      if (i >= n) break;
    }
    const qx = abs(x + <f32>i) - halfW + radius;
    let distance: f32;
    if (qx <= 0 || qy <= 0) distance = (qx > qy ? qx : qy) - radius;
    else distance = sqrt(qx * qx + qy * qy) - radius;
    const t: f32 = <f32>0.5 - distance * perFeather;
    if (t >= 1) v128.store(dst, v128.load(src));
    else if (t <= 0) v128.store(dst, f32x4.splat(0));
    else v128.store(dst, f32x4.mul(v128.load(src), f32x4.splat(t)));
  }
}

/** Where a picture of w×h is not clear. @param dst four whole numbers: first and last column, first and last row; the last before the first when all is clear */
export function seenBox(src: usize, w: i32, h: i32, dst: usize): void {
  let left = w;
  let right = -1;
  let top = h;
  let bottom = -1;
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++, src += 16) {
      if (!(load<f32>(src, 12) > 0)) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  store<i32>(dst, left);
  store<i32>(dst, right, 4);
  store<i32>(dst, top, 8);
  store<i32>(dst, bottom, 12);
}
