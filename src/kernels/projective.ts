// Placement in perspective with bilinear sampling and antialiased borders.

/**
 * Draws a picture through a projective map into a rectangle of another, replacing what is there.
 * Output pixel centre (x, y) reads source point (u, v) = (m0·x + m1·y + m2, m3·x + m4·y + m5)/w, w = m6·x + m7·y + m8;
 * where w ≤ 0 nothing is seen. Borders as in affine.
 * @param m nine floats, row by row @param dw, dh size of the output rectangle, rows contiguous @param opacity 0…1
 */
export function projective(src: usize, sw: i32, sh: i32, dst: usize, dw: i32, dh: i32, m: usize, opacity: f32): void {
  const m0 = load<f32>(m);
  const m1 = load<f32>(m, 4);
  const m2 = load<f32>(m, 8);
  const m3 = load<f32>(m, 12);
  const m4 = load<f32>(m, 16);
  const m5 = load<f32>(m, 20);
  const m6 = load<f32>(m, 24);
  const m7 = load<f32>(m, 28);
  const m8 = load<f32>(m, 32);
  const w = <f32>sw;
  const h = <f32>sh;
  for (let y = 0; y < dh; y++) {
    const cy: f32 = <f32>y + <f32>0.5;
    for (let x = 0; x < dw; x++, dst += 16) {
      const cx: f32 = <f32>x + <f32>0.5;
      const depth = m6 * cx + m7 * cy + m8;
      if (depth <= <f32>1e-4) {
        v128.store(dst, f32x4.splat(0));
        continue;
      }
      const per: f32 = <f32>1.0 / depth;
      const u = (m0 * cx + m1 * cy + m2) * per;
      const v = (m3 * cx + m4 * cy + m5) * per;
      // source pixels for each output pixel here
      const ux = (m0 - u * m6) * per;
      const uy = (m1 - u * m7) * per;
      const vx = (m3 - v * m6) * per;
      const vy = (m4 - v * m7) * per;
      const perU: f32 = <f32>1.0 / max(sqrt(ux * ux + uy * uy), <f32>1e-6);
      const perV: f32 = <f32>1.0 / max(sqrt(vx * vx + vy * vy), <f32>1e-6);
      const coverU = min(max(min(u, w - u) * perU + <f32>0.5, <f32>0), <f32>1);
      const coverV = min(max(min(v, h - v) * perV + <f32>0.5, <f32>0), <f32>1);
      const cover = coverU * coverV * opacity;
      if (!(cover > 0)) {
        v128.store(dst, f32x4.splat(0));
        continue;
      }
      const fu = floor(u - <f32>0.5);
      const fv = floor(v - <f32>0.5);
      const iu = <i32>fu;
      const iv = <i32>fv;
      const x0 = <usize>min(max(iu, 0), sw - 1) << 4;
      const x1 = <usize>min(max(iu + 1, 0), sw - 1) << 4;
      const r0 = src + (<usize>(min(max(iv, 0), sh - 1) * sw) << 4);
      const r1 = src + (<usize>(min(max(iv + 1, 0), sh - 1) * sw) << 4);
      const tu = f32x4.splat(u - <f32>0.5 - fu);
      const p00 = v128.load(r0 + x0);
      const p01 = v128.load(r1 + x0);
      const top = f32x4.add(p00, f32x4.mul(f32x4.sub(v128.load(r0 + x1), p00), tu));
      const low = f32x4.add(p01, f32x4.mul(f32x4.sub(v128.load(r1 + x1), p01), tu));
      v128.store(dst, f32x4.mul(f32x4.add(top, f32x4.mul(f32x4.sub(low, top), f32x4.splat(v - <f32>0.5 - fv))), f32x4.splat(cover)));
    }
  }
}
