// Pictures whose pixels are taken from elsewhere, by a formula of the place.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { Picture } from './picture';
import { sameRect } from './rect';
import { partOf } from './rows';

interface Tools {
  kernels: Kernels;
  arena: Arena;
  /** of the source: beyond its border there is the border's own colour, but beyond what was cut out of it nothing */
  size: { w: number; h: number };
}
/** Puts how far off each pixel of a row is taken, in pixels, at two places in memory. @param y the row in the source */
export type Offsets = (dx: number, dy: number, y: number) => void;

/** @param beyond with `clear` there is nothing beyond the source either @returns owned by the caller, as large as the picture */
export function bent(tools: Tools, picture: Picture, offsets: Offsets, beyond: 'border' | 'clear' = 'border'): Picture {
  const { kernels, arena, size } = tools;
  const { x, y, w, h } = picture.rect;
  // a pixel of nothing beside what was cut off
  const cut = (off: number): number => (beyond === 'clear' || off > 0 ? 1 : 0);
  const [before, above] = [cut(x), cut(y)];
  const around = {
    x: x - before,
    y: y - above,
    w: w + before + cut(size.w - x - w),
    h: h + above + cut(size.h - y - h),
  };
  const read = sameRect(around, picture.rect) ? picture.retain() : partOf(tools, picture, around);
  const out = Picture.make(arena, picture.rect);
  const plane = (w + 4) * 4;
  arena.scratch(2 * plane, (dx) => {
    const dy = dx + plane;
    for (let row = 0; row < h; row++) {
      offsets(dx, dy, y + row);
      kernels.displacedRow(read.at, read.rect.w, read.rect.h, out.row(row), w, before, above + row, dx, dy, 1);
    }
  });
  read.release();
  return out;
}

/** Entries of a table for each pixel that it reaches, and how many it has at least and at most. */
const [ENTRIES, FEWEST, MOST] = [4, 64, 32768];

/**
 * A picture bent about a middle, by how far each place lies from there.
 * @param furthest how far out it is bent otherwise than at that distance, in pixels
 * @param from how many times as far a pixel is taken that lies so far out, and by which angle it is turned for that, in radians
 */
export function bentAbout(
  tools: Tools,
  picture: Picture,
  [cx, cy]: readonly [number, number],
  furthest: number,
  from: (far: number) => { size: number; turn?: number },
  beyond: 'border' | 'clear' = 'border',
): Picture {
  const { kernels, arena } = tools;
  const steps = Math.min(MOST, Math.max(FEWEST, Math.ceil(furthest * ENTRIES)));
  return arena.scratch((steps + 2) * 8, (table) => {
    const entries = arena.floats(table, (steps + 2) * 2);
    for (let i = 0; i < steps + 2; i++) {
      // the middle itself stays where it is, whatever is said of it
      const { size, turn = 0 } = from((furthest * Math.min(Math.max(i, 1e-3), steps)) / steps);
      entries[2 * i] = size * Math.cos(turn) - 1;
      entries[2 * i + 1] = size * Math.sin(turn);
    }
    const { x, w } = picture.rect;
    const offsets: Offsets = (dx, dy, y) =>
      kernels.aboutRow(dx, dy, w, x + 0.5 - cx, y + 0.5 - cy, table, steps, steps / furthest);
    return bent(tools, picture, offsets, beyond);
  });
}
