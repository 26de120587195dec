// Float premultiplied RGBA → 8-bit Y′CbCr for video files.
import { blues, greens, held, lumas, reds } from './lanes';
import { straight } from './light';

// @ts-ignore: decorator
@inline
function byte(v: f32): i32 {
  return <i32>(min<f32>(255, max<f32>(0, v)) + <f32>0.5);
}

// @ts-ignore: decorator
@inline
function luma(p: v128): f32 {
  return <f32>0.2126 * f32x4.extract_lane(p, 0) + <f32>0.7152 * f32x4.extract_lane(p, 1) + <f32>0.0722 * f32x4.extract_lane(p, 2);
}

// @ts-ignore: decorator
@inline
function kept(p: v128): v128 {
  return f32x4.pmin(f32x4.pmax(straight(p), f32x4.splat(0)), f32x4.splat(1));
}

/** Two by two pixels, or as many of them as the picture has. */
// @ts-ignore: decorator
@inline
function block(src: usize, w: i32, h: i32, row: i32, col: i32, y: usize, u: usize, v: usize, a: usize): void {
  let sum = f32x4.splat(0);
  for (let down = row; down < min(row + 2, h); down++) {
    for (let right = col; right < min(col + 2, w); right++) {
      const at = down * w + right;
      const p = v128.load(src + (<usize>at << 4));
      const c = a ? kept(p) : f32x4.pmin(f32x4.pmax(p, f32x4.splat(0)), f32x4.splat(1));
      store<u8>(y + at, byte(<f32>16 + <f32>219 * luma(c)));
      if (a) store<u8>(a + at, byte(<f32>255 * f32x4.extract_lane(p, 3)));
      sum = f32x4.add(sum, a ? p : f32x4.replace_lane(c, 3, 1));
    }
  }
  const mean = kept(sum);
  const bright = luma(mean);
  const out = (row >> 1) * ((w + 1) / 2) + (col >> 1);
  store<u8>(u + out, byte(<f32>128 + (<f32>224 / <f32>1.8556) * (f32x4.extract_lane(mean, 2) - bright)));
  store<u8>(v + out, byte(<f32>128 + (<f32>224 / <f32>1.5748) * (f32x4.extract_lane(mean, 0) - bright)));
}

/** Four values to the nearest bytes, in the low lane. */
// @ts-ignore: decorator
@inline
function bytes(v: v128): v128 {
  const whole = i32x4.trunc_sat_f32x4_s(f32x4.add(v, f32x4.splat(<f32>0.5)));
  const short = i16x8.narrow_i32x4_s(whole, whole);
  return i8x16.narrow_i16x8_u(short, short);
}

/** Red, green, blue and luma of four pixels. */
let red: v128 = f32x4.splat(0);
let blue: v128 = f32x4.splat(0);
let bright4: v128 = f32x4.splat(0);
// @ts-ignore: decorator
@inline
function gather(at: usize): void {
  const p0 = v128.load(at);
  const p1 = v128.load(at, 16);
  const p2 = v128.load(at, 32);
  const p3 = v128.load(at, 48);
  red = held(reds(p0, p1, p2, p3));
  blue = held(blues(p0, p1, p2, p3));
  bright4 = lumas(red, held(greens(p0, p1, p2, p3)), blue);
}

/** Four by two pixels on black. @param at the left one above @param line bytes to the one below @param y, u, v where they go @param w pixels to the luma below */
// @ts-ignore: decorator
@inline
function opaqueBlocks(at: usize, line: usize, y: usize, w: i32, u: usize, v: usize): void {
  const range = f32x4.splat(219);
  const black = f32x4.splat(16);
  gather(at);
  const r = red;
  const b = blue;
  const l = bright4;
  store<u32>(y, <u32>i32x4.extract_lane(bytes(f32x4.add(black, f32x4.mul(range, l))), 0));
  gather(at + line);
  store<u32>(y + <usize>w, <u32>i32x4.extract_lane(bytes(f32x4.add(black, f32x4.mul(range, bright4))), 0));
  const reds = f32x4.add(r, red);
  const blues = f32x4.add(b, blue);
  const brights = f32x4.add(l, bright4);
  const ends = f32x4.add(v128.shuffle<f32>(reds, blues, 0, 2, 4, 6), v128.shuffle<f32>(reds, blues, 1, 3, 5, 7));
  const middle = f32x4.add(v128.shuffle<f32>(brights, brights, 0, 2, 0, 2), v128.shuffle<f32>(brights, brights, 1, 3, 1, 3));
  const apart = f32x4.mul(f32x4.sub(ends, middle), f32x4.splat(<f32>0.25));
  const per = f32x4(<f32>224 / <f32>1.5748, <f32>224 / <f32>1.5748, <f32>224 / <f32>1.8556, <f32>224 / <f32>1.8556);
  const chroma = <u32>i32x4.extract_lane(bytes(f32x4.add(f32x4.splat(128), f32x4.mul(apart, per))), 0);
  store<u16>(v, <u16>chroma);
  store<u16>(u, <u16>(chroma >> 16));
}

/**
 * BT.709 matrix, limited range (16…235, 16…240), 4:2:0 with the mean chroma of two by two pixels; clear pixels do not count in it.
 * Without an alpha plane the picture is as it lies on black. Source: ITU-R BT.709-6.
 * @param a plane of alpha 0…255, or 0 for none
 */
export function toYuv(src: usize, w: i32, h: i32, y: usize, u: usize, v: usize, a: usize): void {
  const wide = (w + 1) / 2;
  const line = <usize>w << 4;
  for (let row = 0; row < h; row += 2) {
    let col = 0;
    if (!a && row + 1 < h) {
      for (; col + 4 <= w; col += 4) {
        const at = row * w + col;
        const out = (row >> 1) * wide + (col >> 1);
        opaqueBlocks(src + (<usize>at << 4), line, y + at, w, u + out, v + out);
      }
    }
    for (; col < w; col += 2) block(src, w, h, row, col, y, u, v, a);
  }
}
