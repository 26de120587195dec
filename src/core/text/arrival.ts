// Letters, words or lines of a text that come one after the other.
import { lotOf } from '../base/lot';
import { boundsOf, type Ring } from '../masks/path';

/** A letter where it stands, with what it belongs to. */
export interface Letter {
  /** pixels about the middle of the text */
  rings: readonly Ring[];
  /** counted through the whole text */
  letter: number;
  word: number;
  line: number;
}
export type Unit = 'letter' | 'word' | 'line';

/** How the parts of a text come: each from where it begins to where it stands. */
export interface Arrival {
  by: Unit;
  order: 'forwards' | 'backwards' | 'middle' | 'lot';
  seed: number;
  /** 0 nothing has come, 1 all of it */
  done: number;
  /** share of the whole time that each part takes, 0…1: 0 one after the other at once, 1 all together */
  overlap: number;
  /** where each begins, from where it stands, in pixels */
  x: number;
  y: number;
  /** what size it begins with; 1 = its own */
  size: number;
  /** degrees that it is turned by */
  turn: number;
  opacity: number;
  /** how blurred it is at first, in pixels (sigma), and how far its letters are drawn apart, in pixels from one to the next */
  blur?: number;
  apart?: number;
}
/** Outlines that have come equally far. */
export interface Piece {
  rings: Ring[];
  opacity: number;
  /** 0 as it begins, 1 where it belongs */
  come: number;
  /** sigma in pixels */
  blur: number;
}

/** When each of some parts has its turn: 0 the first, 1 the last. */
export function turns(count: number, order: Arrival['order'], seed: number): number[] {
  const last = Math.max(1, count - 1);
  if (order === 'forwards') return Array.from({ length: count }, (_, i) => i / last);
  if (order === 'backwards') return Array.from({ length: count }, (_, i) => (count - 1 - i) / last);
  const rank = Array.from({ length: count }, (_, i) =>
    order === 'lot' ? lotOf(i, seed) : Math.abs(i - (count - 1) / 2) + (i > (count - 1) / 2 ? 0.1 : 0),
  );
  const sorted = [...rank.keys()].sort((a, b) => rank[a]! - rank[b]!);
  const out = new Array<number>(count);
  sorted.forEach((i, place) => (out[i] = place / last));
  return out;
}

const gentle = (t: number): number => t * t * (3 - 2 * t);

/** How far each letter has come, 0…1, by what comes one after the other. What has no outlines takes no turn. */
export function arrivals(
  letters: readonly Letter[],
  { by, order, seed, done, overlap }: Pick<Arrival, 'by' | 'order' | 'seed' | 'done' | 'overlap'>,
): number[] {
  const parts = [...new Set(letters.filter(({ rings }) => rings.length).map((letter) => letter[by]))];
  const when = turns(parts.length, order, Math.round(seed));
  const wide = Math.min(1, Math.max(1e-3, overlap));
  const come = new Map(
    parts.map((part, i) => [part, gentle(Math.min(1, Math.max(0, (done - when[i]! * (1 - wide)) / wide)))]),
  );
  return letters.map((letter) => come.get(letter[by]) ?? 0);
}

/** The parts of a text as far as they have come. @returns those that are seen; ones that have come equally far together */
export function arriving(letters: readonly Letter[], arrival: Arrival): Piece[] {
  const { by, done, x, y, size, turn, opacity, blur = 0, apart = 0 } = arrival;
  if (done >= 1) return [{ rings: letters.flatMap(({ rings }) => [...rings]), opacity: 1, come: 1, blur: 0 }];
  const parts = new Map<number, { rings: Ring[]; away: number[]; come: number }>();
  const fromMiddle = apart === 0 ? () => 0 : placesInRows(letters);
  const comes = arrivals(letters, arrival);
  letters.forEach((letter, i) => {
    if (!letter.rings.length) return;
    const part = parts.get(letter[by]) ?? { rings: [], away: [], come: comes[i]! };
    part.rings.push(...letter.rings);
    part.away.push(...letter.rings.map(() => fromMiddle(letter)));
    parts.set(letter[by], part);
  });
  const pieces = new Map<number, Piece>();
  for (const { rings, away, come } of parts.values()) {
    const strength = opacity + (1 - opacity) * come;
    if (strength <= 0) continue;
    const left = 1 - come;
    const piece = pieces.get(come) ?? { rings: [], opacity: strength, come, blur: blur * left };
    const moved = left > 0 ? movedRings(rings, [x * left, y * left], size + (1 - size) * come, turn * left) : rings;
    piece.rings.push(...(apart * left ? moved.map((ring, r) => pushed(ring, away[r]! * apart * left)) : moved));
    pieces.set(come, piece);
  }
  return [...pieces.values()];
}
const pushed = (ring: Ring, dx: number): Ring => ring.map((v, i) => (i % 2 ? v : v + dx));
/** How many letters each stands from the middle of its row: 0 in the middle, negative before it. */
function placesInRows(letters: readonly Letter[]): (letter: Letter) => number {
  const rows = new Map<number, Letter[]>();
  for (const letter of letters) rows.set(letter.line, [...(rows.get(letter.line) ?? []), letter]);
  const places = new Map<Letter, number>();
  for (const row of rows.values()) row.forEach((letter, i) => places.set(letter, i - (row.length - 1) / 2));
  return (letter) => places.get(letter)!;
}

/** Rings made larger and turned about the middle of their box, then moved. */
function movedRings(
  rings: readonly Ring[],
  [dx, dy]: readonly [number, number],
  size: number,
  degrees: number,
): Ring[] {
  const [left, top, right, bottom] = boundsOf(rings);
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) * size, Math.sin(angle) * size];
  return rings.map((ring) => {
    const out = new Float64Array(ring.length);
    for (let i = 0; i < ring.length; i += 2) {
      const [u, v] = [ring[i]! - cx, ring[i + 1]! - cy];
      out[i] = cx + u * cos - v * sin + dx;
      out[i + 1] = cy + u * sin + v * cos + dy;
    }
    return out;
  });
}
