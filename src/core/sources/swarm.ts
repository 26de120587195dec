// Where particles are at a moment, each computed from when it began: no frame needs those before it.
import { cosineOf, sineOf } from '../base/sine';
import { curveOf, type CurvePoint } from '../params/curve';
import type { RampStop } from '../params/ramp';
import { bornAt, countAt, rateAt, type Counts, type Spots, type Way } from './births';
import { gustsOf, type Gusts } from './gusts';
import { AGE, covers, lot, moveTo, turnsOf, varied, VX, VY, X, Y } from './swarm-moves';

export type Place = readonly [number, number];

/** What particles do; lengths in pixels, times in seconds, angles in degrees clockwise. */
export interface Swarming {
  emitter: 'point' | 'line' | 'box' | 'ellipse' | 'mask' | 'layer';
  /** from the picture's top left */
  at: Place;
  wide: number;
  high: number;
  rate: number;
  burst: number;
  /** how many are there at once, at most */
  most: number;
  before: number;
  life: number;
  lifeVaries: number;
  direction: number;
  spread: number;
  speed: number;
  speedVaries: number;
  gravity: number;
  wind: number;
  drag: number;
  wander: number;
  /** how far gusts of air take them on average, and how wide these are */
  gust: number;
  gustWide: number;
  grain: number;
  grainVaries: number;
  ends: number;
  long: number;
  spin: number;
  flutter: number;
  drawn: number;
  appears: number;
  goes: number;
  colours: readonly RampStop[];
  coloured: 'life' | 'lot';
  opacity: number;
  depth: number;
  /** how far out of focus one is that is as far as can be from where it is sharp, in pixels; and where that is, 0 nearest … 1 farthest */
  blurred: number;
  sharpAt: number;
  /** size and opacity along a life, of what they are besides */
  sized: readonly CurvePoint[];
  faded: readonly CurvePoint[];
  seed: number;
  /** what becomes of those that come down on a line, what point it goes through, and how it is tilted */
  meets: 'nothing' | 'bounce' | 'lie' | 'go';
  floor: Place;
  tilt: number;
  bounce: number;
  /** how far they may be turned as they come, to either side; and whether they point along their way */
  turned: number;
  along: boolean;
  /** how many had come when, where the rate has keyframes; where their middle was, where that has */
  counts?: Counts;
  way?: Way;
  /** where a layer is not clear, or masks cover, for those that come from there */
  spots?: Spots | null;
}

/** Most particles at once; of more the oldest are left out. */
export const MOST_AT_ONCE = 20_000;
/** Numbers of a particle, as the kernel that draws them takes them. */
export const PARTICLE = 12;

/** Shares of whole numbers by which any row of them is thinned evenly: multiples of the golden ratio without their whole part. */
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** Goes through the particles that may be there at a moment, the oldest first. */
function eachPresent(v: Swarming, seconds: number, use: (which: number, age: number) => void): void {
  const longest = v.life * (1 + v.lifeVaries);
  const most = Math.min(MOST_AT_ONCE, Math.round(v.most));
  // those of a burst have numbers of their own
  const bursting = Math.min(most, Math.round(v.burst));
  const burst = seconds >= 0 && seconds < longest ? bursting : 0;
  const room = most - burst;
  const { first, last, age } = stream(v, seconds, longest);
  const oldest = Math.max(first, last - MOST_AT_ONCE + burst + 1);
  if (last - oldest < room) for (let k = oldest; k <= last; k++) use(k, age(k));
  else {
    // one that is left out is so all its life, and leaves no gap among the others
    const kept: number[] = [];
    for (let k = last; k >= oldest && kept.length < room; k--) {
      const born = seconds - age(k);
      const free = most - (born < longest ? bursting : 0);
      if (((k + 0.5) * GOLDEN) % 1 < free / Math.min(MOST_AT_ONCE, rateAt(v, born) * longest)) kept.push(k);
    }
    for (const k of kept.reverse()) use(k, age(k));
  }
  for (let k = 0; k < burst; k++) use(-1 - k, seconds);
}

