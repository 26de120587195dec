import { cubicAt, moved, segment, type Vertex } from '../masks/path';

/** A plane of brightness, 0…255. */
export interface Luma {
  w: number;
  h: number;
  values: Uint8Array;
}

/** Farthest that an edge is looked for on either side of the path, in pixels. */
const REACH = 9;
const STEP = 0.5;
const SAMPLES = 14;
/** Weakest edge that counts, in 255ths a pixel. */
const LEAST = 5;

function bilinear({ w, h, values }: Luma, x: number, y: number): number {
  const u = Math.min(w - 1.001, Math.max(0, x - 0.5));
  const v = Math.min(h - 1.001, Math.max(0, y - 0.5));
  const [x0, y0] = [Math.floor(u), Math.floor(v)];
  const [fx, fy] = [u - x0, v - y0];
  const at = y0 * w + x0;
  const down = y0 + 1 < h ? at + w : at;
  const right = x0 + 1 < w ? 1 : 0;
  const upper = values[at]! * (1 - fx) + values[at + right]! * fx;
  return upper + (values[down]! * (1 - fx) + values[down + right]! * fx - upper) * fy;
}

/** The strongest edge across a path, near ones before far ones. @returns how far along the normal, and how strong; null when there is none */
function edgeAcross(
  luma: Luma,
  x: number,
  y: number,
  nx: number,
  ny: number,
): { off: number; strength: number } | null {
  let best: { off: number; strength: number; score: number } | null = null;
  const at = (d: number) => bilinear(luma, x + nx * d, y + ny * d);
  const slope = (d: number) => Math.abs(at(d + 1) - at(d - 1)) / 2;
  for (let d = -REACH; d <= REACH; d += STEP) {
    const strength = slope(d);
    const score = strength * (1 - (0.6 * Math.abs(d)) / REACH);
    if (strength >= LEAST && (!best || score > best.score)) best = { off: d, strength, score };
  }
  if (!best) return null;
  // the top of a parabola through the three slopes about the strongest
  const [a, b, c] = [slope(best.off - STEP), best.strength, slope(best.off + STEP)];
  const bend = a - 2 * b + c;
  return {
    off: best.off + (bend < -1e-6 ? Math.max(-1, Math.min(1, (0.5 * (a - c)) / bend)) * STEP : 0),
    strength: best.strength,
  };
}

/**
 * Pulls vertices of a closed path to the strong edges near their segments: each is moved so that the edges found across its two
 * segments lie on them as well as they can (weighted least squares). Vertices without an edge nearby stay.
 * @param path source pixels from the source's centre @param luma of the whole source
 */
export function pulledToEdges(path: readonly Vertex[], chosen: ReadonlySet<number>, luma: Luma): Vertex[] {
  const n = path.length;
  const sums = path.map(() => ({ xx: 0, xy: 0, yy: 0, x: 0, y: 0, weight: 0 }));
  for (let i = 0; i < n; i++) {
    if (!chosen.has(i) && !chosen.has((i + 1) % n)) continue;
    const cubic = segment(path, i);
    for (let k = 0; k < SAMPLES; k++) {
      const t = (k + 0.5) / SAMPLES;
      const [p, q] = [cubicAt(cubic, t - 0.01), cubicAt(cubic, t + 0.01)];
      const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
      if (long < 1e-9) continue;
      const [nx, ny] = [-(q[1] - p[1]) / long, (q[0] - p[0]) / long];
      const [x, y] = cubicAt(cubic, t);
      const found = edgeAcross(luma, x + luma.w / 2, y + luma.h / 2, nx, ny);
      if (!found) continue;
      for (const [vertex, share] of [
        [i, 1 - t],
        [(i + 1) % n, t],
      ] as const) {
        const weight = share * share * found.strength;
        const sum = sums[vertex]!;
        sum.xx += weight * nx * nx;
        sum.xy += weight * nx * ny;
        sum.yy += weight * ny * ny;
        sum.x += weight * nx * found.off;
        sum.y += weight * ny * found.off;
        sum.weight += weight;
      }
    }
  }
  return path.map((vertex, i) => {
    const { xx, xy, yy, x, y, weight } = sums[i]!;
    if (!chosen.has(i) || weight === 0) return vertex;
    // a little of the identity, so that a straight side moves its vertex across it only
    const calm = 0.02 * weight;
    const det = (xx + calm) * (yy + calm) - xy * xy;
    return moved(vertex, (x * (yy + calm) - y * xy) / det, (y * (xx + calm) - x * xy) / det);
  });
}
