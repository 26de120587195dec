// Maps of the plane that carry some points to others.
import { projective, projectiveInverse, projectiveProduct, translation, type Projective } from '../picture/matrix';

export type Point = readonly [number, number];

/**
 * The map that so many points determine: one a shift, two a turn and a size as well, three an affine map, four a
 * projective one. @returns null when they lie so that there is none
 */
export function mapBetween(from: readonly Point[], to: readonly Point[]): Projective | null {
  const before = spanOf(from);
  const back = before && projectiveInverse(before);
  const after = spanOf(to);
  if (!back || !after) return null;
  const m = projectiveProduct(after, back);
  return Math.abs(m[8]) < 1e-12 ? null : (m.map((v) => v / m[8]) as unknown as Projective);
}

/** What carries (0, 0), (1, 0), (1, 1), (0, 1), or as many of them as there are points, to these points. */
function spanOf(points: readonly Point[]): Projective | null {
  const [a, b, c, d] = points as [Point, Point?, Point?, Point?];
  if (!b) return projective(translation(a[0], a[1]));
  if (!c) {
    const [x, y] = [b[0] - a[0], b[1] - a[1]];
    return [x, -y, a[0], y, x, a[1], 0, 0, 1];
  }
  if (!d) return [b[0] - a[0], c[0] - b[0], a[0], b[1] - a[1], c[1] - b[1], a[1], 0, 0, 1];
  return squareTo(a, b, c, d);
}

/** The unit square to four corners. Source: Heckbert 1989. @returns null when three of them lie on one line */
function squareTo(a: Point, b: Point, c: Point, d: Point): Projective | null {
  const [x1, y1] = [b[0] - c[0], b[1] - c[1]];
  const [x2, y2] = [d[0] - c[0], d[1] - c[1]];
  const [x3, y3] = [a[0] - b[0] + c[0] - d[0], a[1] - b[1] + c[1] - d[1]];
  const det = x1 * y2 - x2 * y1;
  if (Math.abs(det) < 1e-9) return null;
  const g = (x3 * y2 - x2 * y3) / det;
  const h = (x1 * y3 - x3 * y1) / det;
  return [
    b[0] - a[0] + g * b[0],
    d[0] - a[0] + h * d[0],
    a[0],
    b[1] - a[1] + g * b[1],
    d[1] - a[1] + h * d[1],
    a[1],
    g,
    h,
    1,
  ];
}

/** The mean of points. */
export const middleOf = (points: readonly Point[]): [number, number] => [
  points.reduce((sum, p) => sum + p[0], 0) / points.length,
  points.reduce((sum, p) => sum + p[1], 0) / points.length,
];

/** How much larger a map draws things about a place: the square root of how much area grows. */
export function growthAt(m: Projective, x: number, y: number): number {
  const w = m[6] * x + m[7] * y + m[8];
  const [u, v] = [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w];
  const det = (m[0] - u * m[6]) * (m[4] - v * m[7]) - (m[1] - u * m[7]) * (m[3] - v * m[6]);
  return Math.sqrt(Math.abs(det)) / Math.abs(w);
}

/** Clockwise degrees by which a map turns things about a place. */
export function turnAt(m: Projective, x: number, y: number): number {
  const w = m[6] * x + m[7] * y + m[8];
  const [u, v] = [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w];
  // of both axes together, so that what a map stretches one way does not count as a turn
  const [a, b] = [(m[0] - u * m[6]) / w, (m[1] - u * m[7]) / w];
  const [c, d] = [(m[3] - v * m[6]) / w, (m[4] - v * m[7]) / w];
  return (Math.atan2(c - b, a + d) * 180) / Math.PI;
}
