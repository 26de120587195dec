// Edges of a key computed anew: colours of what is surely solid and surely clear, and how both are mixed in between.
import { decode, encode } from './light';
import { alphas, between, blues, bytesOf, greens, held, lumas, reds, sums } from './lanes';
import { cellAt, NOISE, past, pixelAt, screenPart } from './key';
import { CLEAR, SOLID } from './sure';

/**
 * What the marked pixels of cells of 8×8 are like, every other one both ways. @param kinds bits of the marks
 * @param out for each of them, the lowest first, a grid with twelve floats a cell: sums of linear r, g, b and how
 * many; sums of luma and the two colour differences as encoded, and a spare one; sums of their squares, and a spare one
 */
export function sureCells(src: usize, marks: usize, w: i32, h: i32, kinds: u8, out: usize): void {
  const grid = <usize>(((w + 7) >> 3) * ((h + 7) >> 3)) * 48;
  for (let y = 0; y < h; y += 8) {
    for (let x = 0; x < w; x += 8, out += 48) {
      let to = out;
      // all kinds of a cell while its pixels are at hand
      for (let kind: u8 = 1; kind <= kinds; kind <<= 1) {
        if (!(kinds & kind)) continue;
        cellOf(src, marks, w, x, y, min(8, w - x), min(8, h - y), kind, to);
        to += grid;
      }
    }
  }
}

/** The sums of one cell of wide×tall pixels. */
function cellOf(src: usize, marks: usize, w: i32, x: i32, y: i32, wide: i32, tall: i32, kind: u8, out: usize): void {
  const zero = f32x4.splat(0);
  let red = zero, green = zero, blue = zero, count = zero;
  let luma = zero, first = zero, second = zero;
  let lumas2 = zero, firsts2 = zero, seconds2 = zero;
  const within = wide < 8 ? (<u64>1 << (<u64>wide << 3)) - 1 : ~(<u64>0);
  const bit = <u32>kind * 0x01010101;
  let any = false;
  // a cell that is all of a kind tells by half as many rows
  const step = wide == 8 && tall == 8 && allMarked(marks + y * w + x, w, <u64>kind * 0x0101010101010101) ? 4 : 2;
  for (let v = 0; v < tall; v += step) {
    const from = (y + v) * w + x;
    const eight = load<u64>(marks + from) & within;
    // marks of every other pixel, side by side
    const four = (<u32>(eight & 0xff) | (<u32>(eight >> 8) & 0xff00) | (<u32>(eight >> 16) & 0xff0000) | (<u32>(eight >> 24) & 0xff000000)) & bit;
    if (!four) continue;
    any = true;
    const at = src + (<usize>from << 4);
    const p0 = v128.load(at);
    const p1 = wide > 2 ? v128.load(at, 32) : zero;
    const p2 = wide > 4 ? v128.load(at, 64) : zero;
    const p3 = wide > 6 ? v128.load(at, 96) : zero;
    const marked = i32x4.ne(bytesOf(four), i32x4.splat(0));
    const those = v128.and(marked, f32x4.ge(alphas(p0, p1, p2, p3), f32x4.splat(<f32>0.99)));
    const r = v128.and(reds(p0, p1, p2, p3), those);
    const g = v128.and(greens(p0, p1, p2, p3), those);
    const b = v128.and(blues(p0, p1, p2, p3), those);
    red = f32x4.add(red, decode(r));
    green = f32x4.add(green, decode(g));
    blue = f32x4.add(blue, decode(b));
    count = f32x4.add(count, v128.and(those, f32x4.splat(1)));
    const l = lumas(r, g, b);
    const cb = f32x4.mul(f32x4.sub(b, l), f32x4.splat(BLUE));
    const cr = f32x4.mul(f32x4.sub(r, l), f32x4.splat(RED));
    luma = f32x4.add(luma, l);
    first = f32x4.add(first, cb);
    second = f32x4.add(second, cr);
    lumas2 = f32x4.add(lumas2, f32x4.mul(l, l));
    firsts2 = f32x4.add(firsts2, f32x4.mul(cb, cb));
    seconds2 = f32x4.add(seconds2, f32x4.mul(cr, cr));
  }
  if (!any) {
    memory.fill(out, 0, 48);
    return;
  }
  v128.store(out, sums(red, green, blue, count));
  v128.store(out, sums(luma, first, second, zero), 16);
  v128.store(out, sums(lumas2, firsts2, seconds2, zero), 32);
}

/** True when every other row of 8×8 marks has all of some bits. */
// @ts-ignore: decorator
@inline
function allMarked(at: usize, w: i32, bits: u64): bool {
  return (load<u64>(at) & load<u64>(at + (w << 1)) & load<u64>(at + (w << 2)) & load<u64>(at + 6 * w) & bits) == bits;
}

/** From b − luma and r − luma to colour differences, BT.709. */
const BLUE: f32 = <f32>(1.0 / 1.8556);
const RED: f32 = <f32>(1.0 / 1.5748);
/** How much of a step in colour is taken for blurred away where the matte is steep, of the step for each part of the matte from one pixel to the next. */
const BLURRED: f32 = 0.5;

