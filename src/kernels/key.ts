// Colour key: how much of the screen is in each pixel, and what is left when it is taken out.
import { decode, encode, straight } from './light';

/*
 * Parameters, as 32-bit floats at `params`:
 * 0 samples (1…8) · 1 key channel (0 r, 1 g, 2 b) · 2 clear up to · 3 1/ramp width · 4 clip black · 5 1/(clip white − clip black)
 * · 6 spill strength 0…1 · 7 unused · then per sample four floats: linear r, g, b and 1/(its colour difference).
 */
const SAMPLES = 32;

/** The screen at a pixel: the mean of the samples, weighted by closeness in colour. Lane 3 is 1/(its colour difference). */
// @ts-ignore: decorator
@inline
function screenAt(c: v128, params: usize): v128 {
  const count = <i32>load<f32>(params);
  const samples = params + SAMPLES;
  if (count == 1) return v128.load(samples);
  let sum = f32x4.splat(0);
  let total: f32 = 0;
  for (let s = 0; s < count; s++) {
    const sample = v128.load(samples + (<usize>s << 4));
    const diff = f32x4.replace_lane(f32x4.sub(c, sample), 3, 0);
    const sq = f32x4.mul(diff, diff);
    const distance = f32x4.extract_lane(sq, 0) + f32x4.extract_lane(sq, 1) + f32x4.extract_lane(sq, 2);
    const weight: f32 = <f32>1.0 / (distance + <f32>1e-4);
    sum = f32x4.add(sum, f32x4.mul(sample, f32x4.splat(weight)));
    total += weight;
  }
  return f32x4.div(sum, f32x4.splat(total));
}

/**
 * Matte of a row before its clips, and the row's luma to guide it. With C = αF + (1−α)S the share of screen is
 * d(C)/d(S), where d is the key channel less the larger of the other two, in linear light.
 * @param alpha, luma n floats each
 * Source: Vlahos' colour-difference key.
 */
export function keyAlpha(src: usize, n: i32, alpha: usize, luma: usize, params: usize): void {
  const channel = <i32>load<f32>(params, 4);
  const clear = load<f32>(params, 8);
  const perRamp = load<f32>(params, 12);
  for (let i = 0; i < n; i++, src += 16, alpha += 4, luma += 4) {
    const shown = straight(v128.load(src));
    const c = f32x4.replace_lane(decode(shown), 3, 0);
    const share = difference(c, channel) * f32x4.extract_lane(screenAt(c, params), 3);
    const value = (<f32>1.0 - share - clear) * perRamp;
    store<f32>(alpha, min(max(value, <f32>0), <f32>1));
    store<f32>(luma, <f32>0.2126 * f32x4.extract_lane(shown, 0) + <f32>0.7152 * f32x4.extract_lane(shown, 1) + <f32>0.0722 * f32x4.extract_lane(shown, 2));
  }
}

/** Where (x, y) of a w×h plane is, the nearest pixel standing for what is outside. */
// @ts-ignore: decorator
@inline
function inPlane(w: i32, h: i32, x: i32, y: i32): usize {
  return <usize>(min(max(y, 0), h - 1) * w + min(max(x, 0), w - 1)) << 2;
}

/** Box means of a side×side block of v128, in place by way of `other`; only the inner (side−2r)² are right. */
function boxBlock(at: usize, other: usize, side: i32, r: i32): void {
  const share = f32x4.splat(<f32>1.0 / f32((r + r + 1) * (r + r + 1)));
  const line = <usize>side << 4;
  for (let y = 0; y < side; y++) {
    const row = at + line * <usize>y;
    const to = other + line * <usize>y;
    for (let x = r; x < side - r; x++) {
      let sum = f32x4.splat(0);
      for (let k = -r; k <= r; k++) sum = f32x4.add(sum, v128.load(row + (<usize>(x + k) << 4)));
      v128.store(to + (<usize>x << 4), sum);
    }
  }
  for (let y = r; y < side - r; y++) {
    for (let x = r; x < side - r; x++) {
      let sum = f32x4.splat(0);
      for (let k = -r; k <= r; k++) sum = f32x4.add(sum, v128.load(other + line * <usize>(y + k) + (<usize>x << 4)));
      v128.store(at + line * <usize>y + (<usize>x << 4), f32x4.mul(sum, share));
    }
  }
}

/**
 * Refines one tile of a matte so that it follows the luma: coded video keeps brightness at full size and colour at half, so
 * a matte from colour alone is blurred at its edge. A tile that is solid or clear all over is copied.
 * @param out plane like `alpha` @param size side of the tile @param r radius, 1…8 @param eps regularisation
 * @param scratch two blocks of (size+4r)² v128
 * Source: He, Sun and Tang 2010, "Guided image filtering".
 */
