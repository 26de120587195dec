// Lines along a path, as rings to be filled by the non-zero rule.
import type { Ring } from './path';

export interface Stroke {
  /** pixels */
  width: number;
  /** how far of the width lies on either side: −1 all of it left of the way, 0 half on each, 1 all right */
  lies: number;
  cap: 'flat' | 'round' | 'square';
  join: 'mitre' | 'round' | 'bevel';
  /** length of a dash and of the gap after it, pixels; a dash of 0 is an unbroken line */
  dash: number;
  gap: number;
  /** part of the whole length that is there, 0…1, moved along by `shift` */
  from: number;
  to: number;
  shift: number;
  /** share of what is there over which each end gets thinner, 0…0.5 */
  taper: number;
  /** what the ends that get thinner are those of, where only a piece of it is drawn */
  thinned?: { from: number; to: number };
}
/** Points on a way with how far along it each lies. */
interface Way {
  x: number[];
  y: number[];
  at: number[];
  closed: boolean;
}
/** How far an arc's chord may lie off it, in pixels. */
const GAP = 0.02;
/** A mitre is at most this many half widths long; sharper corners are cut. */
const MITRE = 4;
/** Along a line that gets thinner its width is looked at so many times. */
const TAPER_STEPS = 24;

/** @param ring x and y of the points of a way, in pixels @param closed whether it comes back to its beginning */
export function strokeRings(ring: Ring, closed: boolean, stroke: Stroke): Ring[] {
  const way = wayOf(ring, closed);
  const length = way.at.at(-1) ?? 0;
  const [from, to] = [Math.min(stroke.from, stroke.to), Math.max(stroke.from, stroke.to)];
  if (!(length > 0) || !(stroke.width > 0) || to - from <= 0) return [];
  const whole = closed && to - from >= 1 && !stroke.dash;
  if (whole && !stroke.taper) return closedRings(way, stroke);
  return spans(from * length, to * length, stroke).flatMap(([a, b]) => {
    const ends = stroke.thinned ?? { from, to };
    const share = (v: number): number => (v / length - ends.from) / (ends.to - ends.from);
    const wide = (v: number): number => tapered(share(v), stroke.taper);
    const part = partOf(way, length, a + stroke.shift * length, b + stroke.shift * length, stroke.taper > 0);
    return part.map((piece) => openRing(piece, stroke, (v) => wide(v - stroke.shift * length)));
  });
}

/** How thick a line is at a share of what is there of it. */
const tapered = (share: number, taper: number): number =>
  taper > 0 ? Math.min(1, Math.max(0, share / taper), Math.max(0, (1 - share) / taper)) : 1;

/** The dashes between two places, or all of it. */
function spans(from: number, to: number, { dash, gap }: Stroke): [number, number][] {
  if (!(dash > 0) || !(gap > 0)) return [[from, to]];
  const out: [number, number][] = [];
  // dashes stay where they are while a line is drawn
  for (let at = Math.floor(from / (dash + gap)) * (dash + gap); at < to && out.length < 10_000; at += dash + gap)
    if (at + dash > from) out.push([Math.max(from, at), Math.min(to, at + dash)]);
  return out;
}

function wayOf(ring: Ring, closed: boolean): Way {
  const way: Way = { x: [], y: [], at: [], closed };
  const count = ring.length / 2 + (closed ? 1 : 0);
  for (let i = 0; i < count; i++) {
    const k = (2 * i) % ring.length;
    const last = way.x.length - 1;
    const step = last < 0 ? 0 : Math.hypot(ring[k]! - way.x[last]!, ring[k + 1]! - way.y[last]!);
    if (last >= 0 && step < 1e-9) continue;
    way.x.push(ring[k]!);
    way.y.push(ring[k + 1]!);
    way.at.push(last < 0 ? 0 : way.at[last]! + step);
  }
  return way;
}

/** The pieces of a way between two places along it; on a closed one it goes on past the beginning. @param dense also points between, for a width that changes */
function partOf(way: Way, length: number, from: number, to: number, dense: boolean): Way[] {
  if (!way.closed) return [cut(way, Math.max(0, from), Math.min(length, to), 0, dense)].filter(({ x }) => x.length > 1);
  const turns = Math.floor(from / length);
  const first = from - turns * length;
  const last = Math.min(to - turns * length, first + length);
  const offset = turns * length;
  if (last <= length) return [cut(way, first, last, offset, dense)].filter(({ x }) => x.length > 1);
  const [a, b] = [cut(way, first, length, offset, dense), cut(way, 0, last - length, offset + length, dense)];
  return [
    { x: [...a.x, ...b.x.slice(1)], y: [...a.y, ...b.y.slice(1)], at: [...a.at, ...b.at.slice(1)], closed: false },
  ];
}

function cut(way: Way, from: number, to: number, offset: number, dense: boolean): Way {
  const out: Way = { x: [], y: [], at: [], closed: false };
  if (to <= from) return out;
  const put = (at: number): void => {
    let i = 1;
    let high = way.at.length - 1;
    while (i < high) {
      const middle = (i + high) >> 1;
      if (way.at[middle]! < at) i = middle + 1;
      else high = middle;
    }
    const t = (at - way.at[i - 1]!) / (way.at[i]! - way.at[i - 1]!);
    out.x.push(way.x[i - 1]! + (way.x[i]! - way.x[i - 1]!) * t);
    out.y.push(way.y[i - 1]! + (way.y[i]! - way.y[i - 1]!) * t);
    out.at.push(at + offset);
  };
  const stops = way.at.filter((at) => at > from + 1e-9 && at < to - 1e-9);
  if (dense) for (let k = 1; k < TAPER_STEPS; k++) stops.push(from + ((to - from) * k) / TAPER_STEPS);
  [from, ...stops.sort((a, b) => a - b), to].forEach((at, i, all) => {
    if (!i || at - all[i - 1]! > 1e-9) put(at);
  });
  return out;
}

