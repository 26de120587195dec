// Colour at the edges of what was cut out, and keys side by side.
import { decode, encode, straight } from './light';

/** A pixel is solid from here on. */
const SOLID: f32 = 0.97;

/** Solid pixels as they are, the others clear. */
export function solidOnly(src: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, dst += 16) v128.store(dst, load<f32>(src, 12) >= SOLID ? v128.load(src) : f32x4.splat(0));
}

/** Gives partly clear pixels the colour of another picture, where that has any, and leaves their coverage. */
export function colourFrom(at: usize, other: usize, n: i32): void {
  for (let i = 0; i < n; i++, at += 16, other += 16) {
    const alpha = load<f32>(at, 12);
    const weight = load<f32>(other, 12);
    if (alpha <= 0 || alpha >= SOLID || weight < <f32>1e-3) continue;
    const own = v128.load(at);
    const lent = f32x4.mul(v128.load(other), f32x4.splat(alpha / weight));
    // little weight means that solid colour is far away: then the pixel keeps its own
    const trust = min(<f32>1, weight * 8);
    v128.store(at, f32x4.replace_lane(f32x4.add(own, f32x4.mul(f32x4.sub(lent, own), f32x4.splat(trust))), 3, alpha));
  }
}

/** Of two pictures the pixel that covers more, or less. */
export function pickByAlpha(a: usize, b: usize, dst: usize, n: i32, more: i32): void {
  for (let i = 0; i < n; i++, a += 16, b += 16, dst += 16) {
    const first = more ? load<f32>(a, 12) >= load<f32>(b, 12) : load<f32>(a, 12) <= load<f32>(b, 12);
    v128.store(dst, v128.load(first ? a : b));
  }
}

/** How far two straight display-encoded colours are apart: luma, and colour about twice as much as luma, as one float a pixel. */
export function differencePlane(a: usize, b: usize, n: i32, dst: usize): void {
  for (let i = 0; i < n; i++, a += 16, b += 16, dst += 4) {
    const d = f32x4.sub(straight(v128.load(a)), straight(v128.load(b)));
    const r = f32x4.extract_lane(d, 0);
    const g = f32x4.extract_lane(d, 1);
    const l = f32x4.extract_lane(d, 2);
    const y: f32 = <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * l;
    const u: f32 = l - y;
    const v: f32 = r - y;
    store<f32>(dst, sqrt<f32>(y * y + <f32>1.5 * (u * u + v * v)));
  }
}

/** F = (C − (1−α)B)/α in linear light with the plate as B, covered by α; the plane has one float a pixel. */
export function unmixPlate(src: usize, plate: usize, plane: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, plate += 16, plane += 4, dst += 16) {
    const share = load<f32>(plane);
    const p = v128.load(src);
    if (share >= 1 || share <= 0) {
      v128.store(dst, share > 0 ? p : f32x4.splat(0));
      continue;
    }
    const c = decode(straight(p));
    const b = decode(straight(v128.load(plate)));
    const f = f32x4.mul(f32x4.pmax(f32x4.sub(c, f32x4.mul(b, f32x4.splat(<f32>1 - share))), f32x4.splat(0)), f32x4.splat(<f32>1 / share));
    const alpha: f32 = load<f32>(src, 12) * share;
    const out = f32x4.mul(encode(f32x4.pmin(f, f32x4.splat(1))), f32x4.splat(alpha));
    v128.store(dst, f32x4.replace_lane(out, 3, alpha));
  }
}

/** The same colours with other coverage: straight colour of src, alpha of the plane. */
export function coverBy(src: usize, plane: usize, dst: usize, n: i32): void {
  for (let i = 0; i < n; i++, src += 16, plane += 4, dst += 16) {
    const alpha = load<f32>(plane);
    v128.store(dst, f32x4.replace_lane(f32x4.mul(straight(v128.load(src)), f32x4.splat(alpha)), 3, alpha));
  }
}

/**
 * Screens the light below over the inner edge of a layer, in place.
 * @param under blurred picture of what is below @param soft the layer blurred alike, for its alpha
 */
export function lightWrap(at: usize, under: usize, soft: usize, n: i32, strength: f32): void {
  for (let i = 0; i < n; i++, at += 16, under += 16, soft += 16) {
    const alpha = load<f32>(at, 12);
    const share = min(<f32>1, max(<f32>0, (<f32>1 - load<f32>(soft, 12)) * <f32>2)) * strength;
    if (alpha <= 0 || share <= 0) continue;
    const own = v128.load(at);
    const light = f32x4.pmin(f32x4.mul(v128.load(under), f32x4.splat(share)), f32x4.splat(1));
    // premultiplied screen that leaves the coverage: F + (α − F)·U
    const lit = f32x4.add(own, f32x4.mul(f32x4.sub(f32x4.splat(alpha), own), light));
    v128.store(at, f32x4.replace_lane(lit, 3, alpha));
  }
}

/**
 * Gives each partly clear pixel the mean colour of the solid pixels up to r away, near ones first, and leaves its coverage.
 * In place: only solid pixels are read and only others are written.
 */
export function extendNear(at: usize, w: i32, h: i32, r: i32): void {
  const reach = <f32>((r + 1) * (r + 1));
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const own = at + (<usize>(y * w + x) << 4);
      const alpha = load<f32>(own, 12);
      if (alpha <= 0 || alpha >= SOLID) continue;
      let sum = f32x4.splat(0);
      let weight: f32 = 0;
      for (let v = max(0, y - r); v <= min(h - 1, y + r); v++) {
        for (let u = max(0, x - r); u <= min(w - 1, x + r); u++) {
          const p = at + (<usize>(v * w + u) << 4);
          const covered = load<f32>(p, 12);
          if (covered < SOLID) continue;
          const near: f32 = reach - <f32>((u - x) * (u - x) + (v - y) * (v - y));
          if (near <= 0) continue;
          sum = f32x4.add(sum, f32x4.mul(v128.load(p), f32x4.splat(near)));
          weight += near * covered;
        }
      }
      if (weight > 0) v128.store(own, f32x4.replace_lane(f32x4.mul(sum, f32x4.splat(alpha / weight)), 3, alpha));
    }
  }
}
