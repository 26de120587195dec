import type { Ring } from './path';

interface Edge {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  /** +1 downwards in the ring, −1 upwards */
  winding: number;
}
/** Coverage below this is what rounding leaves. */
const NOTHING = 1e-6;
/** Slabs in which edges cross are halved until they are this thin. */
const THINNEST = 1 / 128;

/**
 * Coverage of closed rings by the non-zero rule: the exact area of each pixel that is inside. Rings that lie apart are done by
 * themselves. Rows are cut into slabs in which no edge begins, ends or crosses another; in a slab only the outline of the filled
 * parts is summed up.
 * @param rings pixels from the plane's top left, y down @returns w×h floats 0…1. Source: exact-area scanline accumulation as in font rendering
 */
export function fillRings(rings: readonly Ring[], w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  const sums = new Float64Array(w + 3);
  for (const group of apart(rings.filter(({ length }) => length >= 6).map(boxed))) fillGroup(group, out, sums, w, h);
  return out;
}

interface Boxed {
  ring: Ring;
  /** least and most of x and of y */
  low: [number, number];
  high: [number, number];
}
function boxed(ring: Ring): Boxed {
  const low: [number, number] = [Infinity, Infinity];
  const high: [number, number] = [-Infinity, -Infinity];
  for (let i = 0; i < ring.length; i++) {
    const v = ring[i]!;
    if (v < low[i & 1]!) low[i & 1] = v;
    if (v > high[i & 1]!) high[i & 1] = v;
  }
  return { ring, low, high };
}
/** Rings in groups whose boxes lie apart: cut between lines, then between letters, and so on until nothing can be cut. */
function apart(rings: readonly Boxed[], axis: 0 | 1 = 1, tried = 0): Boxed[][] {
  if (rings.length < 2 || tried > 1) return rings.length ? [[...rings]] : [];
  const sorted = [...rings].sort((a, b) => a.low[axis] - b.low[axis]);
  const groups: Boxed[][] = [];
  let end = -Infinity;
  for (const ring of sorted) {
    if (ring.low[axis] > end) groups.push([]);
    groups.at(-1)!.push(ring);
    end = Math.max(end, ring.high[axis]);
  }
  const next = groups.length > 1 ? 0 : tried + 1;
  return groups.flatMap((group) => apart(group, (1 - axis) as 0 | 1, next));
}

function fillGroup(group: readonly Boxed[], out: Float32Array, sums: Float64Array, w: number, h: number): void {
  const edges = edgesOf(
    group.map(({ ring }) => ring),
    h,
  ).sort((a, b) => a.y0 - b.y0);
  const from = Math.max(0, Math.floor(Math.min(...group.map(({ low }) => low[0]))));
  const to = Math.min(w, Math.ceil(Math.max(...group.map(({ high }) => high[0]))) + 1);
  if (!edges.length || from >= to) return;
  let next = 0;
  let active: Edge[] = [];
  for (let y = Math.max(0, Math.floor(edges[0]!.y0)); y < h; y++) {
    while (next < edges.length && edges[next]!.y0 < y + 1) active.push(edges[next++]!);
    active = active.filter((edge) => edge.y1 > y);
    if (!active.length) {
      if (next >= edges.length) break;
      continue;
    }
    const cuts = [y, y + 1];
    for (const { y0, y1 } of active) {
      if (y0 > y) cuts.push(y0);
      if (y1 < y + 1) cuts.push(y1);
    }
    if (cuts.length > 2) cuts.sort((a, b) => a - b);
    for (let k = 0; k + 1 < cuts.length; k++)
      if (cuts[k + 1]! > cuts[k]!) slab(active, cuts[k]!, cuts[k + 1]!, sums, w);
    let covered = 0;
    for (let x = from, at = y * w + from; x < to; x++, at++) {
      covered += sums[x]!;
      // what lies apart may still share a pixel
      if (covered > NOTHING) out[at] = Math.min(1, out[at]! + Math.min(1, covered));
    }
    sums.fill(0, from, to + 3);
  }
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

/** Edges of a slab from left to right: where each is at its top, its bottom and its middle, and how it winds. */
let places = new Float64Array(4 * 64);
function slab(active: readonly Edge[], top: number, bottom: number, sums: Float64Array, w: number): void {
  const middle = (top + bottom) / 2;
  if (places.length < 4 * active.length) places = new Float64Array(8 * active.length);
  let count = 0;
  for (const edge of active) {
    if (edge.y0 > top || edge.y1 < bottom) continue;
    const m = xAt(edge, middle);
    let i = 4 * count++;
    for (; i > 0 && places[i - 2]! > m; i -= 4) places.copyWithin(i, i - 4, i);
    places[i] = xAt(edge, top);
    places[i + 1] = xAt(edge, bottom);
    places[i + 2] = m;
    places[i + 3] = edge.winding;
  }
  let crossing = false;
  for (let i = 4; i < 4 * count && !crossing; i += 4)
    crossing = places[i - 4]! > places[i]! + 1e-9 || places[i - 3]! > places[i + 1]! + 1e-9;
  if (crossing && bottom - top > THINNEST) {
    slab(active, top, middle, sums, w);
    slab(active, middle, bottom, sums, w);
    return;
  }
  let winding = 0;
  for (let i = 0; i < 4 * count; i += 4) {
    const before = winding;
    winding += places[i + 3]!;
    if (before === 0 && winding !== 0) addEdge(places[i]!, places[i + 1]!, bottom - top, sums, w);
    else if (before !== 0 && winding === 0) addEdge(places[i]!, places[i + 1]!, top - bottom, sums, w);
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
