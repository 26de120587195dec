// How soft and grainy a part of a picture is, and how bright: what something drawn needs in order to lie in it.
import { LIGHT_OF_BYTE } from '../picture/light';
import type { Rect } from '../picture/rect';
import { grainsOf } from './grains';
import { softnessOf } from './softness';
import type { Point } from '../track/motion';

export interface Surface {
  /** standard deviation in pixels of the Gaussian that its sharpest edges are soft by; null when it has none */
  softness: number | null;
  /** standard deviation of its noise, 0…1 of display-encoded luma */
  grain: number;
  /** how soft the grains are: the deviation in pixels of the Gaussian that makes such noise of white noise */
  grainSize: number;
  /** mean luma in linear light */
  light: number;
  /** display-encoded luma of its darkest parts, 0…1 */
  black: number;
}

/** What something lacks to be as soft, as grainy and as black as something else. */
export interface Lack {
  /** standard deviation of the Gaussian that makes it as soft; 0 when it is as soft already, or nothing tells */
  blur: number;
  /** deviation of the noise that makes it as grainy, 0…1, and its size in pixels */
  grain: number;
  grainSize: number;
  /** the tone of it that becomes black, or less than 0 so that black is raised, as Tone has it; 0 leaves it */
  black: number;
}
/** Edges of what shows none are taken to be this soft. */
const CRISP = 0.5;
/** What is less than this is not worth a pass: pixels, shares of white. */
const LEAST = { blur: 0.25, grain: 0.002, black: 0.004 };
/** Up to so many times as much is the same: neither is measured more exactly. */
const ALIKE = 1.1;
const worth = (v: number, least: number): number => (Math.abs(v) < least ? 0 : v);

/** @param scale pixels of `own` for one of `goal` @param ownScale pixels in which its blur is wanted, for one of its own */
export function lackOf(own: Surface, goal: Surface, scale: number, ownScale = 1): Lack {
  const sharp = (own.softness ?? CRISP) * ownScale;
  const soft = goal.softness === null ? 0 : goal.softness * scale;
  const rest = (to: number, from: number) => (to < ALIKE * from ? 0 : Math.sqrt(to ** 2 - from ** 2));
  return {
    blur: worth(rest(soft, sharp), LEAST.blur),
    grain: worth(rest(goal.grain, own.grain), LEAST.grain),
    grainSize: goal.grainSize * scale,
    black: goal.black < 1 ? worth((own.black - goal.black) / (1 - goal.black), LEAST.black) : 0,
  };
}

/** Share of the pixels that count as its darkest. */
const DARKEST = 0.005;
/** Whole pixels about a shape, within the picture. */
function boxOf(quad: readonly Point[], w: number, h: number): Rect {
  const span = (values: readonly number[], most: number) => {
    const [from, to] = [Math.max(0, Math.floor(Math.min(...values))), Math.min(most, Math.ceil(Math.max(...values)))];
    return [from, Math.max(0, to - from)] as const;
  };
  const [x, wide] = span(
    quad.map(([u]) => u),
    w,
  );
  const [y, tall] = span(
    quad.map(([, v]) => v),
    h,
  );
  return { x, y, w: wide, h: tall };
}

/** Whether a place lies within a convex shape. */
function within(quad: readonly Point[], x: number, y: number): boolean {
  let side = 0;
  return quad.every(([ax, ay], i) => {
    const [bx, by] = quad[(i + 1) % quad.length]!;
    const turn = Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax));
    side ||= turn;
    return turn === 0 || turn === side;
  });
}

/**
 * Reads a convex part of a picture.
 * @param data straight 8-bit RGBA @param quad in pixels from the upper left corner
 * @returns null when nothing solid lies in it
 */
export function readSurface(
  data: Uint8Array | Uint8ClampedArray,
  w: number,
  h: number,
  quad: readonly Point[],
): Surface | null {
  const box = boxOf(quad, w, h);
  const luma = new Float32Array(box.w * box.h);
  const inside = new Uint8Array(box.w * box.h);
  const levels = new Uint32Array(256);
  let [light, count] = [0, 0];
  for (let y = 0, i = 0; y < box.h; y++) {
    for (let x = 0; x < box.w; x++, i++) {
      const from = ((box.y + y) * w + box.x + x) * 4;
      const [r, g, b, a] = [data[from]!, data[from + 1]!, data[from + 2]!, data[from + 3]!];
      luma[i] = (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;
      if (a < 250 || !within(quad, box.x + x + 0.5, box.y + y + 0.5)) continue;
      inside[i] = 1;
      count++;
      levels[Math.round(luma[i]! * 255)]!++;
      light += 0.2126 * LIGHT_OF_BYTE[r]! + 0.7152 * LIGHT_OF_BYTE[g]! + 0.0722 * LIGHT_OF_BYTE[b]!;
    }
  }
  if (!count) return null;
  const seen = { luma, inside, w: box.w, h: box.h };
  const { fine, grain, grainSize } = grainsOf(seen);
  let darker = 0;
  const black = levels.findIndex((n) => (darker += n) >= DARKEST * count) / 255;
  return { softness: softnessOf(seen, fine), grain, grainSize, light: light / count, black };
}
