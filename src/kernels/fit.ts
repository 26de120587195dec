// Edges of a key computed anew: what is surely solid and surely clear, the colours there, and how both are mixed in between.
import { decode, encode } from './light';
import { alphas, blues, greens, held, lumas, reds } from './lanes';
import { cellAt, past, pixelAt, screenPart } from './key';

const SOLID: u8 = 1;
const CLEAR: u8 = 2;

/** What a matte says by itself: 1 solid, 2 clear, 0 neither. */
// @ts-ignore: decorator
@inline
function kindOf(v: f32): u8 {
  return v >= <f32>0.97 ? SOLID : v <= <f32>0.03 ? CLEAR : 0;
}

/**
 * Marks pixels that are solid (1) as far as `solid` pixels around, or clear (2) as far as `clear` pixels, 0 otherwise; the border is repeated.
 * @param offset, gain from the values of the plane to the matte @param scratch w·h bytes, and w whole numbers and bytes
 */
export function sureMarks(plane: usize, w: i32, h: i32, offset: f32, gain: f32, solid: i32, clear: i32, marks: usize, scratch: usize): void {
  const runs = scratch + ((<usize>(w * h) + 3) & ~3);
  const kinds = runs + (<usize>w << 2);
  const beyond = max(solid, clear);
  memory.fill(scratch, 0, w * h);
  memory.fill(marks, 0, w * h);
  for (let y = 0; y < h; y++) {
    const row = plane + (<usize>(y * w) << 2);
    let last: u8 = kindOf((load<f32>(row) - offset) * gain);
    let run = beyond;
    for (let x = 0; x < w + beyond; x++) {
      const kind = x < w ? kindOf((load<f32>(row + (<usize>x << 2)) - offset) * gain) : last;
      run = kind == last ? run + 1 : 1;
      last = kind;
      const r = kind == SOLID ? solid : clear;
      const at = x - r;
      if (kind && at >= 0 && at < w && run > 2 * r) store<u8>(scratch + y * w + at, kind);
    }
  }
  for (let x = 0; x < w; x++) {
    store<i32>(runs + (<usize>x << 2), beyond);
    store<u8>(kinds + x, load<u8>(scratch + x));
  }
  for (let y = 0; y < h + beyond; y++) {
    for (let x = 0; x < w; x++) {
      const last = load<u8>(kinds + x);
      const kind = y < h ? load<u8>(scratch + y * w + x) : last;
      const slot = runs + (<usize>x << 2);
      const run = kind == last ? load<i32>(slot) + 1 : 1;
      store<i32>(slot, run);
      store<u8>(kinds + x, kind);
      const r = kind == SOLID ? solid : clear;
      const at = y - r;
      if (kind && at >= 0 && at < h && run > 2 * r) store<u8>(marks + at * w + x, kind);
    }
  }
}

/** How wide the edges of a matte are, pixels: those that are half clear for each crossing of one half along rows and columns. @param offset, gain from the values of the plane to the matte */
export function edgeWidth(plane: usize, w: i32, h: i32, offset: f32, gain: f32): f32 {
  let band = 0;
  let crossings = 0;
  for (let y = 1; y < h; y++) {
    let at = plane + (<usize>(y * w) << 2);
    let left = (load<f32>(at) - offset) * gain;
    for (let x = 1; x < w; x++) {
      at += 4;
      const v = (load<f32>(at) - offset) * gain;
      const above = (load<f32>(at - (<usize>w << 2)) - offset) * gain;
      if (v > <f32>0.1 && v < <f32>0.9) band++;
      crossings += i32(v >= 0.5 != left >= 0.5) + i32(v >= 0.5 != above >= 0.5);
      left = v;
    }
  }
  // a slanting edge is crossed both ways
  return crossings ? (<f32>band * <f32>1.27) / <f32>crossings : 0;
}

/** Sums of linear colour and counts over cells of 8×8 pixels, of those that are marked, every other one both ways. @param out for each cell r, g, b and their count */
export function sureCells(src: usize, marks: usize, w: i32, h: i32, kind: i32, out: usize): void {
  const cw = (w + 7) >> 3;
  memory.fill(out, 0, <usize>(cw * ((h + 7) >> 3)) << 4);
  for (let y = 0; y < h; y += 2) {
    for (let x = 0; x < w; x += 2) {
      if (load<u8>(marks + y * w + x) != kind) continue;
      const p = v128.load(src + (<usize>(y * w + x) << 4));
      const a = f32x4.extract_lane(p, 3);
      if (a < <f32>0.99) continue;
      const cell = out + (<usize>((y >> 3) * cw + (x >> 3)) << 4);
      v128.store(cell, f32x4.add(v128.load(cell), f32x4.replace_lane(decode(p), 3, 1)));
    }
  }
}

