// A matte's edge made to follow the brightness of the picture.

/** Where (x, y) of a w×h plane is, the nearest pixel standing for what is outside. */
// @ts-ignore: decorator
@inline
function inPlane(w: i32, h: i32, x: i32, y: i32): usize {
  return <usize>(min(max(y, 0), h - 1) * w + min(max(x, 0), w - 1)) << 2;
}

/** Box means of a side×side block of v128, in place by way of `other`, by running sums; only the inner (side−2r)² are right. */
function boxBlock(at: usize, other: usize, side: i32, r: i32): void {
  const share = f32x4.splat(<f32>1.0 / f32((r + r + 1) * (r + r + 1)));
  const line = <usize>side << 4;
  const before = <usize>(r + 1) << 4;
  const ahead = <usize>r << 4;
  for (let y = 0; y < side; y++) {
    const row = at + line * <usize>y;
    let sum = f32x4.splat(0);
    for (let k = 0; k < r + r + 1; k++) sum = f32x4.add(sum, v128.load(row + (<usize>k << 4)));
    let to = other + line * <usize>y + ahead;
    v128.store(to, sum);
    for (let x = row + ahead + 16, end = row + line - ahead; x < end; x += 16) {
      sum = f32x4.add(sum, f32x4.sub(v128.load(x + ahead), v128.load(x - before)));
      to += 16;
      v128.store(to, sum);
    }
  }
  for (let x = r; x < side - r; x++) {
    const column = other + (<usize>x << 4);
    let sum = f32x4.splat(0);
    for (let k = 0; k < r + r + 1; k++) sum = f32x4.add(sum, v128.load(column + line * <usize>k));
    let to = at + line * <usize>r + (<usize>x << 4);
    v128.store(to, f32x4.mul(sum, share));
    for (let y = r + 1; y < side - r; y++) {
      sum = f32x4.add(sum, f32x4.sub(v128.load(column + line * <usize>(y + r)), v128.load(column + line * <usize>(y - r - 1))));
      to += line;
      v128.store(to, f32x4.mul(sum, share));
    }
  }
}

/** True when a matte is all the same in a rectangle that lies inside its plane. The width is a multiple of four. */
function isFlat(alpha: usize, w: i32, x0: i32, y0: i32, wide: i32, tall: i32): bool {
  const first = v128.load32_splat(alpha + (<usize>(y0 * w + x0) << 2));
  for (let y = y0; y < y0 + tall; y++) {
    let off = f32x4.splat(0);
    for (let at = alpha + (<usize>(y * w + x0) << 2), end = at + (<usize>wide << 2); at < end; at += 16) off = f32x4.pmax(off, f32x4.abs(f32x4.sub(v128.load(at), first)));
    if (v128.any_true(f32x4.gt(off, f32x4.splat(<f32>1e-5)))) return false;
  }
  return true;
}

/**
 * Refines one tile of a matte so that it follows the luma: coded video keeps brightness at full size and colour at half, so
 * a matte from colour alone is blurred at its edge. A tile that is solid or clear all over is copied.
 * @param out plane like `alpha` @param size side of the tile @param r radius, 1…8 @param eps regularisation
 * @param scratch two blocks of (size+4r)² v128
 * Source: He, Sun and Tang 2010, "Guided image filtering".
 */
export function guideTile(alpha: usize, luma: usize, out: usize, w: i32, h: i32, x0: i32, y0: i32, size: i32, r: i32, eps: f32, scratch: usize): void {
  const pad = r + r;
  const left = x0 - pad;
  const top = y0 - pad;
  const whole = size + pad + pad;
  const inside = left >= 0 && top >= 0 && left + whole <= w && top + whole <= h;
  const x1 = min(x0 + size, w);
  const y1 = min(y0 + size, h);
  let flat = inside;
  if (inside) flat = isFlat(alpha, w, left, top, whole, whole);
  else {
    let low: f32 = 1;
    let high: f32 = 0;
    for (let y = max(0, top); y < min(h, top + whole); y++) {
      for (let x = max(0, left); x < min(w, left + whole); x++) {
        const v = load<f32>(alpha + (<usize>(y * w + x) << 2));
        low = min(low, v);
        high = max(high, v);
      }
    }
    flat = high - low < <f32>1e-5;
  }
  if (flat) {
    for (let y = y0; y < y1; y++) memory.copy(out + inPlane(w, h, x0, y), alpha + inPlane(w, h, x0, y), <usize>(x1 - x0) << 2);
    return;
  }
  const side = size + pad + pad;
  const other = scratch + (<usize>(side * side) << 4);
  let to = scratch;
  for (let y = y0 - pad; y < y0 + size + pad; y++) {
    const row = <usize>(min(max(y, 0), h - 1) * w) << 2;
    for (let x = x0 - pad; x < x0 + size + pad; x++, to += 16) {
      const at = row + (<usize>(inside ? x : min(max(x, 0), w - 1)) << 2);
      const i = load<f32>(luma + at);
      const p = load<f32>(alpha + at);
      store<f32>(to, i);
      store<f32>(to, p, 4);
      store<f32>(to, i * i, 8);
      store<f32>(to, i * p, 12);
    }
  }
  boxBlock(scratch, other, side, r);
  // in each window the matte is a·luma + b
  to = scratch;
  for (let k = side * side; k > 0; k--, to += 16) {
    const i = load<f32>(to);
    const p = load<f32>(to, 4);
    const a = (load<f32>(to, 12) - i * p) / (load<f32>(to, 8) - i * i + eps);
    store<f32>(to, a);
    store<f32>(to, p - a * i, 4);
  }
  boxBlock(scratch, other, side, r);
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const at = inPlane(w, h, x, y);
      const ab = scratch + (<usize>((y - y0 + pad) * side + x - x0 + pad) << 4);
      store<f32>(out + at, min(max(load<f32>(ab) * load<f32>(luma + at) + load<f32>(ab, 4), <f32>0), <f32>1));
    }
  }
}
