// Bézier paths: vertices with handles, and what can be done to them without changing their shape.

/** Position, arriving and leaving handle (both from the position), and how much softer the edge is here. Source pixels from the source's centre, y down. */
export type Vertex = readonly [
  x: number,
  y: number,
  inX: number,
  inY: number,
  outX: number,
  outY: number,
  feather: number,
];
export type Point = readonly [number, number];
/** x and y by turns; closed by itself. */
export type Ring = Float64Array;
/** The box of rings: left, top, right, bottom. */
export function boundsOf(rings: readonly Ring[]): [number, number, number, number] {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const ring of rings)
    for (let i = 0; i < ring.length; i += 2) {
      box[0] = Math.min(box[0], ring[i]!);
      box[1] = Math.min(box[1], ring[i + 1]!);
      box[2] = Math.max(box[2], ring[i]!);
      box[3] = Math.max(box[3], ring[i + 1]!);
    }
  return box;
}

/** How far a flattened path may be from the curve, in pixels. */
const TOLERANCE = 0.02;

/** Rings moved. */
export const shifted = (rings: readonly Ring[], dx: number, dy: number): Ring[] =>
  rings.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      out[i] = ring[i]! + dx;
      out[i + 1] = ring[i + 1]! + dy;
    }
    return out;
  });

export const corner = (x: number, y: number, feather = 0): Vertex => [x, y, 0, 0, 0, 0, feather];

/** A vertex moved by an offset. */
export const moved = (v: Vertex, dx: number, dy: number): Vertex => [
  v[0] + dx,
  v[1] + dy,
  v[2],
  v[3],
  v[4],
  v[5],
  v[6],
];

type Cubic = readonly [Point, Point, Point, Point];

/** The cubic from vertex i to the next one. */
export function segment(path: readonly Vertex[], i: number): Cubic {
  const a = path[i]!;
  const b = path[(i + 1) % path.length]!;
  return [
    [a[0], a[1]],
    [a[0] + a[4], a[1] + a[5]],
    [b[0] + b[2], b[1] + b[3]],
    [b[0], b[1]],
  ];
}

export function cubicAt([a, b, c, d]: Cubic, t: number): Point {
  const u = 1 - t;
  const [k0, k1, k2, k3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return [k0 * a[0] + k1 * b[0] + k2 * c[0] + k3 * d[0], k0 * a[1] + k1 * b[1] + k2 * c[1] + k3 * d[1]];
}

/** Pieces into which a cubic must be cut so that straight lines stay within the tolerance: its second derivative bounds the gap. */
function pieces([a, b, c, d]: Cubic): number {
  const bend = Math.max(
    Math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1]),
    Math.hypot(b[0] - 2 * c[0] + d[0], b[1] - 2 * c[1] + d[1]),
  );
  return Math.min(400, Math.max(1, Math.ceil(Math.sqrt((6 * bend) / (8 * TOLERANCE)))));
}

/** A path as straight lines. @param closed whether it goes back to its first vertex @returns the ring, and the vertices' feather at each of its points */
export function flattened(path: readonly Vertex[], closed = true): { ring: Ring; feather: Float64Array } {
  const points: number[] = [];
  const feather: number[] = [];
  path.forEach((vertex, i) => {
    if (!closed && i === path.length - 1) {
      points.push(vertex[0], vertex[1]);
      feather.push(vertex[6]);
      return;
    }
    const cubic = segment(path, i);
    const n = pieces(cubic);
    const next = path[(i + 1) % path.length]![6];
    for (let k = 0; k < n; k++) {
      points.push(...cubicAt(cubic, k / n));
      feather.push(vertex[6] + ((next - vertex[6]) * k) / n);
    }
  });
  return { ring: Float64Array.from(points), feather: Float64Array.from(feather) };
}

const between = (a: Point, b: Point, t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];

/** A vertex more on segment i at t; the shape stays exactly as it is (de Casteljau). */
export function withVertex(path: readonly Vertex[], i: number, t: number): Vertex[] {
  const [a, b, c, d] = segment(path, i);
  const [ab, bc, cd] = [between(a, b, t), between(b, c, t), between(c, d, t)];
  const [abc, bcd] = [between(ab, bc, t), between(bc, cd, t)];
  const at = between(abc, bcd, t);
  const out = [...path];
  const next = (i + 1) % path.length;
  const [from, to] = [path[i]!, path[next]!];
  const straight = from[4] === 0 && from[5] === 0 && to[2] === 0 && to[3] === 0;
  const feather = from[6] + (to[6] - from[6]) * t;
  if (straight) out.splice(i + 1, 0, corner(...between(a, d, t), feather));
  else {
    out[i] = [from[0], from[1], from[2], from[3], ab[0] - a[0], ab[1] - a[1], from[6]];
    out[next] = [
      to[0],
      to[1],
      cd[0] - d[0],
      cd[1] - d[1],
      ...(next === i ? [0, 0] : [to[4], to[5]]),
      to[6],
    ] as unknown as Vertex;
    out.splice(i + 1, 0, [at[0], at[1], abc[0] - at[0], abc[1] - at[1], bcd[0] - at[0], bcd[1] - at[1], feather]);
  }
  return out;
}