export function guideTile(alpha: usize, luma: usize, out: usize, w: i32, h: i32, x0: i32, y0: i32, size: i32, r: i32, eps: f32, scratch: usize): void {
  const pad = r + r;
  let low: f32 = 1;
  let high: f32 = 0;
  for (let y = y0 - pad; y < y0 + size + pad; y++) {
    for (let x = x0 - pad; x < x0 + size + pad; x++) {
      const v = load<f32>(alpha + inPlane(w, h, x, y));
      low = min(low, v);
      high = max(high, v);
    }
  }
  const x1 = min(x0 + size, w);
  const y1 = min(y0 + size, h);
  if (high - low < <f32>1e-5) {
    for (let y = y0; y < y1; y++) memory.copy(out + inPlane(w, h, x0, y), alpha + inPlane(w, h, x0, y), <usize>(x1 - x0) << 2);
    return;
  }
  const side = size + pad + pad;
  const other = scratch + (<usize>(side * side) << 4);
  let to = scratch;
  for (let y = y0 - pad; y < y0 + size + pad; y++) {
    for (let x = x0 - pad; x < x0 + size + pad; x++, to += 16) {
      const at = inPlane(w, h, x, y);
      const i = load<f32>(luma + at);
      const p = load<f32>(alpha + at);
      store<f32>(to, i);
      store<f32>(to, p, 4);
      store<f32>(to, i * i, 8);
      store<f32>(to, i * p, 12);
    }
  }
  boxBlock(scratch, other, side, r);
  // in each window the matte is a·luma + b
  to = scratch;
  for (let k = side * side; k > 0; k--, to += 16) {
    const i = load<f32>(to);
    const p = load<f32>(to, 4);
    const a = (load<f32>(to, 12) - i * p) / (load<f32>(to, 8) - i * i + eps);
    store<f32>(to, a);
    store<f32>(to, p - a * i, 4);
  }
  boxBlock(scratch, other, side, r);
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const at = inPlane(w, h, x, y);
      const ab = scratch + (<usize>((y - y0 + pad) * side + x - x0 + pad) << 4);
      store<f32>(out + at, min(max(load<f32>(ab) * load<f32>(luma + at) + load<f32>(ab, 4), <f32>0), <f32>1));
    }
  }
}

/**
 * Takes the screen out of a row: clips the matte, unmixes F = (C − (1−α)S)/α in linear light, limits the screen's cast.
 * @param alpha n floats
 * Source: Smith & Blinn 1996 for the unmixing.
 */
export function keyUnmix(src: usize, dst: usize, n: i32, alphas: usize, params: usize): void {
  const channel = <i32>load<f32>(params, 4);
  const clipBlack = load<f32>(params, 16);
  const perClip = load<f32>(params, 20);
  const spill = load<f32>(params, 24);
  for (let i = 0; i < n; i++, src += 16, dst += 16, alphas += 4) {
    const p = v128.load(src);
    const coverage = f32x4.extract_lane(p, 3);
    const alpha = min(max((load<f32>(alphas) - clipBlack) * perClip, <f32>0), <f32>1);
    if (alpha <= 0 || coverage <= 0) {
      v128.store(dst, f32x4.splat(0));
      continue;
    }
    if (alpha >= 1 && (spill <= 0 || difference(p, channel) <= 0)) {
      v128.store(dst, p);
      continue;
    }
    const c = f32x4.replace_lane(decode(straight(p)), 3, 0);
    let f = f32x4.sub(c, f32x4.mul(screenAt(c, params), f32x4.splat(<f32>1.0 - alpha)));
    f = f32x4.max(f32x4.replace_lane(f, 3, 0), f32x4.splat(0));
    const over = difference(f, channel);
    if (over > 0) {
      const cut = over * spill;
      if (channel == 0) f = f32x4.replace_lane(f, 0, f32x4.extract_lane(f, 0) - cut);
      else if (channel == 1) f = f32x4.replace_lane(f, 1, f32x4.extract_lane(f, 1) - cut);
      else f = f32x4.replace_lane(f, 2, f32x4.extract_lane(f, 2) - cut);
    }
    const kept = alpha * coverage;
    const colour = encode(f32x4.div(f, f32x4.splat(alpha)));
    v128.store(dst, f32x4.replace_lane(f32x4.mul(f32x4.min(colour, f32x4.splat(1)), f32x4.splat(kept)), 3, kept));
  }
}

/** The key channel less the larger of the other two. */
// @ts-ignore: decorator
@inline
function difference(c: v128, channel: i32): f32 {
  const r = f32x4.extract_lane(c, 0);
  const g = f32x4.extract_lane(c, 1);
  const b = f32x4.extract_lane(c, 2);
  return channel == 1 ? g - max(r, b) : channel == 2 ? b - max(r, g) : r - max(g, b);
}
