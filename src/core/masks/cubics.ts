import { cubicAt, type Point, type Ring } from './path';

/** A drawing command with absolute coordinates: M, L, C, Q or Z. */
export type Command = readonly [string, ...number[]];
/** Lines for each curve of a glyph. */
const PIECES = 12;

/** Closed rings of drawing commands. */
export function flattenCubics(commands: readonly Command[]): Ring[] {
  const rings: number[][] = [];
  let at: Point = [0, 0];
  for (const [kind, ...n] of commands) {
    const end = n.slice(-2) as unknown as Point;
    const ring = rings.at(-1);
    if (kind === 'M') rings.push([...end]);
    else if (kind === 'L') ring?.push(...end);
    else if (kind === 'C' || kind === 'Q') {
      const [a, b]: [Point, Point] =
        kind === 'C'
          ? [
              [n[0]!, n[1]!],
              [n[2]!, n[3]!],
            ]
          : [mixed(at, [n[0]!, n[1]!], 2 / 3), mixed(end, [n[0]!, n[1]!], 2 / 3)];
      for (let k = 1; k <= PIECES; k++) ring?.push(...cubicAt([at, a, b, end], k / PIECES));
    }
    if (kind !== 'Z') at = end;
  }
  return rings.filter((ring) => ring.length >= 6).map((ring) => Float64Array.from(ring));
}
const mixed = (a: Point, b: Point, t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
