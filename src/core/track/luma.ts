import type { Arena } from '../picture/arena';
import type { FetchedPicture } from '../picture/fetched';
import type { Kernels } from '../picture/kernels';

export interface Tools {
  kernels: Kernels;
  arena: Arena;
}
/** A plane of floats in the arena. */
export interface Plane {
  at: number;
  w: number;
  h: number;
}
/** Side below which a plane is not halved further. */
const SMALLEST = 16;

/** How bright a frame is, 0…1, at its size and at halves of it. */
export class LumaPyramid {
  private constructor(
    private readonly arena: Arena,
    readonly levels: readonly Plane[],
    /** parts of it are not to be looked at */
    readonly holed: boolean,
  ) {}

  /** @param looked of each pixel, below 128 where it is not to be looked at @throws JackplaneError memory */
  static of(
    { kernels, arena }: Tools,
    { data, width, height, planes }: FetchedPicture,
    looked: Uint8Array | null = null,
  ): LumaPyramid {
    const levels: Plane[] = [];
    const room = (w: number, h: number): Plane => {
      // kernels write whole fours
      const plane = { at: arena.take(Math.ceil((w * h) / 4) * 16), w, h };
      levels.push(plane);
      return plane;
    };
    const pyramid = new LumaPyramid(arena, levels, looked !== null);
    try {
      const n = width * height;
      const bytes = planes ? n : n * 4;
      arena.scratch(Math.ceil(bytes / 16) * 16, (from) => {
        const { at } = room(width, height);
        arena.bytes(from, bytes).set(data.subarray(0, bytes));
        if (planes) kernels.bytesPlane(from, n, at);
        else kernels.rgbaPlane(from, n, at);
        if (looked) {
          arena.bytes(from, n).set(looked.subarray(0, n));
          kernels.makeHoles(from, n, at);
        }
      });
      for (let last = levels[0]!; Math.min(last.w, last.h) >= 2 * SMALLEST; last = levels.at(-1)!) {
        const half = room((last.w + 1) >> 1, (last.h + 1) >> 1);
        kernels.halvePlane(last.at, last.w, last.h, half.at);
      }
      return pyramid;
    } catch (error) {
      pyramid.release();
      throw error;
    }
  }

  get width(): number {
    return this.levels[0]!.w;
  }
  get height(): number {
    return this.levels[0]!.h;
  }
  /** The level whose pixels are nearest to a number of the whole frame's. */
  near(pixels: number): number {
    return Math.min(this.levels.length - 1, Math.max(0, Math.round(Math.log2(pixels))));
  }
  release(): void {
    this.levels.forEach(({ at }) => this.arena.give(at));
  }
}

/** Light above this lies in a hole. */
export const HOLE = 1e6;

/** How alike two frames of one size are as wholes, −1…1: the correlation of their coarsest levels where both are looked at; 1 when that is nowhere. */
export function likeness({ arena }: Tools, a: LumaPyramid, b: LumaPyramid): number {
  const [p, q] = [a.levels.at(-1)!, b.levels.at(-1)!];
  const whole = [arena.floats(p.at, p.w * p.h), arena.floats(q.at, p.w * p.h)] as const;
  const [x, y] = whole.map((own) => own.filter((_, i) => whole[0][i]! < HOLE && whole[1][i]! < HOLE)) as [
    Float32Array,
    Float32Array,
  ];
  const n = x.length;
  if (!n) return 1;
  const mean = (list: Float32Array) => list.reduce((sum, v) => sum + v, 0) / n;
  const [mx, my] = [mean(x), mean(y)];
  let [xx, yy, xy] = [1e-9, 1e-9, 1e-9];
  for (let i = 0; i < n; i++) {
    xx += (x[i]! - mx) ** 2;
    yy += (y[i]! - my) ** 2;
    xy += (x[i]! - mx) * (y[i]! - my);
  }
  return xy / Math.sqrt(xx * yy);
}
