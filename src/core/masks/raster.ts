import type { Ring } from './path';

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
  fillOnto(out, rings, w, h, 1);
  return out;
}

/** The same added to a plane that covers something already. @param strength what the inside of the rings is worth, 0…1 */
export function fillOnto(out: Float32Array, rings: readonly Ring[], w: number, h: number, strength: number): void {
  const sums = new Float64Array(w + 3);
  for (const group of apart(rings.filter(({ length }) => length >= 6).map(boxed)))
    fillGroup(group, { out, sums, w, h, strength });
}

/** What rings are filled into. */
interface Plane {
  out: Float32Array;
  /** a row of running sums, all 0 between rows */
  sums: Float64Array;
  w: number;
  h: number;
  strength: number;
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

/** Numbers of an edge: its upper end, its lower end, and how it winds: +1 downwards in the ring, −1 upwards. */
const EDGE = 5;
/** Edges that cross the plane, the uppermost first. */
function edgesOf(group: readonly Boxed[], h: number): Float64Array {
  const most = group.reduce((sum, { ring }) => sum + ring.length / 2, 0);
  const loose = new Float64Array(most * EDGE);
  let count = 0;
  for (const { ring } of group) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
      if (y0 === y1 || Math.max(y0, y1) <= 0 || Math.min(y0, y1) >= h) continue;
      const at = count++ * EDGE;
      const down = y0 < y1;
      loose[at] = down ? x0 : x1;
      loose[at + 1] = down ? y0 : y1;
      loose[at + 2] = down ? x1 : x0;
      loose[at + 3] = down ? y1 : y0;
      loose[at + 4] = down ? 1 : -1;
    }
  }
  const order = Int32Array.from({ length: count }, (_, i) => i * EDGE).sort((p, q) => loose[p + 1]! - loose[q + 1]!);
  const edges = new Float64Array(count * EDGE);
  for (let i = 0; i < count; i++) for (let k = 0; k < EDGE; k++) edges[i * EDGE + k] = loose[order[i]! + k]!;
  return edges;
}

/** Room for the edges that cross a row, by where they begin among all; and for where a row is cut. */
let active = new Int32Array(256);
let cuts = new Float64Array(512);
/** Puts a number into an ascending list of `count` numbers. */
function insert(list: Float64Array, count: number, v: number): void {
  let i = count;
  for (; i > 0 && list[i - 1]! > v; i--) list[i] = list[i - 1]!;
  list[i] = v;
}

function fillGroup(group: readonly Boxed[], { out, sums, w, h, strength }: Plane): void {
  const edges = edgesOf(group, h);
  const from = Math.max(0, Math.floor(Math.min(...group.map(({ low }) => low[0]))));
  const to = Math.min(w, Math.ceil(Math.max(...group.map(({ high }) => high[0]))) + 1);
  if (!edges.length || from >= to) return;
  const all = edges.length / EDGE;
  if (active.length < all) [active, cuts] = [new Int32Array(2 * all), new Float64Array(4 * all + 4)];
  let next = 0;
  let count = 0;
  for (let y = Math.max(0, Math.floor(edges[1]!)); y < h; y++) {
    for (; next < edges.length && edges[next + 1]! < y + 1; next += EDGE) active[count++] = next;
    let left = 0;
    for (let i = 0; i < count; i++) if (edges[active[i]! + 3]! > y) active[left++] = active[i]!;
    count = left;
    if (!count) {
      if (next >= edges.length) break;
      continue;
    }
    cuts[0] = y;
    cuts[1] = y + 1;
    let places = 2;
    for (let i = 0; i < count; i++) {
      const e = active[i]!;
      if (edges[e + 1]! > y) insert(cuts, places++, edges[e + 1]!);
      if (edges[e + 3]! < y + 1) insert(cuts, places++, edges[e + 3]!);
    }
    for (let k = 0; k + 1 < places; k++)
      if (cuts[k + 1]! > cuts[k]!) slab(edges, count, cuts[k]!, cuts[k + 1]!, sums, w);
    let covered = 0;
    for (let x = from, at = y * w + from; x < to; x++, at++) {
      covered += sums[x]!;
      if (covered <= NOTHING) continue;
      const there = out[at]!;
      const share = Math.min(1, covered);
      // solid parts that lie apart share a pixel; half clear ones lie over each other
      out[at] = strength < 1 ? there + strength * share * (1 - there) : Math.min(1, there + share);
    }
    sums.fill(0, from, to + 3);
  }
}

/** Edges of a slab from left to right: where each is at its top, its bottom and its middle, and how it winds. */
let places = new Float64Array(4 * 64);
/** @param count of the active edges */
function slab(edges: Float64Array, count: number, top: number, bottom: number, sums: Float64Array, w: number): void {
  const middle = (top + bottom) / 2;
  if (places.length < 4 * count) places = new Float64Array(8 * count);
  let here = 0;
  for (let k = 0; k < count; k++) {
    const e = active[k]!;
    const [y0, y1] = [edges[e + 1]!, edges[e + 3]!];
    if (y0 > top || y1 < bottom) continue;
    const x0 = edges[e]!;
    const slope = (edges[e + 2]! - x0) / (y1 - y0);
    const m = x0 + slope * (middle - y0);
    let i = 4 * here++;
    for (; i > 0 && places[i - 2]! > m; i -= 4) {
      places[i] = places[i - 4]!;
      places[i + 1] = places[i - 3]!;
      places[i + 2] = places[i - 2]!;
      places[i + 3] = places[i - 1]!;
    }
    places[i] = x0 + slope * (top - y0);
    places[i + 1] = x0 + slope * (bottom - y0);
    places[i + 2] = m;
    places[i + 3] = edges[e + 4]!;
  }
  let crossing = false;
  for (let i = 4; i < 4 * here && !crossing; i += 4)
    crossing = places[i - 4]! > places[i]! + 1e-9 || places[i - 3]! > places[i + 1]! + 1e-9;
  if (crossing && bottom - top > THINNEST) {
    slab(edges, count, top, middle, sums, w);
    slab(edges, count, middle, bottom, sums, w);
    return;
  }
  let winding = 0;
  for (let i = 0; i < 4 * here; i += 4) {
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