/** Natural logarithm of positive numbers; error ≤ 1e-4. */
// @ts-ignore: decorator
@inline
function log(x: v128): v128 {
  const power = f32x4.convert_i32x4_s(i32x4.sub(i32x4.shr_u(x, 23), i32x4.splat(127)));
  const m = v128.or(v128.and(x, i32x4.splat(0x007fffff)), i32x4.splat(0x3f800000));
  let p = f32x4.splat(<f32>-0.056570851);
  p = f32x4.add(f32x4.mul(p, m), f32x4.splat(<f32>0.44717955));
  p = f32x4.add(f32x4.mul(p, m), f32x4.splat(<f32>-1.4699568));
  p = f32x4.add(f32x4.mul(p, m), f32x4.splat(<f32>2.8212026));
  p = f32x4.add(f32x4.mul(p, m), f32x4.splat(<f32>-1.7417939));
  return f32x4.add(f32x4.mul(power, f32x4.splat(<f32>0.69314718)), p);
}

/** Squared rate at which a matte goes over from pixel to pixel, of four. @param above, below rows beside it */
// @ts-ignore: decorator
@inline
function steepness(at: usize, above: usize, below: usize, first: bool, last: bool, gain: f32): v128 {
  const left = first ? v128.shuffle<f32>(v128.load(at), v128.load(at), 0, 0, 1, 2) : v128.load(at - 4);
  const right = last ? v128.shuffle<f32>(v128.load(at), v128.load(at), 1, 2, 3, 3) : v128.load(at + 4);
  const across = f32x4.sub(right, left);
  const down = f32x4.sub(v128.load(below), v128.load(above));
  return f32x4.mul(f32x4.add(f32x4.mul(across, across), f32x4.mul(down, down)), f32x4.splat(<f32>0.25 * gain * gain));
}

/** The share t of the way from one linear value to another, as encoded. */
// @ts-ignore: decorator
@inline
function mixed(from: v128, to: v128, t: v128): v128 {
  return encode(between(from, to, t));
}

/** What tells how well a share t fits four pixels: how far the mix of both sides, encoded, is off, by how far it may be, and how wide that is. */
// @ts-ignore: decorator
@inline
function misfit(
  t: v128, mr: v128, mg: v128, mb: v128, r: v128, g: v128, b: v128, fy: v128, fu: v128, fv: v128, sy: v128, su: v128, sv: v128, blurred: v128,
): v128 {
  const dr = f32x4.sub(mr, r);
  const dg = f32x4.sub(mg, g);
  const db = f32x4.sub(mb, b);
  const y = lumas(dr, dg, db);
  const u = f32x4.mul(f32x4.sub(db, y), f32x4.splat(BLUE));
  const v = f32x4.mul(f32x4.sub(dr, y), f32x4.splat(RED));
  const solid = f32x4.mul(t, t);
  const rest = f32x4.sub(f32x4.splat(1), t);
  const clear = f32x4.mul(rest, rest);
  const noise = f32x4.splat(NOISE);
  const my = f32x4.add(noise, f32x4.add(f32x4.mul(solid, fy), f32x4.mul(clear, sy)));
  const mu = f32x4.add(f32x4.add(noise, blurred), f32x4.add(f32x4.mul(solid, fu), f32x4.mul(clear, su)));
  const mv = f32x4.add(f32x4.add(noise, blurred), f32x4.add(f32x4.mul(solid, fv), f32x4.mul(clear, sv)));
  const off = f32x4.add(f32x4.div(f32x4.mul(y, y), my), f32x4.add(f32x4.div(f32x4.mul(u, u), mu), f32x4.div(f32x4.mul(v, v), mv)));
  return f32x4.add(off, log(f32x4.mul(my, f32x4.mul(mu, mv))));
}

/**
 * Matte of one row: 1 and 0 where it is sure, else the share with which the subject's and the screen's colour, mixed in linear light, are the likeliest
 * to be what is seen. Brightness and colour count by how much both sides stray in them; colour, which coded video halves, counts less where the
 * matte is steep. @param matte, above, below rows of it as the key cut it, with room for three more floats @param out a row of the fitted one, the same
 * @param subject, screen rows of grids of linear colours, subjectStray, screenStray of variances of luma and colour differences
 * @param plate a row of what lies behind, which stands for the screen; 0 when it is not known
 * Source: Chuang et al. 2001, with one measured distribution for each side and no correlations.
 */
