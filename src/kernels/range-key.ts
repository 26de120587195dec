// Keys by a range of brightness or of hue: each pixel is multiplied by what a table says of it.
import { straight } from './light';
import { look } from './tables';

/**
 * @param table matte over luma 0…1, steps+1 floats
 * @param grey colours whose channels differ by more than this stay as they are, with a ramp of half of it before; 1 = all are keyed
 */
export function lumaKeySpan(src: usize, dst: usize, n: i32, table: usize, steps: i32, grey: f32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const c = straight(p);
    const r = f32x4.extract_lane(c, 0);
    const g = f32x4.extract_lane(c, 1);
    const b = f32x4.extract_lane(c, 2);
    let matte = look(table, <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * b, steps);
    if (grey < 1) {
      const span = max(r, max(g, b)) - min(r, min(g, b));
      const coloured: f32 = min(max((span - grey * <f32>0.5) / max(grey * <f32>0.5, <f32>1e-4), <f32>0), <f32>1);
      matte += (<f32>1.0 - matte) * coloured;
    }
    v128.store(dst, f32x4.mul(p, f32x4.splat(matte)));
  }
}

/**
 * @param table how much a hue belongs to the range, over the colour circle 0…1 from red, steps+1 floats
 * @param from, to saturation at which colours begin to belong, and belong wholly @param keep 1 = the range stays, 0 = it goes
 */
export function hueKeySpan(src: usize, dst: usize, n: i32, table: usize, steps: i32, from: f32, to: f32, keep: i32): void {
  const perRamp: f32 = <f32>1.0 / max(to - from, <f32>1e-4);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const c = straight(p);
    const r = f32x4.extract_lane(c, 0);
    const g = f32x4.extract_lane(c, 1);
    const b = f32x4.extract_lane(c, 2);
    const most = max(r, max(g, b));
    const span = most - min(r, min(g, b));
    let belongs: f32 = 0;
    if (span > 0) {
      let hue: f32 = most == r ? (g - b) / span : most == g ? (b - r) / span + 2 : (r - g) / span + 4;
      if (hue < 0) hue += 6;
      belongs = look(table, hue * <f32>(1.0 / 6.0), steps) * min(max((span / most - from) * perRamp, <f32>0), <f32>1);
    }
    v128.store(dst, f32x4.mul(p, f32x4.splat(keep ? belongs : <f32>1.0 - belongs)));
  }
}
