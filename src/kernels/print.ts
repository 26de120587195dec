// Pictures as prints and screens make them: steps, blocks, dots, lines, channels that lie apart.
import { lumaOf } from './lanes';
import { straight } from './light';

/** Red of one picture, green and alpha of another, blue of a third; each premultiplied. Where the three cover differently, the most. */
export function channelsOf(red: usize, green: usize, blue: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, red += 16, green += 16, blue += 16, dst += 16) {
    const p = f32x4(load<f32>(red), load<f32>(green, 4), load<f32>(blue, 8), 0);
    v128.store(dst, f32x4.replace_lane(p, 3, max(load<f32>(green, 12), max(load<f32>(red, 12), load<f32>(blue, 12)))));
  }
}

/** The mean of a block of a picture w pixels wide, put over the same block of another. */
export function meanBlock(src: usize, dst: usize, w: i32, x: i32, y: i32, bw: i32, bh: i32): void {
  const step = <usize>w << 4;
  const corner = <usize>(y * w + x) << 4;
  let sum = f32x4.splat(0);
  for (let j = 0; j < bh; j++) {
    const row = src + corner + step * <usize>j;
    for (let i = 0; i < bw; i++) sum = f32x4.add(sum, v128.load(row + (<usize>i << 4)));
  }
  const mean = f32x4.mul(sum, f32x4.splat(<f32>1 / <f32>(bw * bh)));
  for (let j = 0; j < bh; j++) {
    const row = dst + corner + step * <usize>j;
    for (let i = 0; i < bw; i++) v128.store(row + (<usize>i << 4), mean);
  }
}

/** Colours in `last`+1 steps of equal width. @param soft share of a step over which it goes over into the next, more than 0 */
export function stepSpan(src: usize, dst: usize, n: i32, last: f32, soft: f32): void {
  const count = f32x4.splat(last + 1);
  const limit = f32x4.splat(last);
  const hard = f32x4.splat(<f32>1 / soft);
  const per: f32 = <f32>1 / last;
  const zero = f32x4.splat(0);
  const end = src + (<usize>n << 4);
  if (src >= end) return;
  // asked after each pixel: what is alike for all would else be worked out in each
  do {
    const p = v128.load(src);
    const alpha = f32x4.extract_lane(p, 3);
    // which step, and how far on towards the next; the edge lies in the last part of a step
    const own = alpha == 1 ? p : straight(p);
    const at = f32x4.pmin(f32x4.pmax(f32x4.mul(own, count), zero), count);
    const next = f32x4.ceil(at);
    const on = f32x4.pmin(f32x4.mul(f32x4.sub(next, at), hard), f32x4.splat(1));
    const step = f32x4.pmin(f32x4.sub(next, on), limit);
    v128.store(dst, f32x4.replace_lane(f32x4.mul(step, f32x4.splat(alpha * per)), 3, alpha));
    src += 16;
    dst += 16;
  } while (src < end);
}

/** Colours times a number; alpha stays. */
export function dimSpan(src: usize, dst: usize, n: i32, gain: f32): void {
  const by = f32x4(gain, gain, gain, 1);
  for (let i = 0; i < n; i++, src += 16, dst += 16) v128.store(dst, f32x4.mul(v128.load(src), by));
}

/**
 * Dots of ink on paper, each as large as it is dark there. @param x, y of the row's first pixel from the middle of the screen
 * @param c, s cosine and sine of the screen's turn, over the pixels from dot to dot
 */
export function dotSpan(src: usize, dst: usize, n: i32, x: f32, y: f32, c: f32, s: f32, ir: f32, ig: f32, ib: f32, pr: f32, pg: f32, pb: f32): void {
  const ink = f32x4(ir, ig, ib, 1);
  const paper = f32x4(pr, pg, pb, 1);
  const pixel: f32 = sqrt(c * c + s * s);
  const v = y + <f32>0.5;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const alpha = f32x4.extract_lane(p, 3);
    const own = straight(p);
    const luma: f32 = lumaOf(own);
    const u = x + <f32>i + <f32>0.5;
    const a = c * u + s * v;
    const b = c * v - s * u;
    // distance to the nearest dot's middle, in spacings
    const du = a - floor(a) - <f32>0.5;
    const dv = b - floor(b) - <f32>0.5;
    const far = sqrt(du * du + dv * dv);
    const dark = min(max(<f32>1 - luma, <f32>0), <f32>1);
    // a disc covers as much as it is dark; from π/4 on discs meet, and what is left between four of them closes
    const radius: f32 = dark <= <f32>0.7854 ? sqrt(dark / <f32>3.14159265) : <f32>0.7072 - <f32>0.4471 * sqrt(<f32>1 - dark);
    const cover = min(max((radius - far) / pixel + <f32>0.5, <f32>0), <f32>1);
    const shown = dark <= 0 ? <f32>0 : dark >= 1 ? <f32>1 : cover;
    v128.store(dst, f32x4.mul(f32x4.add(paper, f32x4.mul(f32x4.sub(ink, paper), f32x4.splat(shown))), f32x4.splat(alpha)));
  }
}

/** How steep the brightness is at each pixel of a row between two others: floats 0…, by Sobel's operator. @param above, at, below luma of the rows, with one place more on each side */
export function steepRow(above: usize, at: usize, below: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, above += 4, at += 4, below += 4, dst += 4) {
    const a = load<f32>(above), b = load<f32>(above, 4), c = load<f32>(above, 8);
    const d = load<f32>(at), f = load<f32>(at, 8);
    const g = load<f32>(below), h = load<f32>(below, 4), k = load<f32>(below, 8);
    const x: f32 = c + <f32>2 * f + k - a - <f32>2 * d - g;
    const y: f32 = g + <f32>2 * h + k - a - <f32>2 * b - c;
    store<f32>(dst, <f32>0.25 * sqrt(x * x + y * y));
  }
}
