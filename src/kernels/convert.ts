// Between 8-bit straight RGBA (files, frames, canvases) and float32 premultiplied RGBA (everything inside).
import { straight } from './light';

const INV255: f32 = 1.0 / 255.0;

// @ts-ignore: decorator
@inline
function load8(at: usize): v128 {
  const bytes = v128.load32_zero(at);
  const wide = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(bytes));
  return f32x4.mul(f32x4.convert_i32x4_s(wide), f32x4.splat(INV255));
}

// @ts-ignore: decorator
@inline
function premultiplied(p: v128): v128 {
  const a = f32x4.extract_lane(p, 3);
  return f32x4.replace_lane(f32x4.mul(p, f32x4.splat(a)), 3, a);
}

/** 8-bit straight RGBA → float premultiplied. @param n pixels */
export function widen(src: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    v128.store(dst, premultiplied(load8(src)));
    src += 4;
    dst += 16;
  }
}

/**
 * 8-bit straight RGBA → float premultiplied, reduced by a whole factor with a box average.
 * The last column and row average what is left, so a reduced picture covers the same area.
 * @param factor 2, 3, 4 …; the result is ceil(sw/factor) × ceil(sh/factor)
 */
export function widenReduced(src: usize, sw: i32, sh: i32, dst: usize, factor: i32): void {
  const dw = (sw + factor - 1) / factor;
  const dh = (sh + factor - 1) / factor;
  for (let y = 0; y < dh; y++) {
    const y0 = y * factor;
    const y1 = min(y0 + factor, sh);
    for (let x = 0; x < dw; x++) {
      const x0 = x * factor;
      const x1 = min(x0 + factor, sw);
      let sum = f32x4.splat(0);
      for (let v = y0; v < y1; v++) {
        let at = src + (<usize>(v * sw + x0) << 2);
        for (let u = x0; u < x1; u++) {
          sum = f32x4.add(sum, premultiplied(load8(at)));
          at += 4;
        }
      }
      const share: f32 = <f32>1.0 / f32((x1 - x0) * (y1 - y0));
      v128.store(dst, f32x4.mul(sum, f32x4.splat(share)));
      dst += 16;
    }
  }
}

/** Half-size box reduction of a float picture. The result is ceil(sw/2) × ceil(sh/2). */
export function halve(src: usize, sw: i32, sh: i32, dst: usize): void {
  const dw = (sw + 1) / 2;
  const dh = (sh + 1) / 2;
  for (let y = 0; y < dh; y++) {
    const r0 = src + (<usize>(2 * y * sw) << 4);
    const r1 = 2 * y + 1 < sh ? r0 + (<usize>sw << 4) : r0;
    for (let x = 0; x < dw; x++) {
      const c0 = <usize>(2 * x) << 4;
      const c1 = 2 * x + 1 < sw ? c0 + 16 : c0;
      const top = f32x4.add(v128.load(r0 + c0), v128.load(r0 + c1));
      const low = f32x4.add(v128.load(r1 + c0), v128.load(r1 + c1));
      v128.store(dst, f32x4.mul(f32x4.add(top, low), f32x4.splat(<f32>0.25)));
      dst += 16;
    }
  }
}

/** A premultiplied pixel as four whole numbers 0…255, straight. */
// @ts-ignore: decorator
@inline
function rounded(p: v128): v128 {
  const a = f32x4.extract_lane(p, 3);
  const c = a == 1 ? p : f32x4.replace_lane(straight(p), 3, a);
  const scaled = f32x4.add(f32x4.mul(c, f32x4.splat(255)), f32x4.splat(<f32>0.5));
  return i32x4.trunc_sat_f32x4_s(f32x4.pmin(f32x4.pmax(scaled, f32x4.splat(0)), f32x4.splat(255)));
}

/** Float premultiplied → 8-bit straight RGBA, rounded to nearest. @param n pixels */
export function narrow(src: usize, dst: usize, n: i32): void {
  for (; n >= 4; n -= 4, src += 64, dst += 16) {
    const low = i16x8.narrow_i32x4_u(rounded(v128.load(src)), rounded(v128.load(src, 16)));
    const high = i16x8.narrow_i32x4_u(rounded(v128.load(src, 32)), rounded(v128.load(src, 48)));
    v128.store(dst, i8x16.narrow_i16x8_u(low, high));
  }
  for (; n > 0; n--, src += 16, dst += 4) {
    const half = i16x8.narrow_i32x4_u(rounded(v128.load(src)), f32x4.splat(0));
    v128.store32_lane(dst, i8x16.narrow_i16x8_u(half, half), 0);
  }
}

