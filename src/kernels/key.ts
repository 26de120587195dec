// Colour key: how much of the screen is in each pixel, and what is left when it is taken out.
import { alphas, between, blues, greens, lumas, reds, scatter } from './lanes';
import { decode, encode } from './light';
import { CELL } from './screen';

/*
 * Parameters, as 32-bit floats at `params`:
 * 0 key channel (0 r, 1 g, 2 b) · 1, 2 weights of the other two channels · 3 clear up to · 4 1/ramp width · 5 clip black
 * · 6 1/(clip white − clip black) · 7 spill strength 0…1 · 8 spill limit: 0 the larger of the others, 1 their mean
 * · 9 strength of the replacement · 10, 11, 12 its linear colour at a luminance of 1 · 13 luminance of the key channel.
 * The screen comes as a row of a grid, one v128 for every CELL pixels, the first one for the pixels before the row's
 * beginning: linear r, g, b and 1/(its colour difference).
 */

/** The other two channels, weighted, the greater of them. */
// @ts-ignore: decorator
@inline
function others(r: v128, g: v128, b: v128, channel: i32, params: usize): v128 {
  const one = f32x4.mul(channel == 0 ? g : r, v128.load32_splat(params, 4));
  const two = f32x4.mul(channel == 2 ? g : b, v128.load32_splat(params, 8));
  return f32x4.pmax(one, two);
}

/** What the key channel may be at most without being spill. */
// @ts-ignore: decorator
@inline
function limit(r: v128, g: v128, b: v128, channel: i32, mean: bool): v128 {
  const one = channel == 0 ? g : r;
  const two = channel == 2 ? g : b;
  return mean ? f32x4.mul(f32x4.add(one, two), f32x4.splat(<f32>0.5)) : f32x4.pmax(one, two);
}

/** The smaller of the other two channels. */
// @ts-ignore: decorator
@inline
function lesser(r: v128, g: v128, b: v128, channel: i32): v128 {
  return f32x4.pmin(channel == 0 ? g : r, channel == 2 ? g : b);
}

// @ts-ignore: decorator
@inline
function keyed(r: v128, g: v128, b: v128, channel: i32): v128 {
  return channel == 0 ? r : channel == 1 ? g : b;
}

/** How far the middles of four pixels are past the first one's left side, in cells. */
const MIDDLES = memory.data<f32>([0.0625, 0.1875, 0.3125, 0.4375], 16);

/** How far four pixels from column x are from one cell of the grid to the next. x is a multiple of 4, so they lie between the same two. */
// @ts-ignore: decorator
@inline
export function past(x: i32): v128 {
  const middles = v128.load(MIDDLES);
  return (x + CELL / 2) & (CELL - 1) ? f32x4.add(middles, f32x4.splat(<f32>0.5)) : middles;
}

/** Part k of the screen there. @param cell of the grid before it */
// @ts-ignore: decorator
@inline
export function screenPart(cell: usize, t: v128, k: usize): v128 {
  const from = v128.load32_splat(cell + (k << 2));
  return f32x4.add(from, f32x4.mul(f32x4.sub(v128.load32_splat(cell + (k << 2), 16), from), t));
}

// @ts-ignore: decorator
@inline
export function cellAt(grid: usize, x: i32): usize {
  return grid + (<usize>((x + CELL / 2) >> 3) << 4);
}

/** Pixel i of the up to `left` pixels from `at`; those beyond are clear. */
// @ts-ignore: decorator
@inline
export function pixelAt(at: usize, i: i32, left: i32): v128 {
  return left > i ? v128.load(at + (<usize>i << 4)) : f32x4.splat(0);
}

/**
 * Matte before its clips, clear where they make it so by far, and the luma to guide it, of one row. With C = αF + (1−α)S the share of screen is
 * d(C)/d(S), where d is the key channel less the larger of the other two, in linear light. Four pixels at a time.
 * @param alpha, luma n floats each, with room for three more
 * Source: Vlahos' colour-difference key.
 */
export function keyAlpha(src: usize, n: i32, alpha: usize, luma: usize, params: usize, grid: usize): void {
  const channel = <i32>load<f32>(params);
  if (channel == 0) alphaOf(src, n, alpha, luma, params, grid, 0);
  else if (channel == 1) alphaOf(src, n, alpha, luma, params, grid, 1);
  else alphaOf(src, n, alpha, luma, params, grid, 2);
}

