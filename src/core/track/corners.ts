import type { FetchedPicture } from '../picture/fetched';
import { LumaPyramid, type Tools } from './luma';
import type { Point } from './motion';

/** Pixels about each place that are looked at. */
const RADIUS = 4;
/** Places that change this much less than the best are no good. */
const SHARE = 0.02;
/** The least change of light 0…1 by the pixel, squared. */
const LEAST = 1e-4;

/**
 * Places that can be found again whichever way they move. Source: Shi & Tomasi 1994.
 * @param most of them @param apart pixels between two of them at least
 * @returns in pixels from the picture's centre, the best first
 */
export function goodPoints(
  tools: Tools,
  fetched: FetchedPicture,
  { most, apart }: { most: number; apart: number },
): Point[] {
  const frame = LumaPyramid.of(tools, fetched);
  try {
    const level = frame.levels[Math.min(1, frame.levels.length - 1)]!;
    const per = frame.width / level.w;
    const { w, h } = level;
    const strength = tools.arena.scratch(w * h * 4, (at) => {
      tools.kernels.cornerPlane(level.at, w, h, RADIUS, at);
      return tools.arena.floats(at, w * h).slice();
    });
    const centred = (i: number): Point => [
      ((i % w) + 0.5) * per - frame.width / 2,
      (Math.floor(i / w) + 0.5) * per - frame.height / 2,
    ];
    // of each small square only its best place is looked at
    const cell = 4;
    const places: number[] = [];
    let best = 0;
    for (let y = 0; y < h; y += cell) {
      for (let x = 0; x < w; x += cell) {
        let top = y * w + x;
        for (let j = y; j < Math.min(h, y + cell); j++)
          for (let i = x; i < Math.min(w, x + cell); i++) if (strength[j * w + i]! > strength[top]!) top = j * w + i;
        places.push(top);
        best = Math.max(best, strength[top]!);
      }
    }
    const least = Math.max(LEAST, best * SHARE);
    const chosen: Point[] = [];
    for (const i of places.filter((place) => strength[place]! >= least).sort((a, b) => strength[b]! - strength[a]!)) {
      if (chosen.length >= most) break;
      const [x, y] = centred(i);
      if (chosen.every(([a, b]) => Math.hypot(a - x, b - y) >= apart)) chosen.push([x, y]);
    }
    return chosen;
  } finally {
    frame.release();
  }
}
