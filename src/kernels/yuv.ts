// Float premultiplied RGBA → 8-bit Y′CbCr for video files.
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

/**
 * BT.709 matrix, limited range (16…235, 16…240), 4:2:0 with the mean chroma of two by two pixels; clear pixels do not count in it.
 * Without an alpha plane the picture is as it lies on black. Source: ITU-R BT.709-6.
 * @param a plane of alpha 0…255, or 0 for none
 */
export function toYuv(src: usize, w: i32, h: i32, y: usize, u: usize, v: usize, a: usize): void {
  const wide = (w + 1) / 2;
  for (let row = 0; row < h; row += 2) {
    for (let col = 0; col < w; col += 2) {
      let sum = f32x4.splat(0);
      for (let down = row; down < min(row + 2, h); down++) {
        for (let right = col; right < min(col + 2, w); right++) {
          const at = down * w + right;
          const p = v128.load(src + (<usize>at << 4));
          const c = a ? kept(p) : f32x4.pmin(f32x4.pmax(p, f32x4.splat(0)), f32x4.splat(1));
          store<u8>(y + at, byte(<f32>16 + <f32>219 * luma(c)));
          if (a) store<u8>(a + at, byte(<f32>255 * f32x4.extract_lane(p, 3)));
          sum = f32x4.add(sum, a ? p : f32x4.replace_lane(p, 3, 1));
        }
      }
      const mean = kept(sum);
      const bright = luma(mean);
      const out = (row >> 1) * wide + (col >> 1);
      store<u8>(u + out, byte(<f32>128 + (<f32>224 / <f32>1.8556) * (f32x4.extract_lane(mean, 2) - bright)));
      store<u8>(v + out, byte(<f32>128 + (<f32>224 / <f32>1.5748) * (f32x4.extract_lane(mean, 0) - bright)));
    }
  }
}