/** Those that come by and by: the numbers of the first and the last that may be there, and how long one has been. */
function stream(
  { counts, rate, before }: Swarming,
  seconds: number,
  longest: number,
): { first: number; last: number; age: (which: number) => number } {
  if (!counts) {
    const past = seconds + before;
    const first = Math.max(0, Math.ceil((past - longest) * rate));
    return { first, last: rate > 0 ? Math.floor(past * rate) : -1, age: (k) => past - k / rate };
  }
  const known = counts.counts[0]!;
  return {
    // those that came before the layer began, unless they are long gone
    first: counts.first === 0 ? 0 : Math.ceil(known),
    last: Math.floor(countAt(counts, seconds)),
    age: (k) => seconds - (k < known ? (k * before) / known - before : bornAt(counts, k)),
  };
}

/** The same values in an object that is made the same way each time: thousands of reads are three times as fast from one make as from many. */
const ofOneMake = (v: Swarming): Swarming => ({
  emitter: v.emitter,
  at: v.at,
  wide: v.wide,
  high: v.high,
  rate: v.rate,
  burst: v.burst,
  most: v.most,
  before: v.before,
  life: v.life,
  lifeVaries: v.lifeVaries,
  direction: v.direction,
  spread: v.spread,
  speed: v.speed,
  speedVaries: v.speedVaries,
  gravity: v.gravity,
  wind: v.wind,
  drag: v.drag,
  wander: v.wander,
  gust: v.gust,
  gustWide: v.gustWide,
  grain: v.grain,
  grainVaries: v.grainVaries,
  ends: v.ends,
  long: v.long,
  spin: v.spin,
  flutter: v.flutter,
  drawn: v.drawn,
  appears: v.appears,
  goes: v.goes,
  colours: v.colours,
  coloured: v.coloured,
  opacity: v.opacity,
  depth: v.depth,
  blurred: v.blurred,
  sharpAt: v.sharpAt,
  sized: v.sized,
  faded: v.faded,
  seed: v.seed,
  meets: v.meets,
  floor: v.floor,
  tilt: v.tilt,
  bounce: v.bounce,
  turned: v.turned,
  along: v.along,
  counts: v.counts,
  way: v.way,
  spots: v.spots,
});

/** @returns numbers of the particles there are: middle, half length and width, cosine and sine of the turn, colour, opacity, lot, pixels out of focus; the oldest first, or where they have depth the farthest */
export function swarmAt(given: Swarming, seconds: number): Float32Array {
  const v = ofOneMake(given);
  const list = new Float32Array(MOST_AT_ONCE * PARTICLE);
  const stops = Float64Array.from(v.colours.flatMap(([place, colour]) => [place, ...colour]));
  const lives = { sized: alongLife(v.sized), faded: alongLife(v.faded) };
  const gusts = v.gust > 0 ? gustsOf(v.gustWide, (question) => lot(v.seed, question, 18)) : null;
  const now = new Float64Array(5);
  const present: number[] = [];
  let count = 0;
  eachPresent(v, seconds, (which, age) => {
    if (!writeParticle(list, count * PARTICLE, now, v, stops, lives, gusts, which, age, seconds - age)) return;
    count++;
    if (v.depth > 0) present.push(farOf(v, which));
  });
  const all = list.subarray(0, count * PARTICLE);
  return v.depth > 0 ? farthestFirst(all, present) : all;
}

/** How deep in the picture one is, 0 nearest … 1 farthest. */
const farOf = ({ seed }: Swarming, which: number): number => lot(seed, which, 11);
/** What is nearer lies over what is farther away. @param fars of the particles, in their order */
function farthestFirst(list: Float32Array, fars: readonly number[]): Float32Array {
  const order = Float64Array.from(fars, (far, i) => (1 - far) * 2 ** 32 * MOST_AT_ONCE + i).sort();
  const sorted = new Float32Array(list.length);
  order.forEach((key, to) => {
    const from = (key % MOST_AT_ONCE) * PARTICLE;
    for (let k = 0; k < PARTICLE; k++) sorted[to * PARTICLE + k] = list[from + k]!;
  });
  return sorted;
}

