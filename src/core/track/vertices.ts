// Vertices of a path carried on by the motion about each of them.
import type { FetchedPicture } from '../picture/fetched';
import { project } from '../picture/matrix';
import { LumaPyramid, type Tools } from './luma';
import type { Point } from './motion';
import { Tracker } from './tracker';

export interface Carry {
  /** in source pixels from the source's centre */
  points: readonly Point[];
  /** of the source */
  size: { w: number; h: number };
  from: number;
  to: number;
}
export interface Carried {
  frame: number;
  points: readonly Point[];
  /** how sure each is, 0…1; 0 for one that goes along with its neighbours because nothing about it could be found again */
  sure: readonly number[];
}

/** Half the side of what is looked at about a vertex, in shares of the picture's shorter side. */
const ABOUT = 1 / 30;

/**
 * Carries vertices from frame to frame. What cannot be found again goes along with its nearest neighbours on both sides.
 * @param tell returns false to stop
 */
export async function carryVertices(
  tools: Tools,
  { points, size, from, to }: Carry,
  fetch: (frame: number) => Promise<FetchedPicture | null>,
  tell: (carried: Carried) => boolean,
): Promise<void> {
  const way = to < from ? -1 : 1;
  const side = Math.max(12, Math.round(2 * ABOUT * Math.min(size.w, size.h)));
  const first = await fetch(from);
  if (!first) return;
  let before = LumaPyramid.of(tools, first);
  let now: LumaPyramid | null = null;
  const trackers: Tracker[] = [];
  try {
    for (const [x, y] of points)
      trackers.push(
        new Tracker(
          tools,
          {
            map: [1, 0, x + size.w / 2, 0, 1, y + size.h / 2, 0, 0, 1],
            w: side,
            h: side,
            freedom: 2,
            reach: side,
            windowed: true,
          },
          before,
        ),
      );
    let here = [...points];
    for (let frame = from + way; way * (to - frame) >= 0; frame += way) {
      const fetched = await fetch(frame);
      if (!fetched) return;
      now = LumaPyramid.of(tools, fetched);
      const frames = { before, now };
      const found = trackers.map((tracker) => tracker.next(frames.before, frames.now));
      const moves = found.map((step, i): Point | null => {
        if (typeof step === 'string') return null;
        const [x, y] = project(step.map, 0, 0);
        return [x - size.w / 2 - here[i]![0], y - size.h / 2 - here[i]![1]];
      });
      here = here.map(([x, y], i): Point => {
        const [dx, dy] = moves[i] ?? neighboursMove(moves, i);
        return [x + dx, y + dy];
      });
      const sure = found.map((step) => (typeof step === 'string' ? 0 : step.confidence));
      found.forEach((step, i) => {
        if (typeof step !== 'string') return;
        const [x, y] = here[i]!;
        trackers[i]!.putAt(x + size.w / 2, y + size.h / 2);
      });
      if (!tell({ frame, points: here, sure })) return;
      before.release();
      [before, now] = [now, null];
    }
  } finally {
    trackers.forEach((tracker) => tracker.release());
    before.release();
    now?.release();
  }
}

/** The move of a vertex whose own is not known: that of the nearest known ones on both sides, the nearer counting more. */
function neighboursMove(moves: readonly (Point | null)[], i: number): Point {
  const n = moves.length;
  const nearest = (step: 1 | -1): { move: Point; far: number } | null => {
    for (let far = 1; far < n; far++) {
      const move = moves[(((i + step * far) % n) + n) % n];
      if (move) return { move, far };
    }
    return null;
  };
  const [a, b] = [nearest(-1), nearest(1)];
  if (!a || !b) return [0, 0];
  const share = a.far / (a.far + b.far);
  return [a.move[0] + (b.move[0] - a.move[0]) * share, a.move[1] + (b.move[1] - a.move[1]) * share];
}
