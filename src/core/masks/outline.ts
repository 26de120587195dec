import type { Point, Ring } from './path';

/** How far a polygon may lie inside the round it stands for, in pixels. */
const GAP = 0.01;
const chords = (radius: number): number =>
  Math.min(720, Math.max(12, Math.ceil((2 * Math.PI) / Math.acos(1 - Math.min(0.5, GAP / Math.max(radius, GAP * 2))))));

/** @param size width and height of the whole ellipse; about the origin */
export function ellipseRing([w, h]: Point): Ring {
  const n = chords(Math.max(w, h) / 2);
  return Float64Array.from({ length: 2 * n }, (_, i) => {
    const turn = (2 * Math.PI * (i >> 1)) / n;
    return i % 2 ? (Math.sin(turn) * h) / 2 : (Math.cos(turn) * w) / 2;
  });
}

/** A rectangle about the origin with round corners. */
export function rectangleRing([w, h]: Point, radius: number): Ring {
  const r = Math.min(radius, w / 2, h / 2);
  const [x, y] = [w / 2 - r, h / 2 - r];
  if (r <= 0) return Float64Array.of(-w / 2, -h / 2, w / 2, -h / 2, w / 2, h / 2, -w / 2, h / 2);
  const n = Math.ceil(chords(r) / 4);
  const points: number[] = [];
  for (const [quarter, [cx, cy]] of [
    [x, y],
    [-x, y],
    [-x, -y],
    [x, -y],
  ].entries()) {
    for (let i = 0; i <= n; i++) {
      const turn = ((quarter + i / n) * Math.PI) / 2;
      points.push(cx! + r * Math.cos(turn), cy! + r * Math.sin(turn));
    }
  }
  return Float64Array.from(points);
}

/** Rings turned about the origin, moved to a centre, scaled, and moved again to `at`. */
export function placedRings(
  rings: readonly Ring[],
  { centre, rotation }: { centre: Point; rotation: number },
  scale: number,
  at: Point,
): Ring[] {
  const turn = (rotation * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return rings.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      const [x, y] = [ring[i]!, ring[i + 1]!];
      out[i] = (c * x - s * y + centre[0]) * scale + at[0];
      out[i + 1] = (s * x + c * y + centre[1]) * scale + at[1];
    }
    return out;
  });
}
