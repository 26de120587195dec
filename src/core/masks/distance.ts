import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';

/** What planes are computed with. A plane is an address of w×h floats in the arena. */
export interface PlaneTools {
  kernels: Kernels;
  arena: Arena;
}
/** Bytes of a plane; kernels may work on four places at a time. */
export const planeBytes = (w: number, h: number): number => w * h * 4 + 16;

/** Straight pieces of an edge, x0 y0 x1 y1 by turns, in pixels; `soft` holds a number for both ends of each, carried to the nearest pixels. */
export interface EdgeLines {
  lines: Float64Array;
  soft?: Float32Array | undefined;
}

/**
 * Distance of each pixel's middle to the nearest of the lines, in pixels, exact up to `limit`; what is further off is said to be at least that far.
 * @param use gets planes of distances and, where the lines have it, of `soft` at the nearest point
 */
export function withDistance<T>(
  { kernels, arena }: PlaneTools,
  { lines, soft }: EdgeLines,
  w: number,
  h: number,
  limit: number,
  use: (distance: number, soft: number) => T,
): T {
  const plane = planeBytes(w, h);
  return arena.scratch(lines.byteLength + 8, (at) =>
    arena.scratch(2 * plane, (distance) => {
      const [count, nearest] = [lines.length / 4, distance + plane];
      new Float64Array(arena.memory.buffer, at, lines.length).set(lines);
      // a line is handed on over pixels that are up to a diagonal further off than the one it is nearest to
      kernels.lineDistance(at, count, w, h, limit + 2, distance, nearest);
      if (!soft) return use(distance, 0);
      return arena.scratch(soft.byteLength + plane, (carried) => {
        const ends = carried + plane;
        arena.floats(ends, soft.length).set(soft);
        kernels.carryAlong(at, ends, nearest, w, h, carried);
        return use(distance, carried);
      });
    }),
  );
}

/** The line along which a plane passes one half, as straight pieces between the middles of its pixels. */
export function halfWayLines({ kernels, arena }: PlaneTools, plane: number, w: number, h: number): Float64Array {
  const count = kernels.halfWayLines(plane, w, h, 0);
  if (!count) return new Float64Array(0);
  return arena.scratch(count * 32, (at) => {
    kernels.halfWayLines(plane, w, h, at);
    return new Float64Array(arena.memory.buffer, at, count * 4).slice();
  });
}
