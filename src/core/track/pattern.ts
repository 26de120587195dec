// A pattern of one frame, and where it is in another.
// Source: Baker & Matthews 2004, with gain and lift of the light among the unknowns and weights that make what differs much count less.
import { projectiveInverse, projectiveProduct, project, projective, scaling, type Projective } from '../picture/matrix';
import { HOLE, type LumaPyramid, type Plane, type Tools } from './luma';
import { growthAt } from './motion';
import { solve } from './solve';

/** How a pattern may move: the number of unknowns. 2 shift; 4 turn and size too; 6 affine; 8 projective. */
export type Freedom = 2 | 4 | 6 | 8;

interface Level {
  at: number;
  w: number;
  h: number;
  /** pixels of the pattern from one sample to the next */
  unit: number;
}
/** How well a pattern fits where it was found. */
export interface Fit {
  /** places of the pattern, in pixels from its middle → pixels of the frame */
  map: Projective;
  /** normalised, −1…1 */
  alike: number;
  /** share of it that lies in the frame */
  inside: number;
  /** root mean square of what differs, in the pattern's light 0…1 */
  missed: number;
}

/** Samples along the shorter side below which a level would say little. */
const FEWEST = 9;
/** Samples of the finest level are this much finer than what lies between them: where they are is known already, and each tells more of where exactly. */
const FINER = 4;
/** Side of a pattern whose strength is that of its pixels. */
const USUAL = 40;
/** Most samples of the finest level, for few and for many unknowns, and for whole pictures. */
const MOST = { few: 2500, many: 3600, sway: 10_000 };
/** Most steps of a level. */
const STEPS = 14;
/** Pixels of a level below which another step is not worth taking. */
const STILL = 0.008;
/** Differences this many times their mean count half. */
const STRAY = 1.5;
/** The least difference that counts as one, in light 0…1: what noise makes. */
const NOISE = 0.01;
const OUT = 1 + (8 + 2) * (8 + 3) + 5;

const around = (m: Projective, before: number, after: number): Projective =>
  projectiveProduct(projective(scaling(after, after)), projectiveProduct(m, projective(scaling(before, before))));

export class Pattern {
  private constructor(
    private readonly tools: Tools,
    private readonly levels: readonly Level[],
    readonly freedom: Freedom,
    private readonly windowed: boolean,
    readonly w: number,
    readonly h: number,
  ) {}

  /**
   * @param map places of the pattern, in pixels from its middle → pixels of the frame
   * @param w, h of the pattern @param windowed its rim counts less
   * @throws JackplaneError memory
   */
  static of(
    tools: Tools,
    frame: LumaPyramid,
    map: Projective,
    w: number,
    h: number,
    freedom: Freedom,
    windowed: boolean,
  ): Pattern {
    const most = freedom > 4 ? MOST.many : windowed ? MOST.few : MOST.sway;
    const finest = Math.max(1, Math.sqrt((w * h) / most));
    const levels: Level[] = [];
    const growth = growthAt(map, 0, 0);
    for (let unit = finest; !levels.length || Math.min(w, h) / unit >= FEWEST; unit *= 2) {
      const [pw, ph] = [Math.max(3, Math.round(w / unit)), Math.max(3, Math.round(h / unit))];
      const at = tools.arena.take(pw * ph * 12);
      levels.push({ at, w: pw, h: ph, unit });
      const { plane, size } = planeOf(frame, growth * (unit === finest ? unit / FINER : unit));
      withMap(tools, around(map, unit, 1 / size), (m) =>
        tools.kernels.seePattern(plane.at, plane.w, plane.h, m, pw, ph, size / (unit * growth), at),
      );
      // on coarse levels holes have grown
      if (frame.holed && levels.length > 1 && holesIn(tools, levels.at(-1)!) > LEAST_INSIDE) {
        tools.arena.give(levels.pop()!.at);
        break;
      }
    }
    return new Pattern(tools, levels, freedom, windowed, w, h);
  }

