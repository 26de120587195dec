// One pattern followed from frame to frame.
// Source: Kalal et al. 2010 for judging a step by going back.
import { project, projectiveInverse, projectiveProduct, type Projective } from '../picture/matrix';
import type { LumaPyramid, Tools } from './luma';
import { growthAt, turnAt } from './motion';
import { Pattern, type Fit, type Freedom } from './pattern';

/** What is followed: a rectangle of its own pixels, and where it lies on the first frame. */
export interface Subject {
  /** places of the pattern, in pixels from its middle → pixels of the frame */
  map: Projective;
  w: number;
  h: number;
  freedom: Freedom;
  /** how far it may go from one frame to the next, in pixels of the frame */
  reach: number;
  /** the rim counts less; for small patterns, whose rim is not their own */
  windowed: boolean;
}
export interface Step {
  map: Projective;
  /** 0…1 */
  confidence: number;
}
/** The pattern as it was drawn and as it is seen now, 8-bit grey, both w×h. */
export interface Glimpse {
  w: number;
  h: number;
  first: Uint8Array;
  now: Uint8Array;
}
/** Why a pattern is not followed further. */
export type Loss = 'lost' | 'outside';

/** Correlation with the pattern below which it is not the same thing any more. */
const ALIKE = 0.72;
/** The same for a search after a loss, which has nothing else to go by. */
const FOUND = 0.85;
/** From here on a step needs no search. */
const SURE = 0.88;
/** The pattern is taken anew when it fits worse than this… */
const WORN = 0.93;
/** …as long as the first one still fits like this, and sees it within so many pixels of the same place. */
const KIN = 0.75;
const DRIFT = 0.75;
/** Of all places where it looks as if it were there, so many are looked at closely. */
const CANDIDATES = 6;
/** How much turning (degrees) and growing (as a logarithm) may change from one frame to the next. */
const JUMP = { turn: 6, size: 0.06 };
/** Going back may miss the start by so many pixels. */
const BACK = 1.2;

export class Tracker {
  private readonly first: Pattern;
  private latest: Pattern;
  /** as it was seen on the frame on which it was found last */
  private recent: Pattern | null = null;
  /** how it turned, in degrees, and grew, as a logarithm, from the frame before the last */
  private turning: { turn: number; size: number } | null = null;
  /** where it was on the last two frames */
  private path: Projective[];

  constructor(
    private readonly tools: Tools,
    private readonly subject: Subject,
    frame: LumaPyramid,
  ) {
    this.first = this.latest = this.seen(frame, subject.map);
    this.path = [subject.map];
  }

  private seen(frame: LumaPyramid, map: Projective): Pattern {
    const { w, h, freedom, windowed } = this.subject;
    return Pattern.of(this.tools, frame, map, w, h, freedom, windowed);
  }

  /** What is seen of it in a frame where it was found last. */
  glimpse(frame: LumaPyramid): Glimpse {
    const now = this.seen(frame, this.here);
    try {
      return { ...this.first.size, first: this.first.grey(), now: now.grey() };
    } finally {
      now.release();
    }
  }

  /** How surely its pattern can be found again: light 0…1 by the pixel. */
  strength(): number {
    return this.first.strength();
  }

  release(): void {
    this.recent?.release();
    if (this.latest !== this.first) this.latest.release();
    this.first.release();
  }

  /** Where the pattern was found last. */
  get here(): Projective {
    return this.path.at(-1)!;
  }

  /** Goes on from where something moved it that is known to be right. @param moved of places from the centre of the frame, since the first frame */
  putFrom(moved: Projective, { w, h }: { w: number; h: number }): void {
    const off = (by: number): Projective => [1, 0, (by * w) / 2, 0, 1, (by * h) / 2, 0, 0, 1];
    this.moveTo([projectiveProduct(off(1), projectiveProduct(moved, projectiveProduct(off(-1), this.subject.map)))]);
  }

  /** Goes on from a place that is known, turned and sized as it was last. */
  putAt(x: number, y: number): void {
    const [u, v] = project(this.here, 0, 0);
    this.moveTo([projectiveProduct([1, 0, x - u, 0, 1, y - v, 0, 0, 1], this.here)]);
  }

  /** Where the pattern is likely to be next: it goes on as it went. */
  get expected(): Projective {
    const [before, last] = this.path as [Projective, Projective?];
    if (!last) return before;
    const back = projectiveInverse(before);
    if (!back) return last;
    // only as a shift: turns and sizes of one step say little
    const [[x0, y0], [x1, y1]] = [project(before, 0, 0), project(last, 0, 0)];
    return projectiveProduct([1, 0, x1 - x0, 0, 1, y1 - y0, 0, 0, 1], last);
  }

  /** @param before the frame on which it was last found */
  next(before: LumaPyramid, frame: LumaPyramid): Step | Loss {
    const last = this.path.at(-1)!;
    const guess = this.expected;
    if (!isIn(frame, guess) && !isIn(frame, last)) return 'outside';
    const recent = (this.recent ??= this.seen(before, last));
    const step = this.stepBy(recent, frame, last, guess);
    if (!step) return isIn(frame, guess, this.subject) ? 'lost' : 'outside';
    const anchored = this.anchored(frame, step);
    if (!anchored) return 'lost';
    const here = this.seen(frame, anchored.map);
    const back = here.align(before, last, 1);
    const missed = back ? apart(back.map, last) : Infinity;
    if (missed > BACK) {
      here.release();
      return 'lost';
    }
    this.moveTo([last, anchored.map], here);
    this.renewWhenWorn(frame, anchored, missed);
    const smooth = this.smoothness(last, anchored.map);
    return { map: anchored.map, confidence: confidenceOf(anchored.alike) * Math.exp(-((missed / BACK) ** 2)) * smooth };
  }

