import type { Ring } from './path';

interface Edge {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** +1 downwards in the ring, −1 upwards */
  winding: number;
}
/** Slabs in which edges cross are halved until they are this thin. */
const THINNEST = 1 / 128;

/**
 * Coverage of closed rings by the non-zero rule: the exact area of each pixel that is inside. Rows are cut into slabs in which
 * no edge begins, ends or crosses another; in a slab only the outline of the filled parts is summed up.
 * @param rings pixels from the plane's top left, y down @returns w×h floats 0…1. Source: exact-area scanline accumulation as in font rendering
 */
export function fillRings(rings: readonly Ring[], w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  const edges = edgesOf(rings, h).sort((a, b) => a.y0 - b.y0);
  const sums = new Float64Array(w + 3);
  let next = 0;
  let active: Edge[] = [];
  for (let y = edges.length ? Math.max(0, Math.floor(edges[0]!.y0)) : h; y < h; y++) {
    while (next < edges.length && edges[next]!.y0 < y + 1) active.push(edges[next++]!);
    active = active.filter((edge) => edge.y1 > y);
    if (!active.length) {
      if (next >= edges.length) break;
      continue;
    }
    const cuts = new Set([y, y + 1]);
    for (const { y0, y1 } of active) {
      if (y0 > y) cuts.add(y0);
      if (y1 < y + 1) cuts.add(y1);
    }
    const sorted = cuts.size > 2 ? [...cuts].sort((a, b) => a - b) : [y, y + 1];
    for (let k = 0; k + 1 < sorted.length; k++) slab(active, sorted[k]!, sorted[k + 1]!, sums, w);
    let covered = 0;
    for (let x = 0, at = y * w; x < w; x++, at++) {
      covered += sums[x]!;
      out[at] = covered < 0 ? 0 : covered > 1 ? 1 : covered;
    }
    sums.fill(0);
  }
  return out;
}

function edgesOf(rings: readonly Ring[], h: number): Edge[] {
  const out: Edge[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
      if (y0 === y1 || Math.max(y0, y1) <= 0 || Math.min(y0, y1) >= h) continue;
      out.push(y0 < y1 ? { x0, y0, x1, y1, winding: 1 } : { x0: x1, y0: y1, x1: x0, y1: y0, winding: -1 });
    }
  }
  return out;
}

const xAt = (edge: Edge, y: number): number => edge.x0 + ((edge.x1 - edge.x0) * (y - edge.y0)) / (edge.y1 - edge.y0);

function slab(active: readonly Edge[], top: number, bottom: number, sums: Float64Array, w: number): void {
  const middle = (top + bottom) / 2;
  const here = active
    .filter((edge) => edge.y0 <= top && edge.y1 >= bottom)
    .map((edge) => ({ a: xAt(edge, top), b: xAt(edge, bottom), m: xAt(edge, middle), winding: edge.winding }));
  here.sort((p, q) => p.m - q.m);
  const crossing = here.some((p, i) => i > 0 && (here[i - 1]!.a > p.a + 1e-9 || here[i - 1]!.b > p.b + 1e-9));
  if (crossing && bottom - top > THINNEST) {
    slab(active, top, middle, sums, w);
    slab(active, middle, bottom, sums, w);
    return;
  }
  let winding = 0;
  for (const edge of here) {
    const before = winding;
    winding += edge.winding;
    if (before === 0 && winding !== 0) addEdge(edge.a, edge.b, bottom - top, sums, w);
    else if (before !== 0 && winding === 0) addEdge(edge.a, edge.b, top - bottom, sums, w);
  }
}

/** Adds what lies right of a piece of an edge to the running sums of a row. */
function addEdge(from: number, to: number, height: number, sums: Float64Array, w: number): void {
  let [lo, hi] = from < to ? [from, to] : [to, from];
  if (lo >= w) return;
  if (lo < 0) {
    const outside = hi <= 0 ? 1 : -lo / (hi - lo);
    sums[0]! += height * outside;
    if (outside === 1) return;
    height *= 1 - outside;
    lo = 0;
  }
  if (hi > w) {
    height *= (w - lo) / (hi - lo);
    hi = w;
  }
  const first = Math.floor(lo);
  const last = Math.ceil(hi);
  if (last <= first + 1) {
    const mean = (lo + hi) / 2 - first;
    sums[first]! += height * (1 - mean);
    sums[first + 1]! += height * mean;
    return;
  }
  // the share of the edge's height that each pixel column takes, and where in it
  const slope = height / (hi - lo);
  let done = 0; // area right of the edge so far in the running sum
  for (let x = first; x < last; x++) {
    const [a, b] = [Math.max(lo, x), Math.min(hi, x + 1)];
    const part = slope * (b - a);
    const area = part * (x + 1 - (a + b) / 2);
    sums[x]! += area + done;
    done = part - area;
  }
  sums[last]! += done;
}