/** Fill with one premultiplied colour. @param n pixels */
export function fill(dst: usize, n: i32, r: f32, g: f32, b: f32, a: f32): void {
  let p = f32x4.splat(r);
  p = f32x4.replace_lane(p, 1, g);
  p = f32x4.replace_lane(p, 2, b);
  p = f32x4.replace_lane(p, 3, a);
  for (let end = dst + (<usize>n << 4); dst < end; dst += 16) v128.store(dst, p);
}

/** Copy n pixels. */
export function copy(src: usize, dst: usize, n: i32): void {
  memory.copy(dst, src, <usize>n << 4);
}

/** Each pixel's alpha as an opaque grey. @param n pixels */
export function matteSpan(src: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++) {
    v128.store(dst, f32x4.replace_lane(v128.load32_splat(src + 12), 3, 1));
    src += 16;
    dst += 16;
  }
}

/** Mean of a rectangle of a picture. @param width pixels in a row of src @param out four floats: premultiplied mean */
export function meanRect(src: usize, width: i32, x: i32, y: i32, w: i32, h: i32, out: usize): void {
  let sum = f32x4.splat(0);
  for (let v = 0; v < h; v++) {
    let row = f32x4.splat(0);
    let at = src + (<usize>((y + v) * width + x) << 4);
    for (let u = 0; u < w; u++) {
      row = f32x4.add(row, v128.load(at));
      at += 16;
    }
    sum = f32x4.add(sum, f32x4.mul(row, f32x4.splat(<f32>1.0 / <f32>w)));
  }
  v128.store(out, f32x4.mul(sum, f32x4.splat(<f32>1.0 / <f32>h)));
}

/** Value by value the one in the middle of several rows of bytes, one behind the other, whose order is lost. @param length bytes of a row, a multiple of 16 @param count rows @param out length bytes */
export function medianBytes(rows: usize, length: i32, count: i32, out: usize): void {
  const middle = count >> 1;
  for (let i = 0; i < length; i += 16) {
    const first = rows + <usize>i;
    // the largest go to the end, until the one in the middle is the last that has
    for (let end = count - 1; end >= middle; end--) {
      let most = v128.load(first);
      for (let k = 0, at = first; k < end; k++, at += <usize>length) {
        const next = v128.load(at + <usize>length);
        v128.store(at, i8x16.min_u(most, next));
        most = i8x16.max_u(most, next);
      }
      v128.store(first + <usize>(end * length), most);
    }
    v128.store(out + <usize>i, v128.load(first + <usize>(middle * length)));
  }
}

/** Alpha of straight RGBA bytes, or BT.709 luma times alpha, in 255ths. @param n pixels @param out n bytes */
export function channelBytes(src: usize, n: i32, brightness: i32, out: usize): void {
  for (let i = 0; i < n; i++, src += 4) {
    const alpha: f32 = <f32>load<u8>(src, 3);
    const red = <f32>0.2126 * <f32>load<u8>(src);
    const green = <f32>0.7152 * <f32>load<u8>(src, 1);
    const blue = <f32>0.0722 * <f32>load<u8>(src, 2);
    const value = brightness ? (red + green + blue) * alpha * INV255 : alpha;
    store<u8>(out + <usize>i, <u8>(value + <f32>0.5));
  }
}

/** One colour over what is clear of a picture: as opaque as the picture is not. @param a opacity where nothing is @param n pixels */
export function veilSpan(src: usize, dst: usize, n: i32, r: f32, g: f32, b: f32, a: f32): void {
  let colour = f32x4.replace_lane(f32x4.splat(r), 1, g);
  colour = f32x4.mul(f32x4.replace_lane(f32x4.replace_lane(colour, 2, b), 3, 1), f32x4.splat(a));
  for (let i = 0; i < n; i++, src += 16, dst += 16)
    v128.store(dst, f32x4.mul(colour, f32x4.sub(f32x4.splat(1), v128.load32_splat(src + 12))));
}