/** Steps that a life is read in. */
const STEPS_OF_LIFE = 256;
/** What a curve is along a life; null for one that leaves all as it is. */
function alongLife(points: readonly CurvePoint[]): Float64Array | null {
  if (points.every(([, to]) => to === 1)) return null;
  const of = curveOf(points);
  return Float64Array.from({ length: STEPS_OF_LIFE + 2 }, (_, i) => of(Math.min(1, i / STEPS_OF_LIFE)));
}
type Lives = Record<'sized' | 'faded', ReturnType<typeof alongLife>>;
/** @param share of a life, 0…1 */
function duringLife(table: Float64Array | null, share: number): number {
  if (!table) return 1;
  const at = share * STEPS_OF_LIFE;
  const i = Math.floor(at);
  return table[i]! + (table[i + 1]! - table[i]!) * (at - i);
}

/** @returns whether it is there */
function writeParticle(
  list: Float32Array,
  at: number,
  now: Float64Array,
  v: Swarming,
  stops: Float64Array,
  lives: Lives,
  gusts: Gusts | null,
  which: number,
  lived: number,
  born: number,
): boolean {
  const { seed } = v;
  const share = lived / varied(v.life, v.lifeVaries, v, which, 0);
  if (!(share >= 0 && share < 1) || (covers(v.emitter) && !v.spots)) return false;
  const near = v.depth ? 1 - v.depth * farOf(v, which) : 1;
  if (!moveTo(now, v, gusts, which, lived, born, near)) return false;
  const age = now[AGE]!;
  list[at] = now[X]!;
  list[at + 1] = now[Y]!;
  const half =
    (varied(v.grain, v.grainVaries, v, which, 9) * near * (1 + (v.ends - 1) * share) * duringLife(lives.sized, share)) /
    2;
  list[at + 2] = half * v.long;
  if (v.drawn > 0) list[at + 2]! += (Math.hypot(now[VX]!, now[VY]!) * v.drawn) / 2;
  const turn =
    v.drawn > 0 || v.along
      ? Math.atan2(now[VY]!, now[VX]!) / (2 * Math.PI)
      : v.turned || v.spin
        ? turnsOf(v.turned * (2 * lot(seed, which, 10) - 1) + (lot(seed, which, 12) < 0.5 ? -age : age) * v.spin)
        : 0;
  // what flutters shows its edge by turns
  const edge = v.flutter ? sineOf(lot(seed, which, 13) + age * (0.6 + lot(seed, which, 14))) ** 2 : 0;
  list[at + 3] = half * (1 - v.flutter * edge);
  list[at + 4] = turn ? cosineOf(turn) : 1;
  list[at + 5] = turn ? sineOf(turn) : 0;
  writeColour(list, at + 6, stops, v.coloured === 'life' ? share : lot(seed, which, 15));
  const come = v.appears > 0 ? Math.min(1, share / v.appears) : 1;
  list[at + 9] = v.opacity * Math.min(come, v.goes > 0 ? (1 - share) / v.goes : 1) * duringLife(lives.faded, share);
  list[at + 10] = lot(seed, which, 16);
  list[at + 11] = v.blurred && v.blurred * Math.abs(farOf(v, which) - v.sharpAt);
  return true;
}

/** Most pixels that all particles of a picture take together. */
const MOST_PIXELS = 4e8;
/** The particles of a list that can be drawn in a time that someone would wait; of too many large ones those that lie over the others. @param w, h of the picture */
export function affordable(list: Float32Array, w: number, h: number): Float32Array {
  let pixels = 0;
  let from = list.length;
  while (from > 0) {
    const reach = list[from - PARTICLE + 2]! + list[from - PARTICLE + 3]! + 2 * list[from - 1]!;
    pixels += Math.min(w * h, 2 * reach * reach);
    if (pixels > MOST_PIXELS) break;
    from -= PARTICLE;
  }
  return list.subarray(from);
}

/** @param stops place, red, green and blue of each, in the order of their places */
function writeColour(list: Float32Array, at: number, stops: Float64Array, place: number): void {
  let two = 0;
  while (two + 4 < stops.length && stops[two]! < place) two += 4;
  const one = Math.max(0, two - 4);
  const gap = stops[two]! - stops[one]!;
  const t = gap > 0 ? Math.min(1, Math.max(0, (place - stops[one]!) / gap)) : 1;
  for (let c = 1; c < 4; c++) list[at + c - 1] = stops[one + c]! + (stops[two + c]! - stops[one + c]!) * t;
}
