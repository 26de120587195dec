import { boxesFor } from '../picture/gaussian';
import type { PlaneTools } from './distance';

/** Gaussian blur of a plane in place, its border repeated. Three boxes with fractional ends, as the blur pass. */
export function blurPlane(tools: PlaneTools, plane: number, w: number, h: number, sigma: number): void {
  const { r, ends } = boxesFor(sigma);
  blurByBoxes(tools, plane, w, h, r, ends);
}

/** Boxes of 2r+1 places one after the other, with a share of one more at both sides, in place; the border repeated. */
export function blurByBoxes(
  { kernels, arena }: PlaneTools,
  plane: number,
  w: number,
  h: number,
  r: number,
  ends: readonly number[],
): void {
  const room = (2 * Math.max(w, h) + 2 * r + 2) * 16;
  arena.scratch(room + ends.length * 4, (at) => {
    arena.floats(at + room, ends.length).set(ends);
    kernels.blurPlane(plane, w, h, r, at + room, ends.length, at);
  });
}
