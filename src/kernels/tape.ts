// What worn tape makes of a row.
import { lumaOf } from './lanes';

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
