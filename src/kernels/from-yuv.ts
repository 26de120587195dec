// 8-bit Y′CbCr with half as much colour both ways → float premultiplied RGBA.

import { held, scatter } from './lanes';

/** What one step of each plane is in RGB 0…1. */
let gain: f32 = 0;
let black: f32 = 0;
let redV: f32 = 0;
let greenU: f32 = 0;
let greenV: f32 = 0;
let blueU: f32 = 0;

/** Two rows of colour mixed three to one, less their middle; the first and the last are repeated beside them. @param out n + 2 floats, the first for what is left of the row */
function colourRow(near: usize, far: usize, n: i32, step: i32, out: usize): void {
  let i = 0;
  if (step == 1) {
    for (; i + 4 <= n; i += 4) {
      const mixed = f32x4.add(f32x4.mul(four(near + i), f32x4.splat(<f32>0.75)), f32x4.mul(four(far + i), f32x4.splat(<f32>0.25)));
      v128.store(out + (<usize>(i + 1) << 2), f32x4.sub(mixed, f32x4.splat(128)));
    }
  }
  for (; i < n; i++) {
    const at = i * step;
    store<f32>(out + (<usize>(i + 1) << 2), <f32>load<u8>(near + at) * <f32>0.75 + <f32>load<u8>(far + at) * <f32>0.25 - <f32>128);
  }
  store<f32>(out, load<f32>(out, 4));
  store<f32>(out + (<usize>(n + 1) << 2), load<f32>(out + (<usize>n << 2)));
}

/** Colour of four pixels between those of the row, three to one. @param at the one left of the first */
// @ts-ignore: decorator
@inline
function spread(at: usize): v128 {
  const c = v128.load(at);
  const near = v128.shuffle<f32>(c, c, 1, 1, 2, 2);
  const far = v128.shuffle<f32>(c, c, 0, 2, 1, 3);
  return f32x4.add(f32x4.mul(near, f32x4.splat(<f32>0.75)), f32x4.mul(far, f32x4.splat(<f32>0.25)));
}
// @ts-ignore: decorator
@inline
function four(at: usize): v128 {
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(at))));
}
/** A row of w pixels, rounded up to fours. @param a its alpha, or 0 @param u, v its colour, from the one left of it on */
function pixelRow(y: usize, a: usize, w: i32, u: usize, v: usize, dst: usize): void {
  for (let x = 0; x < w; x += 4, y += 4, u += 8, v += 8, dst += 64) {
    const bright = f32x4.mul(f32x4.sub(four(y), f32x4.splat(black)), f32x4.splat(gain));
    const cu = spread(u);
    const cv = spread(v);
    let r = held(f32x4.add(bright, f32x4.mul(cv, f32x4.splat(redV))));
    let g = held(f32x4.add(bright, f32x4.add(f32x4.mul(cu, f32x4.splat(greenU)), f32x4.mul(cv, f32x4.splat(greenV)))));
    let b = held(f32x4.add(bright, f32x4.mul(cu, f32x4.splat(blueU))));
    let alpha = f32x4.splat(1);
    if (a) {
      alpha = f32x4.mul(four(a + x), f32x4.splat(<f32>(1.0 / 255.0)));
      r = f32x4.mul(r, alpha);
      g = f32x4.mul(g, alpha);
      b = f32x4.mul(b, alpha);
    }
    scatter(dst, r, g, b, alpha, 4);
  }
}

/** Adds each `factor` pixels of a row to a pixel of the reduced one. */
function addReduced(row: usize, w: i32, factor: i32, dst: usize): void {
  for (let x = 0; x < w; x += factor, dst += 16) {
    let sum = v128.load(dst);
    for (let k = x; k < min(x + factor, w); k++) sum = f32x4.add(sum, v128.load(row + (<usize>k << 4)));
    v128.store(dst, sum);
  }
}

/**
 * Planes of Y′, Cb, Cr, and alpha when there is one, into pixels, reduced by a whole factor with a box average. Colour lies in the middle of
 * its two by two pixels and is drawn straight between them. @param a plane of alpha, or 0 @param step from one Cb or Cr to the next: 2 when
 * they take turns @param factor 1, 2, 4 …; the result is ceil(w/factor) × ceil(h/factor) @param matrix six floats: gain and black of Y′, and
 * what Cr gives red, Cb and Cr give green, Cb gives blue @param scratch 5·w + 64 floats
 */
export function fromYuv(y: usize, u: usize, v: usize, a: usize, w: i32, h: i32, step: i32, factor: i32, matrix: usize, dst: usize, scratch: usize): void {
  gain = load<f32>(matrix);
  black = load<f32>(matrix, 4);
  redV = load<f32>(matrix, 8);
  greenU = load<f32>(matrix, 12);
  greenV = load<f32>(matrix, 16);
  blueU = load<f32>(matrix, 20);
  const cw = (w + 1) / 2;
  const ch = (h + 1) / 2;
  const line = <usize>((cw + 8) << 2);
  const us = scratch;
  const vs = scratch + line;
  const row = scratch + line + line;
  const wide = (w + factor - 1) / factor;
  for (let top = 0; top < h; top += factor) {
    const rows = min(factor, h - top);
    const out = dst + (<usize>((top / factor) * wide) << 4);
    if (factor > 1) memory.fill(out, 0, <usize>wide << 4);
    for (let r = top; r < top + rows; r++) {
      const near = r >> 1;
      const far = r & 1 ? min(near + 1, ch - 1) : max(near - 1, 0);
      const across = cw * step;
      colourRow(u + near * across, u + far * across, cw, step, us);
      colourRow(v + near * across, v + far * across, cw, step, vs);
      const own = y + r * w;
      // a row that is no multiple of four would run over into the next, and the last one out of the picture
      const straight = factor == 1 && (w & 3) == 0;
      pixelRow(own, a ? a + r * w : 0, w, us, vs, straight ? out : row);
      if (factor > 1) addReduced(row, w, factor, out);
      else if (!straight) memory.copy(out, row, <usize>w << 4);
    }
    if (factor == 1) continue;
    for (let x = 0; x < wide; x++) {
      const columns = min(factor, w - x * factor);
      const at = out + (<usize>x << 4);
      v128.store(at, f32x4.mul(v128.load(at), f32x4.splat(<f32>1 / <f32>(columns * rows))));
    }
  }
}
