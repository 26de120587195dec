import type { Ring } from './path';

/** The ring without points that lie nearer than `tolerance` to the line that is left. Source: Ramer 1972, Douglas & Peucker 1973 */
export function thinned(ring: Ring, tolerance: number): Ring {
  const count = ring.length / 2;
  if (count <= 4) return ring;
  const kept = new Uint8Array(count);
  // the point that is farthest from the first cuts the ring into two lines
  let [far, most] = [0, -1];
  for (let i = 1; i < count; i++) {
    const d = Math.hypot(ring[2 * i]! - ring[0]!, ring[2 * i + 1]! - ring[1]!);
    if (d > most) [far, most] = [i, d];
  }
  kept[0] = kept[far] = 1;
  const open: [number, number][] = [
    [0, far],
    [far, count],
  ];
  for (let line = open.pop(); line; line = open.pop()) {
    const [from, to] = line;
    const [x, y] = [ring[2 * from]!, ring[2 * from + 1]!];
    const end = 2 * (to % count);
    const [dx, dy] = [ring[end]! - x, ring[end + 1]! - y];
    const long = Math.hypot(dx, dy);
    let [middle, off] = [-1, tolerance];
    for (let i = from + 1; i < to; i++) {
      const [u, v] = [ring[2 * i]! - x, ring[2 * i + 1]! - y];
      const d = long > 0 ? Math.abs(u * dy - v * dx) / long : Math.hypot(u, v);
      if (d > off) [middle, off] = [i, d];
    }
    if (middle < 0) continue;
    kept[middle] = 1;
    open.push([from, middle], [middle, to]);
  }
  const out: number[] = [];
  for (let i = 0; i < count; i++) if (kept[i]) out.push(ring[2 * i]!, ring[2 * i + 1]!);
  return Float64Array.from(out);
}
