// One picture matched to another: values of Wheels and Colour that bring its colours to lie as the other's do.
import { labOf } from '../picture/difference';
import { wheeled, type Wheel } from '../base/wheeled';
import { solve } from '../track/solve';

type Triple = readonly [number, number, number];
/** Colours of a picture, display-encoded 0…1, as many as are looked at. */
export type MatchColours = readonly Triple[];

/** The values that match. */
export interface Matched {
  lift: Wheel;
  gamma: Wheel;
  gain: Wheel;
  saturation: number;
}
/** How well it went: mean distances of the colours as wholes, in ΔE (CIELAB). */
export interface Match {
  values: Matched;
  before: number;
  after: number;
  /** how far both show the same things, 0…1 */
  alike: number;
}

/** Colours that are looked at. */
const LOOKED = 500;
/** Fewest that say anything, and the alpha from which on one counts, of 255. */
const FEW = 40;
const SOLID = 250;

/** @param data straight 8-bit RGBA @returns null when too little of it is solid */
export function coloursOf(data: Uint8Array | Uint8ClampedArray): MatchColours | null {
  let solid = 0;
  for (let i = 3; i < data.length; i += 4) if (data[i]! >= SOLID) solid++;
  if (solid < FEW) return null;
  // every so many of them
  const count = Math.min(LOOKED, solid);
  const colours: Triple[] = [];
  for (let i = 0, met = 0; colours.length < count; i += 4) {
    if (data[i + 3]! < SOLID) continue;
    if (met++ === Math.floor(((colours.length + 0.5) * solid) / count))
      colours.push([data[i]! / 255, data[i + 1]! / 255, data[i + 2]! / 255]);
  }
  return colours;
}

/** Directions of CIELAB along which the colours are compared: brightness, the two of colour, and between them. */
const WAYS: readonly Triple[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
  [0, 0.7071, 0.7071],
  [0, 0.7071, -0.7071],
  [0.7071, 0.7071, 0],
  [0.7071, -0.7071, 0],
  [0.7071, 0, 0.7071],
  [0.7071, 0, -0.7071],
];
/** Shares of the picture at which they are compared along each. */
const RANKS = 48;

/** How colours lie: along each way, what so much of them lies below. */
function spread(colours: MatchColours): number[] {
  const labs = colours.map(labOf);
  return WAYS.flatMap(([l, a, b]) => {
    const along = Float64Array.from(labs, (lab) => l * lab[0] + a * lab[1] + b * lab[2]).sort();
    return Array.from({ length: RANKS }, (_, i) => {
      const at = ((i + 0.5) / RANKS) * (along.length - 1);
      const low = Math.floor(at);
      return along[low]! + (along[Math.min(along.length - 1, low + 1)]! - along[low]!) * (at - low);
    });
  });
}

/** Numbers that are searched for: x, y and level of lift, gamma and gain, and the saturation's logarithm. */
const NUMBERS = 10;
/** How far each of them usually goes. */
const USUAL = [0.35, 0.35, 0.3, 0.35, 0.35, 0.5, 0.35, 0.35, 0.4, 0.5];
/** In what of the tones a match is made. */
export type MatchPart = 'all' | 'dark' | 'middle' | 'bright';
/** What of them may move when only a part of the tones is matched. */
const PARTS: Record<MatchPart, readonly number[]> = {
  all: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9],
  dark: [0, 1, 2],
  middle: [3, 4, 5],
  bright: [6, 7, 8],
};
const valuesOf = (p: readonly number[]): Matched => ({
  lift: [p[0]!, p[1]!, p[2]!],
  gamma: [p[3]!, p[4]!, p[5]!],
  gain: [p[6]!, p[7]!, p[8]!],
  saturation: Math.exp(p[9]!),
});
const NONE: Wheel = [0, 0, 0];

/** So much of the way, as dials are written. @param strength 0…1 */
export function partOfWay({ lift, gamma, gain, saturation }: Matched, strength: number): Matched {
  const round = (v: number): number => Math.round(v * 1000) / 1000 + 0;
  const way = (wheel: Wheel): Wheel => wheel.map((v) => round(v * strength)) as unknown as Wheel;
  return { lift: way(lift), gamma: way(gamma), gain: way(gain), saturation: round(1 + (saturation - 1) * strength) };
}

