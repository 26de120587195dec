/** A seed for one frame, of the seed that people choose. */
export const seedAt = (seed: number, frame: number): number =>
  Math.imul(Math.round(seed) + 1, 7919) + Math.imul(frame, 104729);

/** A number in 0…1 that belongs to a place. Source: Wellons' lowbias32. */
export function lotOf(place: number, seed: number): number {
  let v = (Math.imul(place + 1, 0x9e3779b1) + seed) >>> 0;
  v = Math.imul(v ^ (v >>> 16), 0x7feb352d) >>> 0;
  v = Math.imul(v ^ (v >>> 15), 0x846ca68b) >>> 0;
  return ((v ^ (v >>> 16)) >>> 0) / 2 ** 32;
}