/** How far a mix lies from the colours, luma and colour apart. */
// @ts-ignore: decorator
@inline
function missed(t: v128, r: v128, g: v128, b: v128, fr: v128, fg: v128, fb: v128, sr: v128, sg: v128, sb: v128, weight: v128): v128 {
  const dr = f32x4.sub(encode(f32x4.add(sr, f32x4.mul(f32x4.sub(fr, sr), t))), r);
  const dg = f32x4.sub(encode(f32x4.add(sg, f32x4.mul(f32x4.sub(fg, sg), t))), g);
  const db = f32x4.sub(encode(f32x4.add(sb, f32x4.mul(f32x4.sub(fb, sb), t))), b);
  const y = lumas(dr, dg, db);
  const u = f32x4.mul(f32x4.sub(db, y), f32x4.splat(<f32>(1.0 / 1.8556)));
  const v = f32x4.mul(f32x4.sub(dr, y), f32x4.splat(<f32>(1.0 / 1.5748)));
  return f32x4.add(f32x4.mul(y, y), f32x4.mul(weight, f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v))));
}

/**
 * Matte of one row where it is not sure: the share with which the subject's and the screen's colour, mixed in linear light, come nearest to
 * the pixel as it is encoded. @param alpha n floats, with room for three more @param subject, screen rows of grids as for the key
 * @param offset, gain from the values of the plane to the matte as it was cut @param weight of colour beside brightness @param near what is
 * missed, squared, when the mix counts as much as the cut
 */
export function fitRow(src: usize, n: i32, alpha: usize, marks: usize, subject: usize, screen: usize, offset: f32, gain: f32, weight: f32, near: f32): void {
  const heavy = f32x4.splat(weight);
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const close = f32x4.splat(near);
  for (let x = 0; x < n; x += 4, src += 64, alpha += 16, marks += 4) {
    const left = n - x;
    let sure = left >= 4 && load<u8>(marks) && load<u8>(marks, 1) && load<u8>(marks, 2) && load<u8>(marks, 3);
    let best = zero;
    if (!sure) {
      const p0 = v128.load(src);
      const p1 = pixelAt(src, 1, left);
      const p2 = pixelAt(src, 2, left);
      const p3 = pixelAt(src, 3, left);
      const per = f32x4.div(one, f32x4.pmax(alphas(p0, p1, p2, p3), f32x4.splat(<f32>1e-9)));
      const r = f32x4.mul(reds(p0, p1, p2, p3), per);
      const g = f32x4.mul(greens(p0, p1, p2, p3), per);
      const b = f32x4.mul(blues(p0, p1, p2, p3), per);
      const t = past(x);
      const f = cellAt(subject, x);
      const s = cellAt(screen, x);
      const fr = screenPart(f, t, 0);
      const fg = screenPart(f, t, 1);
      const fb = screenPart(f, t, 2);
      const sr = screenPart(s, t, 0);
      const sg = screenPart(s, t, 1);
      const sb = screenPart(s, t, 2);
      let least = missed(zero, r, g, b, fr, fg, fb, sr, sg, sb, heavy);
      for (let k = 1; k <= 8; k++) {
        const share = f32x4.splat(<f32>k * <f32>0.125);
        const far = missed(share, r, g, b, fr, fg, fb, sr, sg, sb, heavy);
        const better = f32x4.lt(far, least);
        best = v128.bitselect(share, best, better);
        least = v128.bitselect(far, least, better);
      }
      for (let step: f32 = 0.0625; step > 0.005; step *= 0.5) {
        const here = best;
        for (let way = -1; way <= 1; way += 2) {
          const share = f32x4.pmin(f32x4.pmax(f32x4.add(here, f32x4.splat(step * <f32>way)), zero), one);
          const far = missed(share, r, g, b, fr, fg, fb, sr, sg, sb, heavy);
          const better = f32x4.lt(far, least);
          best = v128.bitselect(share, best, better);
          least = v128.bitselect(far, least, better);
        }
      }
      // where no mix comes near, what was cut as solid stays so
      const cut = held(f32x4.mul(f32x4.sub(v128.load(alpha), f32x4.splat(offset)), f32x4.splat(gain)));
      const doubt = f32x4.div(least, f32x4.add(least, close));
      best = f32x4.add(best, f32x4.mul(f32x4.pmax(f32x4.sub(cut, best), zero), doubt));
    }
    for (let i = 0; i < min(left, 4); i++) {
      const kind = load<u8>(marks + i);
      let v: f32 = kind == SOLID ? 1 : 0;
      if (!kind) {
        if (i == 0) v = f32x4.extract_lane(best, 0);
        else if (i == 1) v = f32x4.extract_lane(best, 1);
        else if (i == 2) v = f32x4.extract_lane(best, 2);
        else v = f32x4.extract_lane(best, 3);
      }
      store<f32>(alpha + (<usize>i << 2), v);
    }
  }
}