export const withoutVertices = (path: readonly Vertex[], which: ReadonlySet<number>): Vertex[] =>
  path.filter((_, i) => !which.has(i));

/** The nearest place on a closed path. */
export function nearestOn(
  path: readonly Vertex[],
  x: number,
  y: number,
): { segment: number; t: number; distance: number; point: Point } | null {
  let best: ReturnType<typeof nearestOn> = null;
  path.forEach((_, i) => {
    const cubic = segment(path, i);
    const n = Math.max(8, pieces(cubic));
    for (let k = 0; k < n; k++) {
      const [p, q] = [cubicAt(cubic, k / n), cubicAt(cubic, (k + 1) / n)];
      const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
      const long = dx * dx + dy * dy;
      const s = long ? Math.min(1, Math.max(0, ((x - p[0]) * dx + (y - p[1]) * dy) / long)) : 0;
      const point: Point = [p[0] + s * dx, p[1] + s * dy];
      const distance = Math.hypot(point[0] - x, point[1] - y);
      if (!best || distance < best.distance) best = { segment: i, t: (k + s) / n, distance, point };
    }
  });
  return best;
}

/** The vertex with handles along the line between its neighbours, a third of the way to each; or without handles. */
export function converted(path: readonly Vertex[], i: number, to: 'smooth' | 'corner'): Vertex {
  const v = path[i]!;
  if (to === 'corner' || path.length < 2) return corner(v[0], v[1], v[6]);
  const [a, b] = [path[(i + path.length - 1) % path.length]!, path[(i + 1) % path.length]!];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = Math.hypot(dx, dy) || 1;
  const back = Math.hypot(v[0] - a[0], v[1] - a[1]) / 3;
  const on = Math.hypot(b[0] - v[0], b[1] - v[1]) / 3;
  return [v[0], v[1], (-dx / long) * back, (-dy / long) * back, (dx / long) * on, (dy / long) * on, v[6]];
}
export const isSmooth = (v: Vertex): boolean => v[2] !== 0 || v[3] !== 0 || v[4] !== 0 || v[5] !== 0;

/** A smooth path along a freehand line: the fewest of its points that stay within `slack` pixels (Douglas and Peucker 1973), then rounded. */
export function fromFreehand(points: readonly Point[], slack: number): Vertex[] {
  if (points.length < 3) return points.map(([x, y]) => corner(x, y));
  const keep = new Set([0, points.length - 1]);
  const split = (from: number, to: number): void => {
    const [a, b] = [points[from]!, points[to]!];
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    let [far, at] = [0, -1];
    for (let i = from + 1; i < to; i++) {
      const [x, y] = points[i]!;
      const gap =
        long > 1e-9
          ? Math.abs((b[0] - a[0]) * (a[1] - y) - (a[0] - x) * (b[1] - a[1])) / long
          : Math.hypot(x - a[0], y - a[1]);
      if (gap > far) [far, at] = [gap, i];
    }
    if (far <= slack) return;
    keep.add(at);
    split(from, at);
    split(at, to);
  };
  // a closed line has no ends: cut it at the point farthest from its beginning
  const [x0, y0] = points[0]!;
  const turn = points.reduce(
    (best, [x, y], i) =>
      Math.hypot(x - x0, y - y0) > Math.hypot(points[best]![0] - x0, points[best]![1] - y0) ? i : best,
    0,
  );
  keep.add(turn);
  split(0, turn);
  split(turn, points.length - 1);
  const chosen = [...keep].sort((a, b) => a - b).map((i) => points[i]!);
  const closing = chosen.at(-1)!;
  if (chosen.length > 3 && Math.hypot(closing[0] - x0, closing[1] - y0) < 2 * slack) chosen.pop();
  const path = chosen.map(([x, y]) => corner(x, y));
  return path.map((_, i) => converted(path, i, 'smooth'));
}