/** What the values make of a colour. */
export function matched(colour: Triple, { lift, gamma, gain, saturation }: Matched): Triple {
  const wheels = { lift, gamma, gain, offset: NONE, liftTo: 1, gainFrom: 0 };
  const [r, g, b] = colour.map((v, c) => wheeled(c as 0 | 1 | 2, wheels)(v)) as unknown as Triple;
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  return [r, g, b].map((v) => Math.min(1, Math.max(0, luma + (v - luma) * saturation))) as unknown as Triple;
}

const ROUNDS = 14;
/** Weight of staying near to nothing, against ΔE: where both pictures show the same things, and where they do not. */
const REST = { alike: 0.6, unlike: 16 };
/** What a free fit leaves of the distance, from where on the pictures count as less and less alike, and as unlike. */
const LEFT = { alike: 0.2, unlike: 0.38 };

/**
 * The values that bring one picture's colours to lie as another's. How well that can be done at all tells whether both show the same things;
 * the less they do, the more of the difference is theirs and no fault of the light, and the less far the match goes.
 */
export function matchTo(own: MatchColours, other: MatchColours, part: MatchPart = 'all'): Match {
  const free = fitted(own, other, REST.alike, part);
  const left = free.after / Math.max(1e-6, free.before);
  const unlike = Math.min(1, Math.max(0, (left - LEFT.alike) / (LEFT.unlike - LEFT.alike)));
  // near to nothing, what is left is chance
  if (unlike === 0 || free.before < NOTHING) return { ...free, alike: 1 };
  return { ...fitted(own, other, REST.alike * (REST.unlike / REST.alike) ** unlike, part), alike: 1 - unlike };
}
/** Two samples of the very same colours lie this far apart, ΔE. */
const NOTHING = 1;

/** By Gauss and Newton's steps, damped after Levenberg, on where shares of the colours lie. @param rest weight of small values */
function fitted(own: MatchColours, other: MatchColours, rest: number, part: MatchPart): Omit<Match, 'alike'> {
  const goal = spread(other);
  const scale = 1 / Math.sqrt(goal.length);
  const residuals = (p: readonly number[]): number[] => [
    ...spread(own.map((colour) => matched(colour, valuesOf(p)))).map((v, i) => (v - goal[i]!) * scale),
    ...p.map((v, i) => (rest * v) / USUAL[i]!),
  ];
  const cost = (r: readonly number[]): number => r.reduce((sum, v) => sum + v * v, 0);
  let p = new Array<number>(NUMBERS).fill(0);
  let now = residuals(p);
  const first = Math.sqrt(cost(now));
  let damping = 0.05;
  for (let round = 0; round < ROUNDS; round++) {
    const columns = p.map((v, i) => {
      if (!PARTS[part].includes(i)) return now.map(() => 0);
      const step = 0.02;
      const moved = residuals(p.with(i, v + step));
      return moved.map((value, k) => (value - now[k]!) / step);
    });
    const normal = columns.map((a) => columns.map((b) => a.reduce((sum, v, k) => sum + v * b[k]!, 0)));
    const right = columns.map((a) => -a.reduce((sum, v, k) => sum + v * now[k]!, 0));
    // each row with its right side
    const rows = normal.flatMap((row, i) => [
      ...row.map((v, j) => (i === j ? v * (1 + damping) + 1e-6 : v)),
      right[i]!,
    ]);
    const by = solve(rows, NUMBERS);
    if (!by) break;
    const next = p.map((v, i) => Math.min(i === 9 ? 0.8 : 1, Math.max(i === 9 ? -0.8 : -1, v + by[i]!)));
    const there = residuals(next);
    if (cost(there) < cost(now)) {
      const gained = cost(now) - cost(there);
      p = next;
      now = there;
      damping = Math.max(1e-3, damping / 3);
      if (gained < 1e-4) break;
    } else damping *= 4;
  }
  const left = Math.sqrt(cost(now.slice(0, goal.length)));
  return { values: valuesOf(p), before: first, after: left };
}
