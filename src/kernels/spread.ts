// Light and colour spread over neighbours: apertures, tape, medians over time.
import { straight } from './light';

/** Running sums along a row: dst[i] is the sum of all before pixel i; n+1 pixels. */
export function sumsRow(src: usize, dst: usize, n: i32): void {
  let sum = f32x4.splat(0);
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    v128.store(dst, sum);
    sum = f32x4.add(sum, v128.load(src));
  }
  v128.store(dst, sum);
}

/** dst += the sum of what lies from `left` before each pixel's middle to `right` after it, in pixels. @param sums of the row, at the first pixel, with as many beside it as are reached @param share what a pixel counts */
export function spanRow(sums: usize, dst: usize, n: i32, left: f32, right: f32, share: f32): void {
  const from: f32 = <f32>0.5 - left;
  const to: f32 = <f32>0.5 + right;
  const a = <i32>floor(from);
  const b = <i32>floor(to);
  const fa = f32x4.splat(from - <f32>a);
  const fb = f32x4.splat(to - <f32>b);
  const w = f32x4.splat(share);
  let low = sums + ((<isize>a) << 4);
  let high = sums + ((<isize>b) << 4);
  for (let i = 0; i < n; i++, dst += 16, low += 16, high += 16) {
    const l = v128.load(low);
    const h = v128.load(high);
    const lower = f32x4.add(l, f32x4.mul(f32x4.sub(v128.load(low, 16), l), fa));
    const upper = f32x4.add(h, f32x4.mul(f32x4.sub(v128.load(high, 16), h), fb));
    v128.store(dst, f32x4.add(v128.load(dst), f32x4.mul(f32x4.sub(upper, lower), w)));
  }
}

/** Makes pixels of linear light brighter the further their luma lies above `from`. @param more times brighter at white */
export function liftBright(at: usize, n: i32, from: f32, more: f32): void {
  const room: f32 = max(<f32>1 - from, <f32>1e-3);
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    const own = straight(p);
    const luma: f32 = <f32>0.2126 * f32x4.extract_lane(own, 0) + <f32>0.7152 * f32x4.extract_lane(own, 1) + <f32>0.0722 * f32x4.extract_lane(own, 2);
    if (luma <= from) continue;
    const t: f32 = min((luma - from) / room, <f32>1);
    v128.store(at, f32x4.replace_lane(f32x4.mul(p, f32x4.splat(<f32>1 + more * t * t * (<f32>3 - <f32>2 * t))), 3, a));
  }
}

/** Colours in 0…alpha, n pixels. */
export function limitSpan(at: usize, n: i32): void {
  const zero = f32x4.splat(0);
  for (let end = at + (<usize>n << 4); at < end; at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    v128.store(at, f32x4.replace_lane(f32x4.pmin(f32x4.pmax(p, zero), f32x4.splat(a)), 3, a));
  }
}

// @ts-ignore: decorator
@inline
function lumaOf(p: v128): f32 {
  return <f32>0.2126 * f32x4.extract_lane(p, 0) + <f32>0.7152 * f32x4.extract_lane(p, 1) + <f32>0.0722 * f32x4.extract_lane(p, 2);
}
// @ts-ignore: decorator
@inline
function within(i: i32, n: i32): usize {
  return <usize>(i < 0 ? 0 : i >= n ? n - 1 : i) << 4;
}

/**
 * A row as worn tape gives it: its brightness from `moved` pixels to the right, its colour from `colour` pixels to the right and smeared.
 * @param src the whole row of `wide` pixels, whose ends go on for ever @param first which of them dst begins at @param bleed pixels each way over which colour is the mean
 */
export function tapeRow(src: usize, wide: i32, first: i32, dst: usize, n: i32, moved: f32, colour: f32, bleed: i32): void {
  const whole = <i32>floor(moved);
  const part = f32x4.splat(moved - <f32>whole);
  const far = <i32>floor(colour + <f32>0.5);
  let sum = f32x4.splat(0);
  for (let j = -bleed; j <= bleed; j++) sum = f32x4.add(sum, v128.load(src + within(first + far + j, wide)));
  const count: i32 = 2 * bleed + 1;
  const share = f32x4.splat(<f32>1 / <f32>count);
  for (let i = first; i < first + n; i++, dst += 16) {
    const a = v128.load(src + within(i + whole, wide));
    const p = f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(src + within(i + whole + 1, wide)), a), part));
    const mean = f32x4.mul(sum, share);
    const alpha = f32x4.extract_lane(p, 3);
    // colour is what differs from grey; it is as strong as there is picture to carry it
    const there = f32x4.extract_lane(mean, 3);
    const carried: f32 = there > <f32>1e-6 ? alpha / there : 0;
    const hue = f32x4.mul(f32x4.sub(mean, f32x4.splat(lumaOf(mean))), f32x4.splat(carried));
    const c = f32x4.pmin(f32x4.pmax(f32x4.add(f32x4.splat(lumaOf(p)), hue), f32x4.splat(0)), f32x4.splat(alpha));
    v128.store(dst, f32x4.replace_lane(c, 3, alpha));
    sum = f32x4.add(sum, f32x4.sub(v128.load(src + within(i + far + bleed + 1, wide)), v128.load(src + within(i + far - bleed, wide))));
  }
}

/** Pixels from the `first` to before the `end` of a spot go towards a grey, which fades out to the right. @param at of the first @param long pixels of the whole spot @param level of the grey, 0…1 */
export function dropOut(at: usize, first: i32, end: i32, long: i32, level: f32): void {
  for (let i = first; i < end; i++, at += 16) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    const t: f32 = <f32>1 - <f32>i / <f32>long;
    v128.store(at, f32x4.replace_lane(f32x4.add(p, f32x4.mul(f32x4.sub(f32x4.splat(level * a), p), f32x4.splat(t))), 3, a));
  }
}

/** The median of several pictures, by channel; of an even number of them the mean of the two in the middle. @param list their addresses @param room 16 bytes for each */
export function medianOf(list: usize, count: i32, room: usize, dst: usize, n: i32): void {
  const half = <usize>(count >> 1) << 4;
  const even = (count & 1) == 0;
  for (let i: usize = 0; i < <usize>n << 4; i += 16) {
    for (let k = 0; k < count; k++) {
      let v = v128.load(<usize>load<u32>(list + (<usize>k << 2)) + i);
      let at = room;
      for (let j = 0; j < k; j++, at += 16) {
        const held = v128.load(at);
        v128.store(at, f32x4.pmin(v, held));
        v = f32x4.pmax(held, v);
      }
      v128.store(at, v);
    }
    const middle = v128.load(room + half);
    v128.store(dst + i, even ? f32x4.mul(f32x4.add(middle, v128.load(room + half - 16)), f32x4.splat(0.5)) : middle);
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

/** Screens a colour over pixels, as much as a plane says; only as far as they cover. */
export function screenPlane(at: usize, plane: usize, n: i32, r: f32, g: f32, b: f32): void {
  const colour = f32x4(r, g, b, 0);
  for (let end = at + (<usize>n << 4); at < end; at += 16, plane += 4) {
    const p = v128.load(at);
    const a = f32x4.extract_lane(p, 3);
    const light = f32x4.mul(colour, f32x4.splat(load<f32>(plane)));
    v128.store(at, f32x4.replace_lane(f32x4.add(p, f32x4.mul(light, f32x4.sub(f32x4.splat(a), p))), 3, a));
  }
}
