// How far and how fast something goes that air holds up, in one direction.

/** Less than this is none. */
export const NO_DRAG = 1e-4;
/** What air leaves of a speed. Those that came together ask for the same again and again. */
function left(drag: number, age: number): number {
  if (drag !== LAST[0] || age !== LAST[1]) LAST.set([drag, age, Math.exp(-drag * age)]);
  return LAST[2]!;
}
/** Drag and age that were asked for last, and what is left after them. */
const LAST = Float64Array.of(0, 0, 1);
/** How far something has gone: its own speed dies away by drag, and what pulls at it sets in as much. */
export function gone(speed: number, pull: number, drag: number, age: number): number {
  if (drag < NO_DRAG) return speed * age + (pull * age * age) / 2;
  const settled = pull / drag;
  return settled * age + ((speed - settled) * (1 - left(drag, age))) / drag;
}
export function pace(speed: number, pull: number, drag: number, age: number): number {
  if (drag < NO_DRAG) return speed + pull * age;
  const settled = pull / drag;
  return settled + (speed - settled) * left(drag, age);
}
