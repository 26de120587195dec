// Blend modes: W3C Compositing and Blending Level 1, plus add and subtract. Numbers as in core/picture/blend.ts.
import { straight } from './light';

// @ts-ignore: decorator
@inline
function clamp01(v: v128): v128 {
  return f32x4.pmin(f32x4.pmax(v, f32x4.splat(0)), f32x4.splat(1));
}

// @ts-ignore: decorator
@inline
function multiplyScreen(cb: v128, cs: v128): v128 {
  // hard light: multiply below one half of cs, screen above
  const two = f32x4.add(cs, cs);
  const low = f32x4.mul(cb, two);
  const s = f32x4.sub(two, f32x4.splat(1));
  const high = f32x4.sub(f32x4.add(cb, s), f32x4.mul(cb, s));
  return v128.bitselect(low, high, f32x4.le(cs, f32x4.splat(<f32>0.5)));
}

// @ts-ignore: decorator
@inline
function softLight(cb: v128, cs: v128): v128 {
  const one = f32x4.splat(1);
  const two = f32x4.add(cs, cs);
  const dark = f32x4.sub(cb, f32x4.mul(f32x4.mul(f32x4.sub(one, two), cb), f32x4.sub(one, cb)));
  let curve = f32x4.sub(f32x4.mul(f32x4.splat(16), cb), f32x4.splat(12));
  curve = f32x4.mul(f32x4.add(f32x4.mul(curve, cb), f32x4.splat(4)), cb);
  const d = v128.bitselect(curve, f32x4.sqrt(cb), f32x4.le(cb, f32x4.splat(<f32>0.25)));
  const light = f32x4.add(cb, f32x4.mul(f32x4.sub(two, one), f32x4.sub(d, cb)));
  return v128.bitselect(dark, light, f32x4.le(cs, f32x4.splat(<f32>0.5)));
}

// @ts-ignore: decorator
@inline
function dodge(cb: v128, cs: v128): v128 {
  const one = f32x4.splat(1);
  const ratio = f32x4.pmin(one, f32x4.div(cb, f32x4.pmax(f32x4.sub(one, cs), f32x4.splat(<f32>1e-9))));
  return v128.bitselect(f32x4.splat(0), ratio, f32x4.le(cb, f32x4.splat(0)));
}

// @ts-ignore: decorator
@inline
function burn(cb: v128, cs: v128): v128 {
  const one = f32x4.splat(1);
  const ratio = f32x4.pmin(one, f32x4.div(f32x4.sub(one, cb), f32x4.pmax(cs, f32x4.splat(<f32>1e-9))));
  return v128.bitselect(one, f32x4.sub(one, ratio), f32x4.ge(cb, one));
}

// @ts-ignore: decorator
@inline
function lum(c: v128): f32 {
  return <f32>0.3 * f32x4.extract_lane(c, 0) + <f32>0.59 * f32x4.extract_lane(c, 1) + <f32>0.11 * f32x4.extract_lane(c, 2);
}

// @ts-ignore: decorator
@inline
function least(c: v128): f32 {
  return min(f32x4.extract_lane(c, 0), min(f32x4.extract_lane(c, 1), f32x4.extract_lane(c, 2)));
}

// @ts-ignore: decorator
@inline
function most(c: v128): f32 {
  return max(f32x4.extract_lane(c, 0), max(f32x4.extract_lane(c, 1), f32x4.extract_lane(c, 2)));
}

function setLum(c: v128, l: f32): v128 {
  let out = f32x4.add(c, f32x4.splat(l - lum(c)));
  const own = lum(out);
  const n = least(out);
  const x = most(out);
  const grey = f32x4.splat(own);
  if (n < 0) out = f32x4.add(grey, f32x4.mul(f32x4.sub(out, grey), f32x4.splat(own / (own - n))));
  if (x > 1) out = f32x4.add(grey, f32x4.mul(f32x4.sub(out, grey), f32x4.splat((<f32>1.0 - own) / (x - own))));
  return out;
}

function setSat(c: v128, s: f32): v128 {
  const n = least(c);
  const span = most(c) - n;
  return span > 0 ? f32x4.mul(f32x4.sub(c, f32x4.splat(n)), f32x4.splat(s / span)) : f32x4.splat(0);
}