// @ts-ignore: decorator
@inline
function alphaOf(src: usize, n: i32, alpha: usize, luma: usize, params: usize, grid: usize, channel: i32): void {
  const solid = f32x4.splat(<f32>1.0 - load<f32>(params, 12));
  const perRamp = v128.load32_splat(params, 16);
  const one = f32x4.splat(1);
  // what the clip takes off by a wide margin is the screen's own unevenness
  const least = f32x4.splat(load<f32>(params, 20) * <f32>0.5);
  // without a balance, a pixel whose key channel does not exceed the others is as solid as a neutral one
  const even = load<f32>(params, 4) == 1 && load<f32>(params, 8) == 1;
  const plain = even && (<f32>1.0 - load<f32>(params, 12)) * load<f32>(params, 16) >= 1;
  for (let x = 0; x < n; x += 4, src += 64, alpha += 16, luma += 16) {
    const left = n - x;
    const p0 = v128.load(src);
    const p1 = pixelAt(src, 1, left);
    const p2 = pixelAt(src, 2, left);
    const p3 = pixelAt(src, 3, left);
    const per = f32x4.div(one, f32x4.pmax(alphas(p0, p1, p2, p3), f32x4.splat(<f32>1e-9)));
    const r = f32x4.mul(reds(p0, p1, p2, p3), per);
    const g = f32x4.mul(greens(p0, p1, p2, p3), per);
    const b = f32x4.mul(blues(p0, p1, p2, p3), per);
    v128.store(luma, lumas(r, g, b));
    if (plain && i32x4.all_true(f32x4.le(keyed(r, g, b, channel), limit(r, g, b, channel, false)))) {
      v128.store(alpha, one);
      continue;
    }
    // the larger of two is so as encoded and in light
    const rest = even ? decode(limit(r, g, b, channel, false)) : others(decode(r), decode(g), decode(b), channel, params);
    const share = f32x4.mul(f32x4.sub(decode(keyed(r, g, b, channel)), rest), screenPart(cellAt(grid, x), past(x), 3));
    const matte = f32x4.mul(f32x4.sub(solid, share), perRamp);
    v128.store(alpha, v128.and(f32x4.pmin(f32x4.pmax(matte, f32x4.splat(0)), one), f32x4.ge(matte, least)));
  }
}

/**
 * Takes the screen out of one row: clips the matte, unmixes F = (C − (1−α)S)/α in linear light, limits the screen's cast and puts
 * something else of the same luminance in its place. What is left of a pixel that is hardly covered is mostly noise: it goes towards
 * what the subject is like there, the more so the less it can be told from that. Four pixels at a time.
 * @param mattes n floats, with room for three more @param subject row of a grid of linear colours; 0 when they are not known
 * @param subjectStray, screenStray of variances of luma and colour differences
 * Source: Smith & Blinn 1996 for the unmixing; Chuang et al. 2001 for the subject's colour.
 */
export function keyUnmix(
  src: usize, dst: usize, n: i32, mattes: usize, params: usize, grid: usize, subject: usize, subjectStray: usize, screenStray: usize,
): void {
  const channel = <i32>load<f32>(params);
  if (channel == 0) unmixOf(src, dst, n, mattes, params, grid, subject, subjectStray, screenStray, 0);
  else if (channel == 1) unmixOf(src, dst, n, mattes, params, grid, subject, subjectStray, screenStray, 1);
  else unmixOf(src, dst, n, mattes, params, grid, subject, subjectStray, screenStray, 2);
}

/** Least variance of what is seen: a camera's noise and a codec's rounding. */
export const NOISE: f32 = 1e-4;

/** What the subject varies by beyond what its solid parts show: hair has a colour of its own. */
const VARIED: f32 = 5e-4;

/** How much of what is left of four pixels is the subject's own, by one variance of it and one of the screen. */
// @ts-ignore: decorator
@inline
function ownShare(alpha: v128, subject: v128, screen: v128): v128 {
  const rest = f32x4.sub(f32x4.splat(1), alpha);
  const own = f32x4.mul(f32x4.mul(alpha, alpha), f32x4.add(subject, f32x4.splat(VARIED)));
  const other = f32x4.add(f32x4.mul(f32x4.mul(rest, rest), screen), f32x4.mul(rest, f32x4.splat(NOISE)));
  return f32x4.div(own, f32x4.pmax(f32x4.add(own, other), f32x4.splat(<f32>1e-12)));
}