export function fitRow(
  src: usize, n: i32, matte: usize, above: usize, below: usize, gain: f32, marks: usize, out: usize,
  subject: usize, subjectStray: usize, screen: usize, screenStray: usize, plate: usize,
): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  for (let x = 0; x < n; x += 4, src += 64, matte += 16, above += 16, below += 16, out += 16, marks += 4) {
    const left = n - x;
    let best = zero;
    if (left < 4 || !sureAll(load<u32>(marks))) {
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
      let sr: v128, sg: v128, sb: v128;
      if (plate) {
        const at = plate + (<usize>x << 4);
        const q0 = v128.load(at);
        const q1 = pixelAt(at, 1, left);
        const q2 = pixelAt(at, 2, left);
        const q3 = pixelAt(at, 3, left);
        sr = decode(reds(q0, q1, q2, q3));
        sg = decode(greens(q0, q1, q2, q3));
        sb = decode(blues(q0, q1, q2, q3));
      } else {
        sr = screenPart(s, t, 0);
        sg = screenPart(s, t, 1);
        sb = screenPart(s, t, 2);
      }
      const fs = cellAt(subjectStray, x);
      const ss = cellAt(screenStray, x);
      const fy = screenPart(fs, t, 0);
      const fu = screenPart(fs, t, 1);
      const fv = screenPart(fs, t, 2);
      const sy = plate ? zero : screenPart(ss, t, 0);
      const su = plate ? zero : screenPart(ss, t, 1);
      const sv = plate ? zero : screenPart(ss, t, 2);
      // both sides as they are seen
      const er = encode(fr);
      const eg = encode(fg);
      const eb = encode(fb);
      const cr = encode(sr);
      const cg = encode(sg);
      const cb = encode(sb);
      const dr = f32x4.sub(er, cr);
      const db = f32x4.sub(eb, cb);
      const dy = lumas(dr, f32x4.sub(eg, cg), db);
      const du = f32x4.mul(f32x4.sub(db, dy), f32x4.splat(BLUE));
      const dv = f32x4.mul(f32x4.sub(dr, dy), f32x4.splat(RED));
      const step = f32x4.add(f32x4.mul(du, du), f32x4.mul(dv, dv));
      const blurred = f32x4.mul(f32x4.mul(steepness(matte, above, below, x == 0, left <= 4, gain), step), f32x4.splat(BLURRED * BLURRED));
      // a quarter after another, unless all four pixels are like one side
      let least = misfit(zero, cr, cg, cb, r, g, b, fy, fu, fv, sy, su, sv, blurred);
      let off = misfit(one, er, eg, eb, r, g, b, fy, fu, fv, sy, su, sv, blurred);
      best = v128.and(one, f32x4.lt(off, least));
      least = f32x4.pmin(least, off);
      for (let k = 1; k < 4; k++) {
        const share = f32x4.splat(<f32>k * <f32>0.25);
        off = misfit(share, mixed(sr, fr, share), mixed(sg, fg, share), mixed(sb, fb, share), r, g, b, fy, fu, fv, sy, su, sv, blurred);
        best = v128.bitselect(share, best, f32x4.lt(off, least));
        least = f32x4.pmin(least, off);
        if (!v128.any_true(best)) break;
      }
      for (let step: f32 = 0.125; step > 0.03; step *= 0.5) {
        const here = best;
        const middle = least;
        const lower = held(f32x4.sub(here, f32x4.splat(step)));
        const upper = held(f32x4.add(here, f32x4.splat(step)));
        const below = v128.any_true(here)
          ? misfit(lower, mixed(sr, fr, lower), mixed(sg, fg, lower), mixed(sb, fb, lower), r, g, b, fy, fu, fv, sy, su, sv, blurred)
          : middle;
        const above = i32x4.all_true(f32x4.eq(here, one))
          ? middle
          : misfit(upper, mixed(sr, fr, upper), mixed(sg, fg, upper), mixed(sb, fb, upper), r, g, b, fy, fu, fv, sy, su, sv, blurred);
        best = v128.bitselect(lower, best, f32x4.lt(below, least));
        least = f32x4.pmin(least, below);
        best = v128.bitselect(upper, best, f32x4.lt(above, least));
        least = f32x4.pmin(least, above);
        if (step > 0.1) continue;
        // the lowest point of a parabola through three, where it is the middle one that lies lowest
        const bend = f32x4.add(f32x4.sub(below, f32x4.add(middle, middle)), above);
        const turn = f32x4.mul(f32x4.div(f32x4.sub(below, above), f32x4.pmax(bend, f32x4.splat(<f32>1e-6))), f32x4.splat(step * <f32>0.5));
        const inside = v128.and(f32x4.le(middle, f32x4.pmin(below, above)), v128.and(f32x4.gt(here, zero), f32x4.lt(here, one)));
        best = v128.bitselect(f32x4.add(here, turn), best, inside);
      }
    }
    const lanes = bytesOf(load<u32>(marks));
    best = v128.bitselect(zero, best, i32x4.eq(lanes, i32x4.splat(CLEAR)));
    v128.store(out, v128.bitselect(one, best, i32x4.ne(v128.and(lanes, i32x4.splat(SOLID)), i32x4.splat(0))));
  }
}

/** True when each of four marks is set. */
// @ts-ignore: decorator
@inline
function sureAll(four: u32): bool {
  return (four & 255) != 0 && (four & 0xff00) != 0 && (four & 0xff0000) != 0 && four >> 24 != 0;
}
