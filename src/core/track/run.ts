// A run along a clip: patterns followed from one frame to the next, each told of as it is measured.
import type { FetchedPicture } from '../picture/fetched';
import { project, type Projective } from '../picture/matrix';
import { likeness, LumaPyramid, type Tools } from './luma';
import { mapBetween, type Point } from './motion';
import type { Freedom } from './pattern';
import type { Sample, TrackKind } from './samples';
import { Tracker, type Glimpse, type Loss, type Subject } from './tracker';

type Corners = readonly [Point, Point, Point, Point];

export interface Run {
  kind: TrackKind;
  /** of the source, in pixels */
  size: { w: number; h: number };
  /** corners of each pattern on the first frame, in source pixels from its centre, clockwise from its upper left */
  patterns: readonly Corners[];
  /** farthest from one frame to the next, in source pixels */
  reach: number;
  /** frame on which the patterns lie, and the last one wanted; before it for a run backwards */
  from: number;
  to: number;
  /** frames on which it is known where they are */
  fixed: ReadonlyMap<number, readonly Point[]>;
  /** frames for which a lost pattern is looked for before it is given up */
  patience: number;
  /** the frame after `from` on which to go on, where it is looked for in all of the picture until it is found; those between stay unknown */
  resume?: number;
}
export interface Measured {
  frame: number;
  /** null where it was lost */
  sample: Sample | null;
}
/** How a run ended: at its end, or on the first frame on which nothing was found. */
export type RunEnd =
  { why: 'done' | 'stopped' } | { why: Loss | 'cut'; frame: number } | { why: 'plain'; strength: number };

const FREEDOM: Record<TrackKind, Freedom> = { point: 4, pair: 4, patch: 6, plane: 8, sway: 4 };
/** Correlation of two frames as wholes below which the clip was cut between them. */
const CUT = 0.35;
/** Least change of light 0…1 by the pixel that a pattern needs in both ways. */
export const PLAIN = 0.004;

const rectangle = (w: number, h: number): Point[] => [
  [-w / 2, -h / 2],
  [w / 2, -h / 2],
  [w / 2, h / 2],
  [-w / 2, h / 2],
];
const distance = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** What is followed of a pattern drawn by its corners. @param size of the source @returns null when the corners span nothing */
export function subjectOf(
  corners: Corners,
  { kind, size, reach }: Pick<Run, 'kind' | 'size' | 'reach'>,
): Subject | null {
  const [a, b, c, d] = corners;
  const w = (distance(a, b) + distance(d, c)) / 2;
  const h = (distance(a, d) + distance(b, c)) / 2;
  const map =
    w >= 3 && h >= 3
      ? mapBetween(
          rectangle(w, h),
          corners.map(([x, y]): Point => [x + size.w / 2, y + size.h / 2]),
        )
      : null;
  return map && { map, w, h, freedom: FREEDOM[kind], reach, windowed: kind === 'point' || kind === 'pair' };
}

/** Where a kind of track says its subject is, from where its patterns are. */
function pointsOf(
  kind: TrackKind,
  size: Run['size'],
  subjects: readonly Subject[],
  maps: readonly Projective[],
): Point[] {
  const at = (i: number, x: number, y: number): Point => {
    const [u, v] = project(maps[i]!, x, y);
    return [u - size.w / 2, v - size.h / 2];
  };
  if (kind === 'point' || kind === 'pair') return maps.map((_, i) => at(i, 0, 0));
  const { w, h } = subjects[0]!;
  if (kind === 'sway') return [at(0, -w / 2, 0), at(0, w / 2, 0)];
  return rectangle(w, h)
    .slice(0, kind === 'patch' ? 3 : 4)
    .map(([x, y]) => at(0, x, y));
}

/** The points of a track on the frame on which its patterns were drawn. */
export function drawnPoints(kind: TrackKind, size: Run['size'], patterns: readonly Corners[]): Point[] | null {
  const subjects = patterns.map((corners) => subjectOf(corners, { kind, size, reach: 1 }));
  if (subjects.some((subject) => !subject)) return null;
  return pointsOf(
    kind,
    size,
    subjects as Subject[],
    (subjects as Subject[]).map(({ map }) => map),
  );
}

/**
 * Measures frame by frame. @param fetch a frame of the clip, or null behind its end
 * @param looked of a frame's pixels, below 128 where it is not to be looked at; null where it is everywhere
 * @param tell what was measured, and what may be asked to be seen of it; returns false to stop, what was told of before stays
 */
