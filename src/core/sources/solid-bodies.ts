// The bodies of a solid title: extruded once for what they are made of, and posed for each frame.
import { LRUCache } from 'lru-cache';
import { boundsOf, shifted, type Ring } from '../masks/path';
import { thinned } from '../masks/thinned';
import type { Body } from '../solids/body';
import { platesOf, strokeOf } from '../solids/rings';
import { movedBy, sized, then, turned, type PosedBody } from '../solids/seen';
import { arrivals, type Arrival, type Letter } from '../text/arrival';
import type { LineStyle } from '../text/fonts';
import { setLines, type Setting } from '../text/layout';
import type { SourceTools } from './define';
import { waysOf, type Form } from './figure';

/** What a solid title is, in pixels and degrees. */
export interface Solid extends Form, Arrival {
  of: string;
  text: string;
  letter: number;
  deep: number;
  grows: 'away' | 'towards' | 'both';
  bevel: number;
  tip: number;
  swing: number;
  roll: number;
  z: number;
  startSize: number;
  startSwing: number;
}
export const linesIn = (v: { text: string }): string[] => v.text.split(/\r?\n/);
export const styleOf = (v: object): LineStyle => v as LineStyle;

let library: typeof import('../solids/extrude') | undefined;
/** Fetches what gives outlines depth. */
export async function loadExtrusion(): Promise<void> {
  library ??= await import('../solids/extrude');
}

/** Bodies by what they are made of, each about its own middle. */
interface Part extends Letter {
  body: Body;
  middle: readonly [number, number];
}
/** How far the outline of a body may be off, in pixels; more for very many points. */
const OFF = 0.1;
const COARSEST = 16;
/** Most points of all outlines: each becomes some ten triangles. */
export const MOST_POINTS = 30_000;
/** So much of the width of a stroke may be cut off on each side. */
const MOST_BEVEL = 0.25;
/** Most bytes of bodies held. */
const HELD = 64e6;
const held = new LRUCache<string, Part[]>({
  maxSize: HELD,
  sizeCalculation: (parts) => 1 + parts.reduce((sum, { body }) => sum + 73 * body.parts.length, 0),
});

function partsOf(v: Solid, tools: SourceTools): Part[] {
  const { of, bevel, letter, paths } = v;
  const { align, leading } = v as unknown as Setting;
  const { font, weight, tracking } = styleOf(v);
  const figure = [v.width, v.height, v.radius, v.corners, v.inner, v.head, v.shaft];
  const made = of === 'text' ? [v.text, font, weight, tracking, letter, align, leading] : [figure, paths];
  const key = JSON.stringify([of, bevel, made]);
  const known = held.get(key);
  if (known) return known;
  const outlined = (of === 'text' ? lettersOf(v, tools) : [figureOf(v)]).filter(({ rings }) => rings.length);
  const fine = thinEnough(outlined.map(({ rings }) => rings));
  const parts = outlined.map((one, i) => {
    const [left, top, right, bottom] = boundsOf(one.rings);
    const middle = [(left + right) / 2, (top + bottom) / 2] as const;
    const plates = platesOf(shifted(fine[i]!, -middle[0], -middle[1]), of === 'text');
    return { ...one, middle, body: library!.extruded(plates, Math.min(bevel, MOST_BEVEL * strokeOf(plates))) };
  });
  held.set(key, parts);
  return parts;
}
function lettersOf(v: Solid, { line }: SourceTools): Letter[] {
  const texts = linesIn(v);
  const lines = texts.map((one) => line(one, styleOf(v)));
  return setLines(lines, texts, { ...(v as unknown as Setting), height: v.letter, shown: 1 });
}
function figureOf(v: Solid): Letter {
  const rings = waysOf({ ...v, form: v.of }).flatMap(({ ring, closed }) => (closed ? [ring] : []));
  return { rings, letter: 0, word: 0, line: 0 };
}
/** Outlines with no more points than they need, and all together no more than can be drawn. */
export function thinEnough(outlines: readonly (readonly Ring[])[]): Ring[][] {
  for (let off = OFF; ; off *= 2) {
    const thin = outlines.map((rings) => rings.map((ring) => thinned(ring, off)));
    const points = thin.flat().reduce((sum, ring) => sum + ring.length / 2, 0);
    if (points <= MOST_POINTS || off > COARSEST) return thin;
  }
}

/** The bodies where they stand at the moment, as far as they have come. */
export function posedBodies(v: Solid, tools: SourceTools): PosedBody[] {
  const parts = partsOf(v, tools);
  const come = v.of === 'text' && v.done < 1 ? arrivals(parts, v) : parts.map(() => 1);
  const back = { away: -v.deep, towards: 0, both: -v.deep / 2 }[v.grows];
  const stands = turned(v.roll, v.tip, v.swing);
  return parts.flatMap(({ body, middle: [mx, my] }, i) => {
    const left = 1 - come[i]!;
    const size = v.startSize + (1 - v.startSize) * come[i]!;
    if (size <= 0) return [];
    const within = back + v.deep / 2;
    const own = [
      movedBy(0, 0, -v.deep / 2),
      sized(size),
      turned(v.turn * left, 0, v.startSwing * left),
      movedBy(mx + v.x * left, my + v.y * left, within + v.z * left),
      stands,
    ].reduce(then);
    return [{ body, depth: v.deep, pose: own }];
  });
}
