// What is done to a matte after it is made: gamma, shrinking, feather, small holes and specks.
import { planeBytes, type PlaneTools } from './distance';
import { blurPlane } from './soften';

export interface Finish {
  gamma: number;
  /** pixels by which solid parts become smaller, larger when negative */
  shrink: number;
  feather: number;
  /** largest area in pixels that is filled, and that is dropped */
  holes: number;
  specks: number;
}

export const isPlain = (f: Finish): boolean =>
  f.gamma === 1 && f.shrink === 0 && f.feather === 0 && f.holes < 1 && f.specks < 1;

/** Alpha from which a pixel is no hole, and up to which it is no speck. */
const SOLID = 0.95;
const CLEAR = 0.05;

/** Steps of the table by which gamma is looked up. */
const STEPS = 4096;

/** Finishes a matte in place. @param plane address of w×h floats 0…1 */
export function finishMatte(tools: PlaneTools, plane: number, w: number, h: number, finish: Finish): void {
  const { kernels, arena } = tools;
  const patches = (most: number, limit: number, above: boolean, to: number) =>
    arena.scratch(w * h * 5, (at) => kernels.clearPatches(plane, w, h, most, limit, above ? 1 : 0, to, at));
  if (finish.specks >= 1) patches(finish.specks, CLEAR, true, 0);
  if (finish.holes >= 1) patches(finish.holes, SOLID, false, 1);
  if (finish.gamma !== 1)
    arena.scratch((STEPS + 1) * 4, (at) => {
      const table = arena.floats(at, STEPS + 1);
      for (let i = 0; i <= STEPS; i++) table[i] = (i / STEPS) ** (1 / finish.gamma);
      kernels.tablePlane(plane, w * h, at, STEPS);
    });
  if (finish.shrink !== 0) shrink(tools, plane, w, h, finish.shrink);
  if (finish.feather > 0) blurPlane(tools, plane, w, h, finish.feather / 4);
}

/** Least, or greatest when negative, of a disc around each pixel; fractions of a pixel lie between the two nearest discs. */
function shrink({ kernels, arena }: PlaneTools, plane: number, w: number, h: number, by: number): void {
  const [radius, sign] = [Math.abs(by), by < 0 ? -1 : 1];
  const whole = Math.floor(radius);
  const share = radius - whole;
  const bytes = planeBytes(w, h);
  const room = (2 * w + 2 * (whole + 1) + 16) * 4;
  arena.scratch(2 * bytes + room, (lower) => {
    const upper = lower + bytes;
    kernels.leastInDisc(plane, w, h, whole, sign, lower, lower + 2 * bytes);
    if (share > 0) kernels.leastInDisc(plane, w, h, whole + 1, sign, upper, lower + 2 * bytes);
    // four floats are mixed at a time, as the parts of a pixel are
    kernels.lerpSpan(lower, share > 0 ? upper : lower, plane, Math.ceil((w * h) / 4), share);
  });
}