export async function runTrack(
  tools: Tools,
  run: Run,
  fetch: (frame: number) => Promise<FetchedPicture | null>,
  tell: (measured: Measured, glimpse: () => Glimpse | null) => boolean,
  looked: ((frame: number) => Promise<Uint8Array | null>) | null = null,
): Promise<RunEnd> {
  const { kind, size, from, to, fixed } = run;
  const way = to < from ? -1 : 1;
  const subjects = run.patterns.map((corners) => subjectOf(corners, run));
  if (subjects.some((subject) => !subject)) return { why: 'plain', strength: 0 };
  const pyramidAt = async (frame: number): Promise<LumaPyramid | null> => {
    const fetched = await fetch(frame);
    return fetched && LumaPyramid.of(tools, fetched, looked && (await looked(frame)));
  };
  let before = await pyramidAt(from);
  if (!before) return { why: 'outside', frame: from };
  const trackers: Tracker[] = [];
  let now: LumaPyramid | null = null;
  try {
    for (const subject of subjects) trackers.push(new Tracker(tools, subject!, before));
    const strength = Math.min(...trackers.map((tracker) => tracker.strength()));
    if (strength < PLAIN) return { why: 'plain', strength };
    const glimpse = (): Glimpse | null => trackers[0]!.glimpse(now ?? before!);
    const none = () => null;
    const told = (frame: number, maps: readonly Projective[], confidence: number) =>
      tell({ frame, sample: { confidence, points: pointsOf(kind, size, subjects as Subject[], maps) } }, glimpse);
    if (
      !told(
        from,
        subjects.map((subject) => subject!.map),
        1,
      )
    )
      return { why: 'stopped' };
    const first = run.resume ?? from + way;
    let lostSince = run.resume ?? null;
    let everywhere = lostSince !== null;
    for (let frame = first; way * (to - frame) >= 0; frame += way) {
      now = await pyramidAt(frame);
      if (!now) return lostSince === null ? { why: 'done' } : { why: 'lost', frame: lostSince };
      const known = fixed.get(frame);
      const found = known
        ? mended(trackers, run, known)
        : step(trackers, before, now, run, lostSince === null ? null : way * (frame - lostSince), everywhere);
      if (typeof found === 'string') {
        const cut = frame !== run.resume && likeness(tools, before, now) < CUT;
        if (cut || found === 'outside') return { why: cut ? 'cut' : 'outside', frame };
        lostSince ??= frame;
        if (way * (frame - lostSince) >= run.patience) return { why: 'lost', frame: lostSince };
        if (!tell({ frame, sample: null }, none)) return { why: 'stopped' };
      } else {
        if (lostSince === null && likeness(tools, before, now) < CUT) return { why: 'cut', frame };
        lostSince = null;
        everywhere = false;
        const going = known
          ? tell({ frame, sample: { confidence: 1, points: known } }, glimpse)
          : told(
              frame,
              found.map(({ map }) => map),
              Math.min(...found.map(({ confidence }) => confidence)),
            );
        if (!going) return { why: 'stopped' };
      }
      before.release();
      [before, now] = [now, null];
    }
    return lostSince === null ? { why: 'done' } : { why: 'lost', frame: lostSince };
  } finally {
    trackers.forEach((tracker) => tracker.release());
    before.release();
    now?.release();
  }
}

type Found = { map: Projective; confidence: number }[];

/** @param lostFor frames since it was lost, or null @param everywhere whether it is looked for in all of the picture then */
function step(
  trackers: readonly Tracker[],
  before: LumaPyramid,
  now: LumaPyramid,
  { reach }: Run,
  lostFor: number | null,
  everywhere: boolean,
): Found | Loss {
  const found: Found = [];
  for (const tracker of trackers) {
    const search = (lost: number) =>
      everywhere ? tracker.searchAll(now) : tracker.searchIn(now, reach * (1 + lost / 4));
    const next = lostFor === null ? tracker.next(before, now) : (search(lostFor) ?? 'lost');
    if (typeof next === 'string') return next;
    found.push(next);
  }
  return found;
}

/** Puts the patterns where they are known to be; they turn and grow as their points say. */
function mended(trackers: readonly Tracker[], { kind, size, patterns }: Run, points: readonly Point[]): Found {
  const start = drawnPoints(kind, size, patterns)!;
  return trackers.map((tracker, i) => {
    const own = kind === 'pair' ? [[start[i]!], [points[i]!]] : [start, points];
    const moved = mapBetween(own[0]!, own[1]!);
    if (moved) tracker.putFrom(moved, size);
    return { map: tracker.here, confidence: 1 };
  });
}
