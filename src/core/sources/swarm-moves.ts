// How one particle moves, from when it came: where it is and how fast, by lots of its own.
import { cosineOf, sineOf } from '../base/sine';
import { spotAt, wayAt } from './births';
import type { Gusts } from './gusts';
import { landed } from './landing';
import type { Place, Swarming } from './swarm';
import { gone, NO_DRAG, pace } from './ways';

/** A number 0…1 by lot for a particle and one of its questions. */
export function lot(seed: number, particle: number, question: number): number {
  let h =
    Math.imul(particle ^ 0x9e3779b9, 0x85ebca6b) ^
    Math.imul(question + 1, 0xc2b2ae35) ^
    Math.imul(seed + 1, 0x27d4eb2f);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 4294967296;
}
/** Emitters that are wherever something covers. */
export const covers = (emitter: Swarming['emitter']): boolean => emitter === 'layer' || emitter === 'mask';
export const turnsOf = (degrees: number): number => degrees / 360;

/** A value that is as different from one to the next as said. */
export const varied = (value: number, by: number, { seed }: Swarming, which: number, question: number): number =>
  by ? value * (1 + by * (2 * lot(seed, which, question) - 1)) : value;
/** How far one has strayed from its way. */
const strayed = ({ seed, wander }: Swarming, which: number, question: number, age: number): number =>
  wander &&
  wander * Math.min(1, age) * sineOf(lot(seed, which, question) + age * (0.25 + 0.35 * lot(seed, which, question + 1)));

/** Where one is, how fast where they are drawn out or point along their way, and how long it has been on its way: what lies still has stopped. */
export const [X, Y, VX, VY, AGE] = [0, 1, 2, 3, 4];
/** Where gusts take one. */
const TAKEN = new Float64Array(2);
/** @param near 1 for what is nearest and smaller for what is farther away and slower @returns whether it is still there */
export function moveTo(
  now: Float64Array,
  v: Swarming,
  gusts: Gusts | null,
  which: number,
  lived: number,
  born: number,
  near: number,
): boolean {
  const { seed, drag } = v;
  const meets = v.meets !== 'nothing';
  // what can meet a line is seen from that line: its way along it, and down to it
  const tilt = meets ? turnsOf(v.tilt) : 0;
  const c = tilt ? cosineOf(tilt) : 1;
  const s = tilt ? sineOf(tilt) : 0;
  const px = meets ? v.floor[0] : 0;
  const py = meets ? v.floor[1] : 0;
  const turn = turnsOf(v.direction - (meets ? v.tilt : 0) + (lot(seed, which, 1) - 0.5) * v.spread);
  const speed = varied(v.speed, v.speedVaries, v, which, 2) * near;
  const gravity = v.gravity * near;
  const wind = v.wind * near;
  // air that does not hold takes all along as it goes, else it pulls until they are as fast
  const free = drag < NO_DRAG;
  const carried = free ? wind : 0;
  const pulled = free ? 0 : wind * drag;
  const vx = cosineOf(turn) * speed + carried * c;
  const vy = sineOf(turn) * speed - carried * s;
  const pullX = pulled * c + gravity * s;
  const pullY = gravity * c - pulled * s;
  const start = startOf(v, which, born);
  const x0 = (start[0] - px) * c + (start[1] - py) * s;
  const y0 = (start[1] - py) * c - (start[0] - px) * s;
  const fall = meets
    ? landed({ y: y0, pace: vy, pull: pullY, drag }, 0, v.meets === 'bounce' ? v.bounce : 0, lived)
    : null;
  if (fall && v.meets === 'go' && lived >= fall.met) return false;
  const age = fall ? Math.min(lived, fall.lies) : lived;
  const met = fall !== null && lived >= fall.met;
  const down = fall ? fall.y : y0 + gone(vy, pullY, drag, age);
  const along = x0 + gone(vx, pullX, drag, age);
  let aside = near * strayed(v, which, 5, age);
  let strays = met ? 0 : near * strayed(v, which, 7, age);
  if (gusts) {
    // by where it would be without them, so that no frame needs another; what lies still is taken no further
    gusts(px + along * c - down * s, py + along * s + down * c, born + age, TAKEN);
    const much = near * v.gust * Math.min(1, age);
    aside += much * (TAKEN[0]! * c + TAKEN[1]! * s);
    if (!met) strays += much * (TAKEN[1]! * c - TAKEN[0]! * s);
  }
  // what was thrown up from below the line lands on it when it comes down
  const y = fall && (met || y0 <= 0) ? Math.min(0, down + strays) : down + strays;
  const x = along + aside;
  now[X] = px + x * c - y * s;
  now[Y] = py + x * s + y * c;
  // asked for only where it is seen
  const aimed = v.drawn > 0 || v.along;
  const fastX = aimed ? pace(vx, pullX, drag, age) : 0;
  const fastY = aimed ? pace(vy, pullY, drag, age) : 0;
  now[VX] = fastX * c - fastY * s;
  now[VY] = fastX * s + fastY * c;
  now[AGE] = age;
  return true;
}

function startOf({ emitter, at, wide, high, seed, way, spots }: Swarming, which: number, born: number): Place {
  const middle = way ? wayAt(way, born) : at;
  if (emitter === 'point') return middle;
  const x = middle[0];
  const y = middle[1];
  const a = lot(seed, which, 3);
  const b = lot(seed, which, 4);
  if (covers(emitter)) return spotAt(spots!, [a, b, lot(seed, which, 17)]);
  if (emitter === 'line') return [x + (a - 0.5) * wide, y];
  if (emitter === 'box') return [x + (a - 0.5) * wide, y + (b - 0.5) * high];
  const far = Math.sqrt(a) / 2;
  return [x + far * wide * cosineOf(b), y + far * high * sineOf(b)];
}
