// What dragging does to chosen vertices of a path. Places are source pixels from the source's centre.
import { moved, type Vertex } from '../../core/masks/path';
import { snapped } from '../time/snap';
import { tenths, type XY } from './frame';

/** Stage pixels within which points snap to each other's lines. */
export const SNAP = 5;

export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The box of chosen vertices, or null when there are fewer than two. */
export function boxOf(path: readonly Vertex[], chosen: ReadonlySet<number>): Box | null {
  const points = path.filter((_, i) => chosen.has(i));
  if (points.length < 2) return null;
  const xs = points.map((v) => v[0]);
  const ys = points.map((v) => v[1]);
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

const change = (path: readonly Vertex[], chosen: ReadonlySet<number>, to: (v: Vertex) => Vertex): Vertex[] =>
  path.map((v, i) => (chosen.has(i) ? to(v) : v));

export const movedBy = (path: readonly Vertex[], chosen: ReadonlySet<number>, dx: number, dy: number): Vertex[] =>
  change(path, chosen, (v) => {
    const at = moved(v, dx, dy);
    return [tenths(at[0]), tenths(at[1]), at[2], at[3], at[4], at[5], at[6]];
  });

/** Chosen vertices and their handles through a linear map about a point. */
function mapped(
  path: readonly Vertex[],
  chosen: ReadonlySet<number>,
  [cx, cy]: XY,
  [a, b, c, d]: readonly [number, number, number, number],
): Vertex[] {
  const turn = (x: number, y: number): XY => [a * x + c * y, b * x + d * y];
  return change(path, chosen, (v) => {
    const [x, y] = turn(v[0] - cx, v[1] - cy);
    const [inX, inY] = turn(v[2], v[3]);
    const [outX, outY] = turn(v[4], v[5]);
    return [tenths(cx + x), tenths(cy + y), inX, inY, outX, outY, v[6]];
  });
}
export const scaledBy = (
  path: readonly Vertex[],
  chosen: ReadonlySet<number>,
  about: XY,
  sx: number,
  sy: number,
): Vertex[] => mapped(path, chosen, about, [sx, 0, 0, sy]);
export const turnedBy = (
  path: readonly Vertex[],
  chosen: ReadonlySet<number>,
  about: XY,
  radians: number,
): Vertex[] => {
  const [c, s] = [Math.cos(radians), Math.sin(radians)];
  return mapped(path, chosen, about, [c, s, -s, c]);
};

/** A vertex with one handle elsewhere; the other one turns with it and keeps its length unless they move apart. */
export function withHandle(v: Vertex, side: 'in' | 'out', [x, y]: XY, apart: boolean): Vertex {
  const other: XY = side === 'in' ? [v[4], v[5]] : [v[2], v[3]];
  const long = Math.hypot(x, y) || 1;
  const far = Math.hypot(...other);
  const turned: XY = apart || far === 0 ? other : [(-x / long) * far, (-y / long) * far];
  return side === 'in' ? [v[0], v[1], x, y, ...turned, v[6]] : [v[0], v[1], ...turned, x, y, v[6]];
}

/**
 * A point moved onto the nearest line of other points, of the source's middle or of its borders, when one is near.
 * @returns the point, and the lines it lies on now
 */
export function snapPoint(
  [x, y]: XY,
  targets: readonly XY[],
  { w, h }: { w: number; h: number },
  within: number,
): { point: [number, number]; x: number | null; y: number | null } {
  const onX = snapped(x, [-w / 2, 0, w / 2, ...targets.map((p) => p[0])], within);
  const onY = snapped(y, [-h / 2, 0, h / 2, ...targets.map((p) => p[1])], within);
  return { point: [onX ?? tenths(x), onY ?? tenths(y)], x: onX, y: onY };
}
