import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
interface Plane {
  at: number;
  w: number;
  h: number;
}
/** Side below which a level of the pyramid is not halved further. */
const SMALLEST = 24;
const STRIDE = 4;

/** Luma of a picture at half its size, and at halves of that. */
function pyramid({ kernels, arena }: Tools, picture: Picture, taken: number[]): Plane[] {
  const take = (bytes: number) => {
    const at = arena.take(bytes);
    taken.push(at);
    return at;
  };
  const { w, h } = picture.rect;
  const whole = take(w * h * 4);
  kernels.lumaPlane(picture.at, w * h, whole);
  const planes: Plane[] = [];
  for (
    let from: Plane = { at: whole, w, h };
    Math.min(from.w, from.h) >= 2 * SMALLEST || !planes.length;
    from = planes.at(-1)!
  ) {
    const next = {
      at: take(((from.w + 1) >> 1) * ((from.h + 1) >> 1) * 4),
      w: (from.w + 1) >> 1,
      h: (from.h + 1) >> 1,
    };
    kernels.halvePlane(from.at, from.w, from.h, next.at);
    planes.push(next);
  }
  return planes;
}

/** Motion from one pyramid's picture to the other's at the finest level: pairs in pixels of that level. */
function motion({ kernels, arena }: Tools, from: readonly Plane[], to: readonly Plane[], taken: number[]): Plane {
  let coarse = 0;
  for (let level = from.length - 1; level >= 0; level--) {
    const { at, w, h } = from[level]!;
    const flow = arena.take(w * h * 8);
    taken.push(flow);
    arena.scratch((Math.ceil(w / STRIDE) + 2) * (Math.ceil(h / STRIDE) + 2) * 8, (patches) =>
      arena.scratch(w * h * 4, (weights) => kernels.flowLevel(at, to[level]!.at, w, h, coarse, flow, patches, weights)),
    );
    coarse = flow;
  }
  return { ...from[0]!, at: coarse };
}

/** Where each place of one picture is in another, as pairs of pixels of half their size. Null when they are too small to follow. */
export interface Motion {
  w: number;
  h: number;
  pairs: Float32Array;
}
export function motionTo(tools: Tools, from: Picture, to: Picture): Motion | null {
  const { w, h } = from.rect;
  if (Math.min(w, h) < 2 * SMALLEST) return null;
  const taken: number[] = [];
  try {
    const found = motion(tools, pyramid(tools, from, taken), pyramid(tools, to, taken), taken);
    return { w: found.w, h: found.h, pairs: tools.arena.floats(found.at, found.w * found.h * 2).slice() };
  } finally {
    taken.forEach((at) => tools.arena.give(at));
  }
}

/**
 * The picture at a moment between two pictures of one size, by following what moves. Pictures too small to follow are mixed.
 * @param share 0 = the first, 1 = the second @returns owned by the caller
 */
export function between(tools: Tools, a: Picture, b: Picture, share: number): Picture {
  const { w, h } = a.rect;
  const out = Picture.make(tools.arena, a.rect);
  if (Math.min(w, h) < 2 * SMALLEST) {
    tools.kernels.lerpSpan(a.at, b.at, out.at, out.pixels, share);
    return out;
  }
  const taken: number[] = [];
  try {
    const [first, second] = [pyramid(tools, a, taken), pyramid(tools, b, taken)];
    const there = motion(tools, first, second, taken);
    const back = motion(tools, second, first, taken);
    tools.kernels.flowBetween(a.at, b.at, out.at, w, h, there.at, back.at, there.w, there.h, 2, share);
    return out;
  } catch (error) {
    out.release();
    throw error;
  } finally {
    taken.forEach((at) => tools.arena.give(at));
  }
}
