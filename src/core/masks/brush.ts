import { intersect, isEmpty, union, type Rect } from '../picture/rect';
import { planeBytes, type PlaneTools } from './distance';
import type { Point } from './path';

/** Points are x, y and pressure 0…1; sizes are diameters in source pixels. */
export interface PlainStroke {
  points: readonly (readonly [number, number, number])[];
  size: number;
  hardness: number;
  opacity: number;
  erase: boolean;
}

/**
 * Paints strokes over each other: one stroke covers evenly however often it crosses itself; erasing takes away.
 * @param plane address of w×h floats, all 0 @param origin of the strokes' coordinates in the plane
 */
export function paintStrokes(
  { kernels, arena }: PlaneTools,
  plane: number,
  strokes: readonly PlainStroke[],
  scale: number,
  origin: Point,
  w: number,
  h: number,
): void {
  arena.scratch(planeBytes(w, h), (own) => {
    kernels.fillPlane(own, w * h, 0);
    for (const { points, size, hardness, opacity, erase } of strokes) {
      const dabs = points.map(([x, y, pressure]): Dab => [
        x * scale + origin[0],
        y * scale + origin[1],
        (Math.max(0.05, pressure) * size * scale) / 2,
      ]);
      let touched: Rect | null = null;
      dabs.forEach((to, i) => {
        const from = dabs[Math.max(0, i - 1)]!;
        const part = intersect(around(from, to), { x: 0, y: 0, w, h });
        if (isEmpty(part)) return;
        kernels.capsule(own, w, part.x, part.y, part.x + part.w, part.y + part.h, ...from, ...to, hardness);
        touched = touched ? union(touched, part) : part;
      });
      if (!touched) continue;
      const { x, y, w: wide, h: high } = touched as Rect;
      kernels.joinStroke(plane, own, w, x, y, x + wide, y + high, opacity, erase ? 1 : 0);
    }
  });
}

type Dab = readonly [x: number, y: number, radius: number];
/** The pixels that a line with round ends may reach. */
function around([ax, ay, ar]: Dab, [bx, by, br]: Dab): Rect {
  const most = Math.max(ar, br) + 1;
  const [x, y] = [Math.floor(Math.min(ax, bx) - most), Math.floor(Math.min(ay, by) - most)];
  return { x, y, w: Math.ceil(Math.max(ax, bx) + most) - x, h: Math.ceil(Math.max(ay, by) + most) - y };
}
