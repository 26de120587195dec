import { project, projective, type Matrix, type Projective } from './matrix';
import type { Rect } from './rect';

/** Pixels that a rectangle may cover after a map, with room for soft borders; very large when part of it is behind the eye. */
export function placedBounds(map: Matrix | Projective, rect: Rect): Rect {
  const m = map.length === 6 ? projective(map) : map;
  const points = [
    [rect.x, rect.y],
    [rect.x + rect.w, rect.y],
    [rect.x + rect.w, rect.y + rect.h],
    [rect.x, rect.y + rect.h],
  ].map(([x, y]) => project(m, x!, y!));
  if (points.some((point) => point[2] <= 1e-3)) return { x: -1e6, y: -1e6, w: 2e6, h: 2e6 };
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const x = Math.floor(Math.min(...xs) - 0.5);
  const y = Math.floor(Math.min(...ys) - 0.5);
  return { x, y, w: Math.ceil(Math.max(...xs) + 0.5) - x, h: Math.ceil(Math.max(...ys) + 0.5) - y };
}
