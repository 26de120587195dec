// Pieces cut out of a picture and laid elsewhere, turned and sized.
import { held, within } from './lanes';

/** Bytes of a piece in the list. */
const PIECE: usize = 64;
/** Places are whole numbers of which 16 bits lie after the point: cutting floats to whole ones takes longer than all the rest. */
const ONE: f32 = 65536;
const PER_ONE: f32 = <f32>1 / <f32>65536;
/** Slopes below this do not end a row. */
const LEVEL: f32 = <f32>1e-6;
const ENDLESS: f32 = <f32>1e9;

// @ts-ignore: decorator
@inline
function most(a: f32, b: f32): f32 {
  return a > b ? a : b;
}
// @ts-ignore: decorator
@inline
function least(a: f32, b: f32): f32 {
  return a < b ? a : b;
}

/** What lies between four pixels goes over another one. @param part across and down @param much how much of it counts, in all lanes */
// @ts-ignore: decorator
@inline
function lay(at: usize, p: usize, beside: usize, below: usize, part: v128, much: v128): void {
  const fu = v128.shuffle<f32>(part, part, 0, 0, 0, 0);
  const p00 = v128.load(p);
  const p01 = v128.load(p + below);
  const upper = f32x4.add(p00, f32x4.mul(f32x4.sub(v128.load(p + beside), p00), fu));
  const lower = f32x4.add(p01, f32x4.mul(f32x4.sub(v128.load(p + below + beside), p01), fu));
  const over = f32x4.mul(f32x4.add(upper, f32x4.mul(f32x4.sub(lower, upper), v128.shuffle<f32>(part, part, 1, 1, 1, 1))), much);
  const left = f32x4.sub(f32x4.splat(1), v128.shuffle<f32>(over, over, 3, 3, 3, 3));
  v128.store(at, f32x4.add(over, f32x4.mul(v128.load(at), left)));
}

/**
 * Draws pieces of pictures over another one in their order; their edges are as soft as a pixel.
 * @param list for each of n pieces fourteen floats: its left, top, right and bottom in its picture, whole; a, b, c, d, e, f that take a place (x, y)
 * of the result to (a x + c y + e, b x + d y + f) of the picture; its middle and how far it reaches from there in the result; how large it is drawn.
 * Then two whole numbers: where the picture lies in memory and how many pixels wide it is. @param dst dw×dh pixels
 */