/** B(cb, cs) of the specification. */
// @ts-ignore: decorator
@inline
function mix(mode: i32, cb: v128, cs: v128): v128 {
  if (mode == 1) return f32x4.mul(cb, cs);
  if (mode == 2) return f32x4.sub(f32x4.add(cb, cs), f32x4.mul(cb, cs));
  if (mode == 3) return multiplyScreen(cs, cb);
  if (mode == 4) return f32x4.pmin(cb, cs);
  if (mode == 5) return f32x4.pmax(cb, cs);
  if (mode == 6) return dodge(cb, cs);
  if (mode == 7) return burn(cb, cs);
  if (mode == 8) return multiplyScreen(cb, cs);
  if (mode == 9) return softLight(cb, cs);
  if (mode == 10) return f32x4.abs(f32x4.sub(cb, cs));
  if (mode == 11) return f32x4.sub(f32x4.add(cb, cs), f32x4.mul(f32x4.splat(2), f32x4.mul(cb, cs)));
  if (mode == 12) return setLum(setSat(cs, most(cb) - least(cb)), lum(cb));
  if (mode == 13) return setLum(setSat(cb, most(cs) - least(cs)), lum(cb));
  if (mode == 14) return setLum(cs, lum(cb));
  if (mode == 15) return setLum(cb, lum(cs));
  return f32x4.pmax(f32x4.sub(cb, cs), f32x4.splat(0)); // 17: subtract
}

// @ts-ignore: decorator
@inline
function blendWith(mode: i32, under: usize, over: usize, n: i32): void {
  const one = f32x4.splat(1);
  for (let i = 0; i < n; i++, under += 16, over += 16) {
    const s = v128.load(over);
    const as = f32x4.extract_lane(s, 3);
    if (as <= 0) continue;
    const b = v128.load(under);
    const ab = f32x4.extract_lane(b, 3);
    const mixed = mix(mode, clamp01(straight(b)), clamp01(straight(s)));
    let out = f32x4.mul(s, f32x4.sub(one, f32x4.splat(ab)));
    out = f32x4.add(out, f32x4.mul(b, f32x4.sub(one, f32x4.splat(as))));
    out = f32x4.add(out, f32x4.mul(mixed, f32x4.splat(as * ab)));
    v128.store(under, f32x4.replace_lane(out, 3, as + ab - as * ab));
  }
}

function over(under: usize, top: usize, n: i32): void {
  const one = f32x4.splat(1);
  for (let i = 0; i < n; i++, under += 16, top += 16) {
    const s = v128.load(top);
    const as = f32x4.extract_lane(s, 3);
    if (as > 0) v128.store(under, f32x4.add(s, f32x4.mul(v128.load(under), f32x4.sub(one, f32x4.splat(as)))));
  }
}

function add(under: usize, top: usize, n: i32): void {
  for (let i = 0; i < n; i++, under += 16, top += 16) {
    const s = v128.load(top);
    const b = v128.load(under);
    const as = f32x4.extract_lane(s, 3);
    const ab = f32x4.extract_lane(b, 3);
    const a = as + ab - as * ab;
    v128.store(under, f32x4.replace_lane(f32x4.pmin(f32x4.add(s, b), f32x4.splat(a)), 3, a));
  }
}

/** Blends n premultiplied pixels onto `under`, in place. @param mode 0…17, see core/picture/blend.ts */
export function blendSpan(mode: i32, under: usize, top: usize, n: i32): void {
  switch (mode) {
    case 0: over(under, top, n); break;
    case 1: blendWith(1, under, top, n); break;
    case 2: blendWith(2, under, top, n); break;
    case 3: blendWith(3, under, top, n); break;
    case 4: blendWith(4, under, top, n); break;
    case 5: blendWith(5, under, top, n); break;
    case 6: blendWith(6, under, top, n); break;
    case 7: blendWith(7, under, top, n); break;
    case 8: blendWith(8, under, top, n); break;
    case 9: blendWith(9, under, top, n); break;
    case 10: blendWith(10, under, top, n); break;
    case 11: blendWith(11, under, top, n); break;
    case 12: blendWith(12, under, top, n); break;
    case 13: blendWith(13, under, top, n); break;
    case 14: blendWith(14, under, top, n); break;
    case 15: blendWith(15, under, top, n); break;
    case 16: add(under, top, n); break;
    default: blendWith(17, under, top, n);
  }
}