  release(): void {
    this.levels.forEach(({ at }) => this.tools.arena.give(at));
  }

  /** Samples of its finest level each way. */
  get size(): { w: number; h: number } {
    const { w, h } = this.levels[0]!;
    return { w, h };
  }
  /** Its finest level as 8-bit grey. */
  grey(): Uint8Array {
    const { at, w, h } = this.levels[0]!;
    return Uint8Array.from(this.tools.arena.floats(at, w * h), (v) => Math.min(255, Math.max(0, Math.round(v * 255))));
  }

  /** How surely it can be found again: how much its light 0…1 changes from pixel to pixel, the way in which it changes least; the more of it there is, the less each pixel has to change. */
  strength(): number {
    const { at, w, h, unit } = this.levels[0]!;
    const per = 1 / ((Math.max(w, h) / 2) * unit);
    const gx = this.tools.arena.floats(at + w * h * 4, w * h);
    const gy = this.tools.arena.floats(at + w * h * 8, w * h);
    let [xx, xy, yy] = [0, 0, 0];
    for (let i = 0; i < w * h; i++) {
      if (Math.abs(gx[i]!) > HOLE || Math.abs(gy[i]!) > HOLE) continue;
      xx += gx[i]! ** 2;
      xy += gx[i]! * gy[i]!;
      yy += gy[i]! ** 2;
    }
    const scale = (per * per * this.w * this.h) / (w * h * USUAL * USUAL);
    return (Math.max(0, (xx + yy) / 2 - Math.hypot((xx - yy) / 2, xy)) * scale) ** 0.5;
  }

  /** Where it is, from a guess on. @param from the level to begin with, the coarsest when left out @returns null when it runs away */
  align(frame: LumaPyramid, guess: Projective, from = this.levels.length - 1): Fit | null {
    let map = guess;
    let fit: Fit | null = null;
    for (let i = Math.min(from, this.levels.length - 1); i >= 0; i--) {
      fit = this.alignLevel(frame, map, this.levels[i]!, i === 0);
      // on coarse levels holes may leave too little
      if (!fit && (i === 0 || !frame.holed)) return null;
      map = fit?.map ?? map;
    }
    return fit;
  }

  private alignLevel(frame: LumaPyramid, guess: Projective, level: Level, last: boolean): Fit | null {
    const { kernels, arena } = this.tools;
    const { w, h, unit } = level;
    // the pattern's own coordinates: half of its longer side is one
    const radius = (Math.max(w, h) / 2) * unit;
    const { plane, size } = planeOf(frame, growthAt(guess, 0, 0) * (last ? unit / FINER : unit));
    const n = this.freedom + 2;
    return arena.lending((scratch) => {
      const seen = scratch(w * h * 4);
      const out = scratch(OUT * 8);
      let map = guess;
      let stray = 0;
      let fit: Fit | null = null;
      const steps = last ? STEPS + 6 : STEPS;
      for (let step = 0; ; step++) {
        withMap(this.tools, around(map, unit, 1 / size), (m) =>
          kernels.matchStep(
            plane.at,
            plane.w,
            plane.h,
            m,
            level.at,
            w,
            h,
            this.freedom,
            this.windowed ? 1 : 0,
            stray,
            seen,
            out,
          ),
        );
        const sums = arena.doubles(out, 5 + n * (n + 1));
        fit = { map, alike: sums[0]!, inside: sums[1]!, missed: sums[4]! };
        if (fit.inside < (frame.holed ? LEAST_BESIDE : LEAST_INSIDE)) return null;
        if (step === steps) return fit;
        stray = Math.max(NOISE, STRAY * sums[4]!);
        const found = solve(sums.subarray(5), n);
        const back = found && projectiveInverse(moved(found, this.freedom));
        if (!back) return null;
        const next = projectiveProduct(map, around(back, 1 / radius, radius));
        const by = movement(map, next, radius) / size;
        if (!(by < Math.max(w, h) * 4) || !(growthAt(next, 0, 0) > 0.02)) return null;
        map = next.map((v) => v / next[8]) as unknown as Projective;
        if (by < STILL * (last ? 1 : 4) && step > 1) return { ...fit, map };
      }
    });
  }

