// The mean of a picture along a way that its pixels go.
import { invert, multiply, translation, type Matrix } from './matrix';
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { Picture } from './picture';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
/** How far the furthest corner of a picture lies from a place in it, in pixels. */
export const furthestFrom = ([x, y]: readonly [number, number], { w, h }: { w: number; h: number }): number =>
  Math.hypot(Math.max(Math.abs(x), Math.abs(w - x)), Math.max(Math.abs(y), Math.abs(h - y)));

const isShift = ([a, b, c, d]: Matrix): boolean => a === 1 && b === 0 && c === 0 && d === 1;

/** Most halvings of a way: 2⁸ places along it. */
const MOST_HALVES = 8;

/**
 * The mean of where pixels are along a way, from 2ᵏ places on it, no further than about a pixel apart. Means of two are taken over and over: a
 * way is its first half and that half moved on, which costs k drawings instead of 2ᵏ.
 * @param way where pixels are moved to after a share of the way, −½…½ about where they are or 0…1; two shares after each other must be their sum
 * @param long how long the longest way is, in pixels @param sided 1 = from where pixels are on, 0 = half of it to either side
 * @param faded how much the end of a way counts that goes from where pixels are on; towards it less and less, as in mist
 * @param extend beyond the picture its border repeats, otherwise it is clear there
 * @returns owned by the caller, as large as the picture
 */
export function smeared(
  { kernels, arena }: Tools,
  picture: Picture,
  way: (share: number) => Matrix,
  long: number,
  { sided, extend, faded = 1 }: { sided: boolean; extend: boolean; faded?: number },
): Picture {
  const { x, y, w, h } = picture.rect;
  const halves = Math.max(1, Math.min(MOST_HALVES, Math.ceil(Math.log2(Math.max(2, long)))));
  const back = (share: number): Matrix =>
    invert(multiply(multiply(translation(-x, -y), way(share)), translation(x, y))) ?? [1, 0, 0, 1, 0, 0];
  let now = Picture.make(arena, picture.rect);
  let moved = Picture.make(arena, picture.rect);
  const straight = isShift(back(1));
  const other = sided || straight ? null : Picture.make(arena, picture.rect);
  kernels.copy(picture.at, now.at, picture.pixels);
  const beyond = extend ? 1 : 0;
  const draw = (to: Picture, share: number) => kernels.affine(now.at, w, h, to.at, w, h, ...back(share), 1, beyond);
  for (let k = 1; k <= halves; k++) {
    const step = 2 ** -k;
    const second = sided ? faded ** step / (1 + faded ** step) : 0.5;
    const [first, last] = sided ? [0, step] : [-step / 2, step / 2];
    if (straight) {
      const [one, two] = [back(first), back(last)];
      kernels.shiftPair(now.at, moved.at, w, h, one[4], one[5], 1 - second, two[4], two[5], second, beyond);
      [now, moved] = [moved, now];
      continue;
    }
    draw(moved, last);
    if (other) draw(other, first);
    kernels.lerpSpan((other ?? now).at, moved.at, now.at, now.pixels, second);
  }
  moved.release();
  other?.release();
  return now;
}
