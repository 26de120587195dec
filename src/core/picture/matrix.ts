/** Affine map [a b c d e f]: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [number, number, number, number, number, number];

export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
export const scaling = (x: number, y: number): Matrix => [x, 0, 0, y, 0, 0];

/** Clockwise rotation, y down. @param degrees */
export function rotation(degrees: number): Matrix {
  // right angles exactly, so that quarter turns stay on the pixel grid
  const turn = ((degrees % 360) + 360) % 360;
  const exact: Record<number, [number, number]> = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] };
  const r = (turn * Math.PI) / 180;
  const [c, s] = exact[turn] ?? [Math.cos(r), Math.sin(r)];
  return [c, s, -s, c, 0, 0];
}

/** First `second`, then `first`: the usual matrix product. */
export function multiply(first: Matrix, second: Matrix): Matrix {
  const [a, b, c, d, e, f] = first;
  const [g, h, i, j, k, l] = second;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

export function invert(m: Matrix): Matrix | null {
  const [a, b, c, d, e, f] = m;
  const det = a * d - b * c;
  if (!Number.isFinite(det) || Math.abs(det) < 1e-12) return null;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

export function apply(m: Matrix, x: number, y: number): [number, number] {
  return [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];
}

/** Corners of a w×h rectangle at the origin after the map, clockwise from its top left. */
export function corners(m: Matrix, w: number, h: number): [number, number][] {
  return [apply(m, 0, 0), apply(m, w, 0), apply(m, w, h), apply(m, 0, h)];
}

/** Projective map, row by row: x' = (m0·x + m1·y + m2)/w, y' = (m3·x + m4·y + m5)/w, w = m6·x + m7·y + m8. */
export type Projective = readonly [number, number, number, number, number, number, number, number, number];

export const projective = ([a, b, c, d, e, f]: Matrix): Projective => [a, c, e, b, d, f, 0, 0, 1];

/** First `second`, then `first`. */
export function projectiveProduct(first: Projective, second: Projective): Projective {
  const out = [];
  for (let row = 0; row < 3; row++)
    for (let col = 0; col < 3; col++)
      out.push(
        first[row * 3]! * second[col]! +
          first[row * 3 + 1]! * second[3 + col]! +
          first[row * 3 + 2]! * second[6 + col]!,
      );
  return out as unknown as Projective;
}

export function projectiveInverse(m: Projective): Projective | null {
  const [a, b, c, d, e, f, g, h, i] = m;
  const [p, q, r] = [e * i - f * h, f * g - d * i, d * h - e * g];
  const det = a * p + b * q + c * r;
  if (!Number.isFinite(det) || Math.abs(det) < 1e-15) return null;
  return [
    p / det,
    (c * h - b * i) / det,
    (b * f - c * e) / det,
    q / det,
    (a * i - c * g) / det,
    (c * d - a * f) / det,
    r / det,
    (b * g - a * h) / det,
    (a * e - b * d) / det,
  ];
}

/** @returns the point and the w it was divided by; behind the eye w is not positive */
export function project(m: Projective, x: number, y: number): [number, number, number] {
  const w = m[6] * x + m[7] * y + m[8];
  return [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w, w];
}
