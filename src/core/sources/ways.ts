// How far and how fast something goes that air holds up, in one direction.

/** Less than this is none. */
export const NO_DRAG = 1e-4;
/** How far something has gone: its own speed dies away by drag, and what pulls at it sets in as much. */
export function gone(speed: number, pull: number, wind: number, drag: number, age: number): number {
  if (drag < NO_DRAG) return speed * age + (pull * age * age) / 2;
  const settled = pull / drag + wind;
  return settled * age + ((speed - settled) * (1 - Math.exp(-drag * age))) / drag;
}
export function pace(speed: number, pull: number, wind: number, drag: number, age: number): number {
  if (drag < NO_DRAG) return speed + pull * age;
  const settled = pull / drag + wind;
  return settled + (speed - settled) * Math.exp(-drag * age);
}