// @ts-ignore: decorator
@inline
function unmixOf(
  src: usize, dst: usize, n: i32, mattes: usize, params: usize, grid: usize, subject: usize, subjectStray: usize, screenStray: usize, channel: i32,
): void {
  const clipBlack = v128.load32_splat(params, 20);
  const perClip = v128.load32_splat(params, 24);
  const spill = v128.load32_splat(params, 28);
  const byMean = load<f32>(params, 32) > 0;
  const replaced = load<f32>(params, 36);
  const simple = load<f32>(params, 28) >= 1 && !byMean && replaced == 0;
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  for (let x = 0; x < n; x += 4, src += 64, dst += 64, mattes += 16) {
    const left = n - x;
    const alpha = f32x4.pmin(f32x4.pmax(f32x4.mul(f32x4.sub(v128.load(mattes), clipBlack), perClip), zero), one);
    if (!v128.any_true(f32x4.gt(alpha, zero))) {
      memory.fill(dst, 0, <usize>min(left, 4) << 4);
      continue;
    }
    const p0 = v128.load(src);
    const p1 = pixelAt(src, 1, left);
    const p2 = pixelAt(src, 2, left);
    const p3 = pixelAt(src, 3, left);
    let r = reds(p0, p1, p2, p3);
    let g = greens(p0, p1, p2, p3);
    let b = blues(p0, p1, p2, p3);
    let a = alphas(p0, p1, p2, p3);
    if (simple && i32x4.all_true(f32x4.ge(alpha, one))) {
      // nothing to unmix; the key channel comes down to the larger of the others, which is the same in light and as encoded
      const most = limit(r, g, b, channel, false);
      if (channel == 0) r = f32x4.pmin(r, most);
      else if (channel == 1) g = f32x4.pmin(g, most);
      else b = f32x4.pmin(b, most);
    } else {
      const per = f32x4.div(one, f32x4.pmax(a, f32x4.splat(<f32>1e-9)));
      const red = decode(f32x4.mul(r, per));
      const green = decode(f32x4.mul(g, per));
      const blue = decode(f32x4.mul(b, per));
      const screen = f32x4.sub(one, alpha);
      const cell = cellAt(grid, x);
      const t = past(x);
      const whole = f32x4.div(one, f32x4.pmax(alpha, f32x4.splat(<f32>1e-6)));
      r = f32x4.mul(f32x4.pmax(f32x4.sub(red, f32x4.mul(screen, screenPart(cell, t, 0))), zero), whole);
      g = f32x4.mul(f32x4.pmax(f32x4.sub(green, f32x4.mul(screen, screenPart(cell, t, 1))), zero), whole);
      b = f32x4.mul(f32x4.pmax(f32x4.sub(blue, f32x4.mul(screen, screenPart(cell, t, 2))), zero), whole);
      if (subject) {
        const near = cellAt(subject, x);
        const inside = cellAt(subjectStray, x);
        const outside = cellAt(screenStray, x);
        const nr = screenPart(near, t, 0);
        const ng = screenPart(near, t, 1);
        const nb = screenPart(near, t, 2);
        const ny = lumas(nr, ng, nb);
        const y = lumas(r, g, b);
        const sy = ownShare(alpha, screenPart(inside, t, 0), screenPart(outside, t, 0));
        const su = ownShare(alpha, screenPart(inside, t, 1), screenPart(outside, t, 1));
        const sv = ownShare(alpha, screenPart(inside, t, 2), screenPart(outside, t, 2));
        const luma = between(ny, y, sy);
        b = f32x4.pmax(f32x4.add(luma, between(f32x4.sub(nb, ny), f32x4.sub(b, y), su)), zero);
        r = f32x4.pmax(f32x4.add(luma, between(f32x4.sub(nr, ny), f32x4.sub(r, y), sv)), zero);
        const rest = f32x4.sub(luma, f32x4.add(f32x4.mul(r, f32x4.splat(<f32>0.2126)), f32x4.mul(b, f32x4.splat(<f32>0.0722))));
        g = f32x4.pmax(f32x4.mul(rest, f32x4.splat(<f32>(1.0 / 0.7152))), zero);
        // the key channel falls below both others only as far as the subject's does
        const share = f32x4.div(keyed(nr, ng, nb, channel), f32x4.pmax(lesser(nr, ng, nb, channel), f32x4.splat(<f32>1e-6)));
        const floor = f32x4.mul(lesser(r, g, b, channel), f32x4.pmin(share, one));
        if (channel == 0) r = f32x4.pmax(r, floor);
        else if (channel == 1) g = f32x4.pmax(g, floor);
        else b = f32x4.pmax(b, floor);
      }
      const cut = f32x4.mul(f32x4.pmax(f32x4.sub(keyed(r, g, b, channel), limit(r, g, b, channel, byMean)), zero), spill);
      if (channel == 0) r = f32x4.sub(r, cut);
      else if (channel == 1) g = f32x4.sub(g, cut);
      else b = f32x4.sub(b, cut);
      if (replaced > 0) {
        const lost = f32x4.mul(cut, f32x4.splat(replaced * load<f32>(params, 52)));
        r = f32x4.add(r, f32x4.mul(lost, v128.load32_splat(params, 40)));
        g = f32x4.add(g, f32x4.mul(lost, v128.load32_splat(params, 44)));
        b = f32x4.add(b, f32x4.mul(lost, v128.load32_splat(params, 48)));
      }
      a = f32x4.mul(a, alpha);
      r = f32x4.mul(f32x4.pmin(encode(r), one), a);
      g = f32x4.mul(f32x4.pmin(encode(g), one), a);
      b = f32x4.mul(f32x4.pmin(encode(b), one), a);
    }
    scatter(dst, r, g, b, a, left);
  }
}