  /** 1 where it turns and grows as it did, less where that jumps: what comes before it does that first. */
  private smoothness(before: Projective, now: Projective): number {
    const back = projectiveInverse(before);
    const step = back && projectiveProduct(back, now);
    const next = step ? { turn: turnAt(step, 0, 0), size: Math.log(growthAt(step, 0, 0)) } : { turn: 0, size: 0 };
    const { turn, size } = this.turning ?? next;
    this.turning = next;
    return Math.exp(-(((next.turn - turn) / JUMP.turn) ** 2) - ((next.size - size) / JUMP.size) ** 2);
  }

  private moveTo(path: Projective[], recent: Pattern | null = null): void {
    this.recent?.release();
    this.recent = recent;
    if (path.length < 2) this.turning = null;
    this.path = path;
  }

  /** From one frame to the next by what was seen last. */
  private stepBy(recent: Pattern, frame: LumaPyramid, last: Projective, guess: Projective): Fit | null {
    const { reach } = this.subject;
    const near = (fit: Fit | null): Fit | null => (fit && apart(fit.map, last) <= reach * 1.5 + 2 ? fit : null);
    const direct = near(recent.align(frame, guess));
    if (direct && direct.alike >= SURE) return direct;
    const found = recent.search(frame, last, reach);
    const searched = near(recent.align(frame, found.map));
    const best = (searched?.alike ?? -1) > (direct?.alike ?? -1) ? searched : direct;
    return best && best.alike >= ALIKE ? best : null;
  }

  /** A step made sure by the pattern itself, so that small errors do not add up. */
  private anchored(frame: LumaPyramid, step: Fit): Fit | null {
    const own = this.first.align(frame, step.map, 1);
    if (own && own.alike >= KIN && apart(own.map, step.map) < this.tolerance) return own;
    if (this.latest === this.first)
      return own && own.alike >= ALIKE && apart(own.map, step.map) < this.tolerance ? own : null;
    const renewed = this.latest.align(frame, step.map, 1);
    return renewed && renewed.alike >= ALIKE && apart(renewed.map, step.map) < this.tolerance ? renewed : null;
  }
  /** How far what was seen last and the pattern itself may be apart, in pixels. */
  private get tolerance(): number {
    return Math.max(2, 0.12 * Math.min(this.subject.w, this.subject.h));
  }

  private renewWhenWorn(frame: LumaPyramid, fit: Fit, missed: number): void {
    if (fit.alike >= WORN || missed > BACK / 3) return;
    const kin = this.first.align(frame, fit.map, 1);
    if (!kin || kin.alike < KIN || apart(kin.map, fit.map) > DRIFT) return;
    if (this.latest !== this.first) this.latest.release();
    this.latest = this.seen(frame, fit.map);
  }

  /** Looks for the pattern in a frame by itself. @param reach around where it is expected @returns null when it is not surely there */
  searchIn(frame: LumaPyramid, reach: number): Step | null {
    const { map } = this.first.search(frame, this.path.at(-1)!, reach);
    const fit = this.first.align(frame, map);
    if (!fit || fit.alike < FOUND || !isIn(frame, fit.map, this.subject)) return null;
    return this.foundAt(fit);
  }

  /** Looks for the pattern everywhere in a frame, turned and sized as it was last. @returns null when it is not surely there */
  searchAll(frame: LumaPyramid): Step | null {
    const [x, y] = project(this.here, 0, 0);
    const reach = this.first.farthest(frame, this.here);
    const places = (size: number) => Array.from({ length: Math.ceil(size / 2 / reach) }, (_, i) => (2 * i + 1) * reach);
    const fits = places(frame.width)
      .flatMap((u) =>
        places(frame.height).map((v) => projectiveProduct([1, 0, u - x, 0, 1, v - y, 0, 0, 1], this.here)),
      )
      .map((guess) => this.first.search(frame, guess, reach))
      .sort((a, b) => b.alike - a.alike)
      .slice(0, CANDIDATES)
      .map(({ map }) => this.first.align(frame, map))
      .filter((fit) => fit !== null && fit.alike >= FOUND && isIn(frame, fit.map, this.subject)) as Fit[];
    const best = fits.sort((a, b) => b.alike - a.alike)[0];
    return best ? this.foundAt(best) : null;
  }

  private foundAt({ map, alike }: Fit): Step {
    this.moveTo([map]);
    return { map, confidence: confidenceOf(alike) };
  }
}

const confidenceOf = (alike: number): number => Math.min(1, Math.max(0, (alike - 0.5) / 0.45));

/** How far apart two maps put the middle of the pattern. */
function apart(a: Projective, b: Projective): number {
  const [p, q] = [project(a, 0, 0), project(b, 0, 0)];
  return Math.hypot(p[0] - q[0], p[1] - q[1]);
}

/** Whether the middle of a pattern lies in a frame. */
function isIn({ width, height }: LumaPyramid, map: Projective, of?: { w: number; h: number }): boolean {
  const [x, y] = project(map, 0, 0);
  const rim = of ? Math.min(of.w, of.h) * 0.25 : 0;
  return x >= rim && y >= rim && x <= width - rim && y <= height - rim;
}