export function drawBits(list: usize, n: i32, dst: usize, dw: i32, dh: i32): void {
  const half = f32x4.splat(0.5);
  const one = f32x4.splat(1);
  const middle = i32x4.splat(1 << 15);
  const fractions = i32x4.splat(0xffff);
  const perOne = f32x4.splat(PER_ONE);
  for (let k = 0; k < n; k++, list += PIECE) {
    const src = <usize>load<u32>(list, 56);
    const line = <usize>load<u32>(list, 60) << 4;
    const left = load<f32>(list);
    const top = load<f32>(list, 4);
    const right = load<f32>(list, 8);
    const bottom = load<f32>(list, 12);
    const a = load<f32>(list, 16);
    const b = load<f32>(list, 20);
    const c = load<f32>(list, 24);
    const d = load<f32>(list, 28);
    const cx = load<f32>(list, 40);
    const cy = load<f32>(list, 44);
    const reach = load<f32>(list, 48);
    const size = load<f32>(list, 52);
    // the middle of the piece in the picture, and how far from there a pixel of the result still meets it
    const mx = (left + right) * <f32>0.5;
    const my = (top + bottom) * <f32>0.5;
    const soft = <f32>0.5 / size;
    const wide = (right - left) * <f32>0.5 + soft;
    const high = (bottom - top) * <f32>0.5 + soft;
    const levelA = abs(a) < LEVEL;
    const levelB = abs(b) < LEVEL;
    const ia: f32 = levelA ? 0 : <f32>1 / a;
    const ib: f32 = levelB ? 0 : <f32>1 / b;
    // how far to the sides of its middle line a row meets the piece, and how far it lies well within it
    const reachA: f32 = levelA ? ENDLESS : abs(ia) * wide;
    const reachB: f32 = levelB ? ENDLESS : abs(ib) * high;
    const edge = (soft > <f32>0.5 ? soft : <f32>0.5) + soft + <f32>0.01;
    const innerA: f32 = levelA ? ENDLESS : abs(ia) * (wide - edge);
    const innerB: f32 = levelB ? ENDLESS : abs(ib) * (high - edge);
    const x0 = within(floor(cx - reach), 0, dw);
    const x1 = within(ceil(cx + reach), 0, dw);
    const y1 = within(ceil(cy + reach), 0, dh);
    const fromPlace = i32x4(<i32>left << 16, <i32>top << 16, 0, 0);
    const toPlace = i32x4(<i32>right << 16, <i32>bottom << 16, 0, 0);
    const lastPlace = i32x4.sub(toPlace, i32x4.splat(1 << 16));
    const lastU = i32x4.extract_lane(lastPlace, 0);
    const lastV = i32x4.extract_lane(lastPlace, 1);
    const step = i32x4(<i32>(a * ONE), <i32>(b * ONE), 0, 0);
    const cover = f32x4.splat(size * PER_ONE);
    for (let row = within(floor(cy - reach), 0, dh); row < y1; row++) {
      const y = <f32>row + <f32>0.5;
      const u0 = c * y + load<f32>(list, 32);
      const v0 = d * y + load<f32>(list, 36);
      if ((levelA && abs(u0 - mx) > wide) || (levelB && abs(v0 - my) > high)) continue;
      const midA = (mx - u0) * ia;
      const midB = (my - v0) * ib;
      const first = within(ceil(most(midA - reachA, midB - reachB) - <f32>0.5), x0, x1);
      const last = within(floor(least(midA + reachA, midB + reachB) - <f32>0.5) + <f32>1, x0, x1);
      const level = (levelA && abs(u0 - mx) > wide - edge) || (levelB && abs(v0 - my) > high - edge);
      const from = level ? last : within(ceil(most(midA - innerA, midB - innerB) - <f32>0.5), first, last);
      const to = level ? last : within(floor(least(midA + innerA, midB + innerB) - <f32>0.5) + <f32>1, from, last);
      const x = <f32>first + <f32>0.5;
      // across and down side by side
      let place = i32x4(<i32>((a * x + u0) * ONE), <i32>((b * x + v0) * ONE), 0, 0);
      let at = dst + (<usize>(row * dw + first) << 4);
      for (let i = first; i < last; ) {
        if (i == from && from < to) {
          // all four pixels are the piece's own, and all of the pixel is covered
          for (; i < to; i++, at += 16, place = i32x4.add(place, step)) {
            const own = i32x4.sub(place, middle);
            const part = f32x4.mul(f32x4.convert_i32x4_s(v128.and(own, fractions)), perOne);
            const whole = i32x4.shr_s(own, 16);
            const p = src + line * <usize>i32x4.extract_lane(whole, 1) + (<usize>i32x4.extract_lane(whole, 0) << 4);
            lay(at, p, 16, line, part, one);
          }
          continue;
        }
        const inside = i32x4.min_s(i32x4.sub(place, fromPlace), i32x4.sub(toPlace, place));
        const near = held(f32x4.add(f32x4.mul(f32x4.convert_i32x4_s(inside), cover), half));
        const much = f32x4.mul(v128.shuffle<f32>(near, near, 0, 0, 0, 0), v128.shuffle<f32>(near, near, 1, 1, 1, 1));
        // pixels beside the piece are not its own
        const own = i32x4.max_s(i32x4.min_s(i32x4.sub(place, middle), lastPlace), fromPlace);
        const part = f32x4.mul(f32x4.convert_i32x4_s(v128.and(own, fractions)), perOne);
        const pu = i32x4.extract_lane(own, 0);
        const pv = i32x4.extract_lane(own, 1);
        lay(at, src + line * <usize>(pv >> 16) + (<usize>(pu >> 16) << 4), pu < lastU ? 16 : 0, pv < lastV ? line : 0, part, much);
        i++;
        at += 16;
        place = i32x4.add(place, step);
      }
    }
  }
}