  /** How far a search goes at most, in pixels of the frame. */
  farthest(frame: LumaPyramid, guess: Projective): number {
    return MOST_REACH * planeOf(frame, this.levels.at(-1)!.unit * growthAt(guess, 0, 0)).size;
  }

  /** The best place within a reach of a guess, in whole pixels of a coarse level. @param reach pixels of the frame @returns how alike it is there, and at the next best place elsewhere */
  search(frame: LumaPyramid, guess: Projective, reach: number): { map: Projective; alike: number; second: number } {
    const { kernels, arena } = this.tools;
    const level = this.levels.at(-1)!;
    const { plane, size } = planeOf(frame, level.unit * growthAt(guess, 0, 0));
    const far = Math.min(MOST_REACH, Math.max(1, Math.ceil(reach / size)));
    return arena.lending((scratch) => {
      const seen = scratch(level.w * level.h * 4);
      const taken = scratch(64);
      const out = scratch(64);
      const scores = scratch((2 * far + 1) ** 2 * 4);
      withMap(this.tools, around(guess, level.unit, 1 / size), (m) =>
        kernels.matchSearch(
          plane.at,
          plane.w,
          plane.h,
          m,
          level.at,
          level.w,
          level.h,
          this.windowed ? 1 : 0,
          far,
          taken,
          seen,
          out,
          scores,
        ),
      );
      const [x, y, alike, second] = arena.doubles(out, 4) as unknown as [number, number, number, number];
      return { map: projectiveProduct([1, 0, x * size, 0, 1, y * size, 0, 0, 1], guess), alike, second };
    });
  }
}

/** Share of a pattern that has to lie in the frame. */
const LEAST_INSIDE = 0.45;
/** The same where it is told what hides the rest. */
const LEAST_BESIDE = 0.2;
/** Most pixels of its level that a search goes each way. */
const MOST_REACH = 48;

/** Share of a level that lies in holes. */
function holesIn({ arena }: Tools, { at, w, h }: Level): number {
  return arena.floats(at, w * h).reduce((sum, v) => sum + (Math.abs(v) > HOLE ? 1 : 0), 0) / (w * h);
}

/** The level whose pixels are nearest to a number of the frame's, and how many they are. */
function planeOf(frame: LumaPyramid, pixels: number): { plane: Plane; size: number } {
  const level = frame.near(pixels);
  return { plane: frame.levels[level]!, size: 2 ** level };
}

function withMap({ arena }: Tools, map: Projective, use: (at: number) => void): void {
  arena.scratch(64, (at) => {
    arena.floats(at, 9).set(map);
    use(at);
  });
}

/** What a step's unknowns do to the pattern's own coordinates. */
function moved(p: readonly number[], freedom: Freedom): Projective {
  const [a, b, c, d, e, f, g, h] = p as [number, number, number, number, number, number, number, number];
  if (freedom === 2) return [1, 0, a, 0, 1, b, 0, 0, 1];
  if (freedom === 4) return [1 + c, -d, a, d, 1 + c, b, 0, 0, 1];
  if (freedom === 6) return [1 + a, b, c, d, 1 + e, f, 0, 0, 1];
  return [1 + a, b, c, d, 1 + e, f, g, h, 1];
}

/** Farthest that a corner of the pattern is moved from one map to another, in pixels of the frame. */
function movement(from: Projective, to: Projective, radius: number): number {
  let most = 0;
  for (const [x, y] of [
    [-radius, -radius],
    [radius, -radius],
    [radius, radius],
    [-radius, radius],
  ] as const) {
    const [a, b] = [project(from, x, y), project(to, x, y)];
    most = Math.max(most, Math.hypot(a[0] - b[0], a[1] - b[1]));
  }
  return most;
}
