// Particles that come down on a line: where they are after the times that they have met it.
import { gone, pace } from './ways';

export interface Fall {
  /** where it begins, and its pace there, in pixels (y down) and pixels in a second */
  y: number;
  pace: number;
  pull: number;
  drag: number;
}
export interface Landed {
  y: number;
  /** seconds from its beginning until it met the line for the first time, and until it lay still; Infinity when it does not */
  met: number;
  lies: number;
}

/** So slow, in pixels a second, it is at rest; and so often it leaps at most. */
const SLOW = 12;
const LEAPS = 8;
/** Halvings by which a moment is found. */
const STEPS = 30;

/** @param bounce of its pace that it keeps when it leaps, 0…1; 0 lets it lie */
export function landed(fall: Fall, line: number, bounce: number, age: number): Landed {
  let [{ y, pace: v }, spent, met] = [fall, 0, Infinity];
  const { pull, drag } = fall;
  for (let leaps = 0; leaps <= LEAPS; leaps++) {
    const left = age - spent;
    const down = (t: number): number => y + gone(v, pull, drag, t);
    const when = crossing(down, (t) => pace(v, pull, drag, t), line, left);
    if (when === null) return { y: down(left), met, lies: Infinity };
    spent += when;
    met = Math.min(met, spent);
    v = -bounce * pace(v, pull, drag, when);
    y = line;
    if (-v < SLOW) break;
  }
  return { y: line, met, lies: spent };
}

/** When it first goes below a line, if it does within some time. It goes up before it goes down, or the other way round, but no more than that. */
function crossing(down: (t: number) => number, speed: (t: number) => number, line: number, age: number): number | null {
  const turns = speed(0) < 0 !== speed(age) < 0 ? halved((t) => speed(t) < 0 === speed(0) < 0, 0, age) : age;
  for (const [from, to] of [
    [0, turns],
    [turns, age],
  ] as const)
    if (down(from) <= line + 1e-9 && down(to) > line && to > from) return halved((t) => down(t) <= line, from, to);
  return null;
}
/** The last moment up to which something holds. */
function halved(holds: (t: number) => boolean, from: number, to: number): number {
  let [low, high] = [from, to];
  for (let i = 0; i < STEPS; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}
