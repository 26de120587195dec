import type { Ring } from './path';

/** Coverage below this is what rounding leaves. */
const NOTHING = 1e-6;
/** Slabs in which edges cross are halved until they are this thin. */
const THINNEST = 1 / 128;

/**
 * Coverage of closed rings by the non-zero rule: the exact area of each pixel that is inside. Rings that lie apart are done by
 * themselves. Where edges share columns of a row it is cut into slabs in which none begins, ends or crosses another; only the
 * outline of the filled parts is summed up.
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
  const seen = rings
    .filter(({ length }) => length >= 6)
    .map(boxed)
    .filter(({ low, high }) => low[0] < w && low[1] < h && high[0] > 0 && high[1] > 0);
  for (const group of apart(seen)) fillGroup(group, { out, sums, w, h, strength });
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
/** Edges that cross the plane, level ones too, in the order of the rows in which they begin. */
function edgesOf(group: readonly Boxed[], h: number): Float64Array {
  const most = group.reduce((sum, { ring }) => sum + ring.length / 2, 0);
  const loose = new Float64Array(most * EDGE);
  let count = 0;
  for (const { ring } of group) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
      if (Math.max(y0, y1) <= 0 || Math.min(y0, y1) >= h) continue;
      const at = count++ * EDGE;
      const down = y0 < y1;
      loose[at] = down ? x0 : x1;
      loose[at + 1] = down ? y0 : y1;
      loose[at + 2] = down ? x1 : x0;
      loose[at + 3] = down ? y1 : y0;
      loose[at + 4] = down ? 1 : -1;
    }
  }
  // by the rows in which they begin: how many begin before each, then each to its place
  const begin = new Int32Array(h + 1);
  const rowOf = (at: number): number => Math.max(0, Math.floor(loose[at + 1]!));
  for (let i = 0; i < count; i++) begin[rowOf(i * EDGE) + 1]!++;
  for (let y = 0; y < h; y++) begin[y + 1]! += begin[y]!;
  const edges = new Float64Array(count * EDGE);
  for (let i = 0; i < count; i++) {
    const to = begin[rowOf(i * EDGE)]!++ * EDGE;
    for (let k = 0; k < EDGE; k++) edges[to + k] = loose[i * EDGE + k]!;
  }
  return edges;
}

/** Room for the edges that cross a row, by where they begin among all; for a few of them that lie close together; and for where these are cut. */
let active = new Int32Array(256);
let close = new Int32Array(256);
let cuts = new Float64Array(512);
/** Numbers of the piece of an edge in a row: its left and right end, where it is at its top and bottom, its height. */
const PIECE = 5;
let pieces = new Float64Array(256 * PIECE);
/** Pieces of a row from left to right. */
let order = new Int32Array(256);
function makeRoom(edges: number): void {
  if (active.length >= edges) return;
  [active, close, order] = [new Int32Array(2 * edges), new Int32Array(2 * edges), new Int32Array(2 * edges)];
  [cuts, pieces] = [new Float64Array(4 * edges + 4), new Float64Array(2 * edges * PIECE)];
}
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
  makeRoom(edges.length / EDGE);
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
    sumRow(edges, count, y, sums, w);
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

/** Edges whose ends are this near to each other may touch. */
const TOUCH = 1e-9;
/**
 * Adds a row's edges to its running sums. Where no edge passes, the whole row is wound alike; between two such places there is
 * one line from the row's top to its bottom, or what has to be cut into slabs. @param count of the active edges
 */
function sumRow(edges: Float64Array, count: number, y: number, sums: Float64Array, w: number): void {
  for (let k = 0; k < count; k++) {
    const e = active[k]!;
    const [top, bottom] = [Math.max(y, edges[e + 1]!), Math.min(y + 1, edges[e + 3]!)];
    const tall = edges[e + 3]! - edges[e + 1]!;
    const slope = tall > 0 ? (edges[e + 2]! - edges[e]!) / tall : 0;
    const a = edges[e]! + slope * (top - edges[e + 1]!);
    const b = tall > 0 ? edges[e]! + slope * (bottom - edges[e + 1]!) : edges[e + 2]!;
    const at = k * PIECE;
    pieces[at] = a < b ? a : b;
    pieces[at + 1] = a < b ? b : a;
    pieces[at + 2] = a;
    pieces[at + 3] = b;
    pieces[at + 4] = bottom - top;
    let i = k;
    for (; i > 0 && pieces[order[i - 1]! * PIECE]! > pieces[at]!; i--) order[i] = order[i - 1]!;
    order[i] = k;
  }
  let winding = 0;
  for (let first = 0, last = 0; first < count; first = last) {
    let right = pieces[order[first]! * PIECE + 1]!;
    let [tall, turned] = [0, 0];
    for (; last < count && pieces[order[last]! * PIECE]! <= right + TOUCH; last++) {
      const k = order[last]!;
      right = Math.max(right, pieces[k * PIECE + 1]!);
      tall += pieces[k * PIECE + 4]!;
      turned += edges[active[k]! + 4]! * pieces[k * PIECE + 4]!;
    }
    const after = winding + Math.round(turned);
    if (tall < 1 + TOUCH && Math.abs(turned) > 1 - TOUCH) {
      const sign = winding === 0 ? 1 : after === 0 ? -1 : 0;
      for (let i = first; sign && i < last; i++) {
        const at = order[i]! * PIECE;
        addEdge(pieces[at + 2]!, pieces[at + 3]!, sign * pieces[at + 4]!, sums, w);
      }
    } else slabs(edges, first, last, y, winding, sums, w);
    winding = after;
  }
}

/** Cuts a row, as far as some of its pieces reach, where their edges begin or end. @param winding left of them */
function slabs(
  edges: Float64Array,
  first: number,
  last: number,
  y: number,
  winding: number,
  sums: Float64Array,
  w: number,
): void {
  const count = last - first;
  cuts[0] = y;
  cuts[1] = y + 1;
  let places = 2;
  for (let i = 0; i < count; i++) {
    const e = (close[i] = active[order[first + i]!]!);
    if (edges[e + 1]! > y) insert(cuts, places++, edges[e + 1]!);
    if (edges[e + 3]! < y + 1) insert(cuts, places++, edges[e + 3]!);
  }
  for (let k = 0; k + 1 < places; k++)
    if (cuts[k + 1]! > cuts[k]!) slab(edges, count, cuts[k]!, cuts[k + 1]!, winding, sums, w);
}

/** Edges of a slab from left to right: where each is at its top, its bottom and its middle, and how it winds. */
let places = new Float64Array(4 * 64);
/** @param count of the edges that are close @param before how it winds left of them */
function slab(
  edges: Float64Array,
  count: number,
  top: number,
  bottom: number,
  before: number,
  sums: Float64Array,
  w: number,
): void {
  const middle = (top + bottom) / 2;
  if (places.length < 4 * count) places = new Float64Array(8 * count);
  let here = 0;
  for (let k = 0; k < count; k++) {
    const e = close[k]!;
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
    slab(edges, count, top, middle, before, sums, w);
    slab(edges, count, middle, bottom, before, sums, w);
    return;
  }
  let winding = before;
  for (let i = 0; i < 4 * here; i += 4) {
    const left = winding;
    winding += places[i + 3]!;
    if (left === 0 && winding !== 0) addEdge(places[i]!, places[i + 1]!, bottom - top, sums, w);
    else if (left !== 0 && winding === 0) addEdge(places[i]!, places[i + 1]!, top - bottom, sums, w);
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
