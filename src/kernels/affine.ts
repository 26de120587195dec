// Affine placement with bilinear sampling and antialiased borders.

/** First (or one past the last) column whose source coordinate k·(x+½) + k0 lies at least one pixel inside 0…size. */
// @ts-ignore: decorator
@inline
function inner(k: f32, k0: f32, size: f32, first: bool): f32 {
  const low: f32 = 1;
  const high = size - <f32>1.01;
  if (high <= low) return first ? <f32>1e9 : 0;
  if (abs(k) < <f32>1e-7) return k0 >= low && k0 <= high ? (first ? <f32>0 : <f32>1e9) : first ? <f32>1e9 : <f32>0;
  const p = (low - k0) / k - <f32>0.5;
  const q = (high - k0) / k - <f32>0.5;
  return first ? ceil(min(p, q)) + <f32>1 : floor(max(p, q));
}

/**
 * Draws a picture through an affine map into a rectangle of another, replacing what is there.
 * Output pixel centre (x, y) reads source point u = a·x + c·y + e, v = b·x + d·y + f. Colours beyond the border are the
 * border's own; coverage falls from 1 to 0 over one output pixel across it, so aligned borders stay sharp.
 * @param dw, dh size of the output rectangle, rows contiguous @param opacity 0…1 @param extend 1 = coverage does not fall beyond the border
 */
export function affine(
  src: usize, sw: i32, sh: i32, dst: usize, dw: i32, dh: i32,
  a: f32, b: f32, c: f32, d: f32, e: f32, f: f32, opacity: f32, extend: i32,
): void {
  const perU: f32 = <f32>1.0 / max(sqrt(a * a + c * c), <f32>1e-6);
  const perV: f32 = <f32>1.0 / max(sqrt(b * b + d * d), <f32>1e-6);
  const w = <f32>sw;
  const h = <f32>sh;
  const lastX = sw - 1;
  const lastY = sh - 1;
  const line = <usize>sw << 4;
  const seen = f32x4.splat(opacity);
  for (let y = 0; y < dh; y++) {
    const cy: f32 = <f32>y + <f32>0.5;
    const u0 = c * cy + e;
    const v0 = d * cy + f;
    // columns whose four neighbours all lie inside: nothing to clamp, full coverage
    let from = max(inner(a, u0, w, true), inner(b, v0, h, true));
    let to = min(inner(a, u0, w, false), inner(b, v0, h, false));
    from = max(<f32>0, min(from, <f32>dw));
    to = max(from, min(to, <f32>dw));
    const start = <i32>from;
    const end = <i32>to;
    for (let x = 0; x < dw; x++, dst += 16) {
      if (x == start) {
        for (; x < end; x++, dst += 16) {
          const cx: f32 = <f32>x + <f32>0.5;
          const su = a * cx + u0 - <f32>0.5;
          const sv = b * cx + v0 - <f32>0.5;
          const iu = <i32>su;
          const iv = <i32>sv;
          const at = src + line * <usize>iv + (<usize>iu << 4);
          const tu = f32x4.splat(su - <f32>iu);
          const p00 = v128.load(at);
          const p01 = v128.load(at + line);
          const top = f32x4.add(p00, f32x4.mul(f32x4.sub(v128.load(at, 16), p00), tu));
          const low = f32x4.add(p01, f32x4.mul(f32x4.sub(v128.load(at + line, 16), p01), tu));
          v128.store(dst, f32x4.mul(f32x4.add(top, f32x4.mul(f32x4.sub(low, top), f32x4.splat(sv - <f32>iv))), seen));
        }
        if (x >= dw) break;
      }
      const cx: f32 = <f32>x + <f32>0.5;
      const u = a * cx + u0;
      const v = b * cx + v0;
      const coverU = min(max(min(u, w - u) * perU + <f32>0.5, <f32>0), <f32>1);
      const coverV = min(max(min(v, h - v) * perV + <f32>0.5, <f32>0), <f32>1);
      const cover = extend ? opacity : coverU * coverV * opacity;
      if (cover <= 0) {
        v128.store(dst, f32x4.splat(0));
        continue;
      }
      const su = u - <f32>0.5;
      const sv = v - <f32>0.5;
      const fu = floor(su);
      const fv = floor(sv);
      const iu = <i32>fu;
      const iv = <i32>fv;
      const x0 = min(max(iu, 0), lastX);
      const x1 = min(max(iu + 1, 0), lastX);
      const r0 = src + (<usize>(min(max(iv, 0), lastY) * sw) << 4);
      const r1 = src + (<usize>(min(max(iv + 1, 0), lastY) * sw) << 4);
      const tu = f32x4.splat(su - fu);
      const p00 = v128.load(r0 + (<usize>x0 << 4));
      const p10 = v128.load(r0 + (<usize>x1 << 4));
      const p01 = v128.load(r1 + (<usize>x0 << 4));
      const p11 = v128.load(r1 + (<usize>x1 << 4));
      const top = f32x4.add(p00, f32x4.mul(f32x4.sub(p10, p00), tu));
      const low = f32x4.add(p01, f32x4.mul(f32x4.sub(p11, p01), tu));
      const p = f32x4.add(top, f32x4.mul(f32x4.sub(low, top), f32x4.splat(sv - fv)));
      v128.store(dst, f32x4.mul(p, f32x4.splat(cover)));
    }
  }
}