/** Adds an arc about a place from one direction to another, clockwise for a positive turn. */
function arc(out: number[], x: number, y: number, radius: number, from: number, turn: number): void {
  const step = 2 * Math.acos(Math.max(0, 1 - GAP / Math.max(radius, GAP)));
  const count = Math.max(1, Math.ceil(Math.abs(turn) / Math.max(step, 0.05)));
  for (let k = 0; k <= count; k++) {
    const angle = from + (turn * k) / count;
    out.push(x + radius * Math.cos(angle), y + radius * Math.sin(angle));
  }
}

/** One side of a way, `off` pixels to its right (left when negative), with its corners joined. @param backwards from its end to its beginning */
function sideOf(way: Way, off: (at: number) => number, { join }: Stroke, backwards: boolean, out: number[]): void {
  const { x, y, at, closed } = way;
  const count = x.length - (closed ? 1 : 0);
  /** the way and the length of a segment */
  const direction = (i: number): [number, number, number] => {
    const k = closed ? ((i % count) + count) % count : i;
    const [dx, dy] = [x[k + 1]! - x[k]!, y[k + 1]! - y[k]!];
    const long = Math.hypot(dx, dy) || 1;
    return [dx / long, dy / long, long];
  };
  for (let k = 0; k < count; k++) {
    const i = backwards ? count - 1 - k : k;
    const o = off(at[i]!);
    const before = closed || i > 0 ? direction(i - 1) : null;
    const after = closed || i < x.length - 1 ? direction(i) : null;
    // of the two segments here, the one that is come to first
    const [one, two] = backwards ? [after ?? before!, before ?? after!] : [before ?? after!, after ?? before!];
    const put = ([dx, dy]: readonly [number, number, number]): void => void out.push(x[i]! - dy * o, y[i]! + dx * o);
    const cross = one[0] * two[1] - one[1] * two[0];
    const dot = one[0] * two[0] + one[1] * two[1];
    const outside = (backwards ? -cross : cross) * o < 0 || dot < -0.9999;
    if (Math.abs(cross) < 1e-9 && dot > 0) {
      put(one);
      continue;
    }
    const half = Math.sqrt(Math.max(0, (1 + dot) / 2)); // cosine of half the corner's turn
    const meet = (): void => {
      const [mx, my] = [one[0] + two[0], one[1] + two[1]];
      const long = Math.hypot(mx, my);
      out.push(x[i]! - ((my / long) * o) / half, y[i]! + ((mx / long) * o) / half);
    };
    if (!outside) {
      // both sides meet within the line when its segments are long enough; otherwise it goes by the corner, and what overlaps lies inside
      const back = (Math.abs(o) * Math.sqrt(Math.max(0, 1 - half * half))) / half;
      if (back < Math.min(one[2], two[2])) meet();
      else {
        put(one);
        out.push(x[i]!, y[i]!);
        put(two);
      }
      continue;
    }
    if (join === 'mitre' && half > 1 / MITRE) meet();
    else if (join === 'round') {
      const from = Math.atan2(one[0] * Math.sign(o), -one[1] * Math.sign(o));
      const turn = Math.atan2(cross, dot);
      arc(out, x[i]!, y[i]!, Math.abs(o), from, turn);
    } else {
      put(one);
      put(two);
    }
  }
}

/** Both sides of a closed way: two rings that wind against each other. */
function closedRings(way: Way, stroke: Stroke): Ring[] {
  const { width, lies } = stroke;
  return [1, -1].map((side) => {
    const off = ((lies + side) * width) / 2;
    const out: number[] = [];
    sideOf(way, () => off, stroke, side < 0, out);
    return Float64Array.from(out);
  });
}

/** Both sides of an open way with caps, as one ring. @param wide share of the width at a place along it */
function openRing(way: Way, stroke: Stroke, wide: (at: number) => number): Ring {
  const { width, lies, cap } = stroke;
  const out: number[] = [];
  const end = way.x.length - 1;
  const angleAt = (i: number): number => Math.atan2(way.y[i + 1]! - way.y[i]!, way.x[i + 1]! - way.x[i]!);
  const capAt = (i: number, angle: number): void => {
    const radius = (width * wide(way.at[i]!)) / 2;
    const middle = lies * radius;
    const x = way.x[i]! - Math.sin(angle) * middle * (i ? 1 : -1);
    const y = way.y[i]! + Math.cos(angle) * middle * (i ? 1 : -1);
    if (cap === 'round') arc(out, x, y, radius, angle + Math.PI / 2, -Math.PI);
    else if (cap === 'square')
      for (const side of [1, -1])
        out.push(
          x + radius * (Math.cos(angle) - side * Math.sin(angle)),
          y + radius * (Math.sin(angle) + side * Math.cos(angle)),
        );
  };
  sideOf(way, (at) => ((lies + 1) * width * wide(at)) / 2, stroke, false, out);
  capAt(end, angleAt(end - 1));
  sideOf(way, (at) => ((lies - 1) * width * wide(at)) / 2, stroke, true, out);
  capAt(0, angleAt(0) + Math.PI);
  return Float64Array.from(out);
}
