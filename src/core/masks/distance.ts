/** Straight pieces of an edge, x0 y0 x1 y1 by turns, in pixels; `soft` holds a number for both ends of each, carried to the nearest pixels. */
export interface EdgeLines {
  lines: Float64Array;
  soft?: Float64Array | undefined;
}

const FAR = 1e9;

/**
 * Distance of each pixel's middle to the nearest of the lines, by handing on the nearest line from pixel to pixel in two
 * sweeps. @returns distances in pixels, and `soft` of the nearest point. Source: Danielsson 1980, with lines instead of points.
 */
export function edgeDistance(
  { lines, soft }: EdgeLines,
  w: number,
  h: number,
): { distance: Float32Array; soft: Float32Array | null } {
  const distance = new Float32Array(w * h).fill(FAR);
  const nearest = new Int32Array(w * h).fill(-1);

  /** Squared distance of a pixel's middle to a line. */
  const gap = (k: number, px: number, py: number): number => {
    const [x0, y0] = [lines[k]!, lines[k + 1]!];
    const [dx, dy] = [lines[k + 2]! - x0, lines[k + 3]! - y0];
    const long = dx * dx + dy * dy;
    let t = long > 0 ? ((px - x0) * dx + (py - y0) * dy) / long : 0;
    t = t < 0 ? 0 : t > 1 ? 1 : t;
    const ex = x0 + t * dx - px;
    const ey = y0 + t * dy - py;
    return ex * ex + ey * ey;
  };
  const offer = (at: number, k: number, px: number, py: number): void => {
    if (k < 0 || nearest[at] === k) return;
    const d = gap(k, px, py);
    if (d < distance[at]!) {
      distance[at] = d;
      nearest[at] = k;
    }
  };
  for (let k = 0; k < lines.length; k += 4) seed(lines, k, w, h, (x, y) => offer(y * w + x, k, x + 0.5, y + 0.5));
  const row = (y: number, step: -1 | 1): void => {
    const from = y - step;
    const other = from >= 0 && from < h;
    for (let x = 0; x < w; x++) {
      const at = y * w + x;
      if (x > 0) offer(at, nearest[at - 1]!, x + 0.5, y + 0.5);
      if (!other) continue;
      const above = from * w + x;
      offer(at, nearest[above]!, x + 0.5, y + 0.5);
      if (x > 0) offer(at, nearest[above - 1]!, x + 0.5, y + 0.5);
      if (x < w - 1) offer(at, nearest[above + 1]!, x + 0.5, y + 0.5);
    }
    for (let x = w - 2; x >= 0; x--) offer(y * w + x, nearest[y * w + x + 1]!, x + 0.5, y + 0.5);
  };
  for (let y = 0; y < h; y++) row(y, 1);
  for (let y = h - 1; y >= 0; y--) row(y, -1);
  const carried = soft ? new Float32Array(w * h) : null;
  for (let at = 0; at < distance.length; at++) {
    distance[at] = Math.sqrt(distance[at]!);
    const k = nearest[at]!;
    if (carried && k >= 0)
      carried[at] =
        soft![k / 2]! + (soft![k / 2 + 1]! - soft![k / 2]!) * along(lines, k, (at % w) + 0.5, Math.floor(at / w) + 0.5);
  }
  return { distance, soft: carried };
}

function along(lines: Float64Array, k: number, px: number, py: number): number {
  const [dx, dy] = [lines[k + 2]! - lines[k]!, lines[k + 3]! - lines[k + 1]!];
  const long = dx * dx + dy * dy;
  return long > 0 ? Math.min(1, Math.max(0, ((px - lines[k]!) * dx + (py - lines[k + 1]!) * dy) / long)) : 0;
}

/** Visits the pixels on and beside a line; of lines outside the plane the nearest pixels on its border. */
function seed(lines: Float64Array, k: number, w: number, h: number, visit: (x: number, y: number) => void): void {
  const [x0, y0, x1, y1] = [lines[k]!, lines[k + 1]!, lines[k + 2]!, lines[k + 3]!];
  const steps = Math.min(4 * (w + h), Math.max(1, Math.ceil(2 * Math.max(Math.abs(x1 - x0), Math.abs(y1 - y0)))));
  for (let i = 0; i <= steps; i++) {
    const x = Math.min(w - 1, Math.max(0, Math.floor(x0 + ((x1 - x0) * i) / steps)));
    const y = Math.min(h - 1, Math.max(0, Math.floor(y0 + ((y1 - y0) * i) / steps)));
    for (let v = Math.max(0, y - 1); v <= Math.min(h - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(w - 1, x + 1); u++) visit(u, v);
  }
}

/** The line along which a plane passes one half, as straight pieces between the middles of its pixels. */
export function halfWayLines(plane: Float32Array, w: number, h: number): Float64Array {
  const out: number[] = [];
  const at = (x: number, y: number) => plane[y * w + x]!;
  const share = (a: number, b: number) => (0.5 - a) / (b - a);
  for (let y = 0; y + 1 < h; y++) {
    for (let x = 0; x + 1 < w; x++) {
      const [a, b, c, d] = [at(x, y), at(x + 1, y), at(x + 1, y + 1), at(x, y + 1)];
      const kind = (a >= 0.5 ? 1 : 0) | (b >= 0.5 ? 2 : 0) | (c >= 0.5 ? 4 : 0) | (d >= 0.5 ? 8 : 0);
      if (kind === 0 || kind === 15) continue;
      const crossings: number[] = [];
      if (a >= 0.5 !== b >= 0.5) crossings.push(x + 0.5 + share(a, b), y + 0.5);
      if (b >= 0.5 !== c >= 0.5) crossings.push(x + 1.5, y + 0.5 + share(b, c));
      if (d >= 0.5 !== c >= 0.5) crossings.push(x + 0.5 + share(d, c), y + 1.5);
      if (a >= 0.5 !== d >= 0.5) crossings.push(x + 0.5, y + 0.5 + share(a, d));
      out.push(...crossings.slice(0, 4));
      if (crossings.length === 8) out.push(...crossings.slice(4));
    }
  }
  return Float64Array.from(out);
}
