// What is done to a matte after it is made: gamma, shrinking, feather, small holes and specks.
import { blurPlane } from './soften';

export interface Finish {
  gamma: number;
  /** pixels by which solid parts become smaller, larger when negative */
  shrink: number;
  feather: number;
  /** largest area in pixels that is filled, and that is dropped */
  holes: number;
  specks: number;
}

export const isPlain = (f: Finish): boolean =>
  f.gamma === 1 && f.shrink === 0 && f.feather === 0 && f.holes < 1 && f.specks < 1;

/** Alpha from which a pixel is no hole, and up to which it is no speck. */
const SOLID = 0.95;
const CLEAR = 0.05;

/** Finishes a matte in place. @param plane w×h values 0…1 */
export function finishMatte(plane: Float32Array, w: number, h: number, finish: Finish): void {
  if (finish.specks >= 1) clearPatches(plane, w, h, finish.specks, (v) => v > CLEAR, 0);
  if (finish.holes >= 1) clearPatches(plane, w, h, finish.holes, (v) => v < SOLID, 1);
  if (finish.gamma !== 1) for (let i = 0; i < plane.length; i++) plane[i] = plane[i]! ** (1 / finish.gamma);
  if (finish.shrink !== 0) shrunk(plane, w, h, finish.shrink);
  if (finish.feather > 0) blurPlane(plane, w, h, finish.feather / 4);
}

/** Sets connected patches of pixels that belong, wholly inside the picture and no larger than `most`, to a value. */
function clearPatches(
  plane: Float32Array,
  w: number,
  h: number,
  most: number,
  belongs: (v: number) => boolean,
  to: number,
): void {
  const seen = new Uint8Array(plane.length);
  const stack = new Int32Array(plane.length);
  const patch = new Int32Array(Math.ceil(most) + 1);
  for (let begin = 0; begin < plane.length; begin++) {
    if (seen[begin] || !belongs(plane[begin]!)) continue;
    let [top, count, open] = [0, 0, false];
    stack[top++] = begin;
    seen[begin] = 1;
    while (top > 0) {
      const at = stack[--top]!;
      if (count < patch.length) patch[count] = at;
      count++;
      const x = at % w;
      if (x === 0 || x === w - 1 || at < w || at >= w * (h - 1)) open = true;
      for (const next of [at - 1, at + 1, at - w, at + w]) {
        if (
          next < 0 ||
          next >= plane.length ||
          seen[next] ||
          (next === at - 1 && x === 0) ||
          (next === at + 1 && x === w - 1)
        )
          continue;
        if (!belongs(plane[next]!)) continue;
        seen[next] = 1;
        stack[top++] = next;
      }
    }
    if (!open && count <= most) for (let k = 0; k < count; k++) plane[patch[k]!] = to;
  }
}

/** Least, or greatest when negative, of a disc around each pixel; fractions of a pixel lie between the two nearest discs. */
function shrunk(plane: Float32Array, w: number, h: number, by: number): void {
  const sign = by > 0 ? 1 : -1;
  const radius = Math.abs(by);
  const whole = Math.floor(radius);
  const share = radius - whole;
  const lower = discLeast(plane, w, h, whole, sign);
  const upper = share > 0 ? discLeast(plane, w, h, whole + 1, sign) : lower;
  for (let i = 0; i < plane.length; i++) plane[i] = lower[i]! + (upper[i]! - lower[i]!) * share;
}

/** Least of sign·value over a disc, times sign. Row by row: the least over the chord that the disc has there. */
function discLeast(plane: Float32Array, w: number, h: number, radius: number, sign: 1 | -1): Float32Array {
  if (radius === 0) return plane.slice();
  const signed = sign < 0 ? plane.map((v) => -v) : plane;
  const out = new Float32Array(plane.length).fill(Infinity);
  const chords = new Map<number, number[]>();
  for (let dy = -radius; dy <= radius; dy++) {
    const half = Math.floor(Math.sqrt(radius * radius - dy * dy) + 1e-6);
    chords.set(half, [...(chords.get(half) ?? []), dy]);
  }
  const row = new Float32Array(w);
  for (const [half, offsets] of chords) {
    const least = chordLeast(w, half);
    for (let y = 0; y < h; y++) {
      least(signed, y * w, row);
      for (const dy of offsets) {
        const to = y - dy;
        if (to < 0 || to >= h) continue;
        const at = to * w;
        for (let x = 0; x < w; x++) if (row[x]! < out[at + x]!) out[at + x] = row[x]!;
      }
    }
  }
  return sign < 0 ? out.map((v) => -v) : out;
}

/** Running least over 2·half+1 values of a row, by halves of blocks. Source: van Herk 1992. */
function chordLeast(w: number, half: number): (plane: Float32Array, from: number, out: Float32Array) => void {
  const size = 2 * half + 1;
  const long = Math.ceil((w + 2 * half) / size) * size;
  const line = new Float32Array(long).fill(Infinity);
  const ahead = new Float32Array(long);
  const behind = new Float32Array(long);
  return (plane, from, out) => {
    if (half === 0) return out.set(plane.subarray(from, from + w));
    line.set(plane.subarray(from, from + w), half);
    for (let block = 0; block < long; block += size) {
      ahead[block] = line[block]!;
      for (let at = block + 1; at < block + size; at++)
        ahead[at] = line[at]! < ahead[at - 1]! ? line[at]! : ahead[at - 1]!;
      behind[block + size - 1] = line[block + size - 1]!;
      for (let at = block + size - 2; at >= block; at--)
        behind[at] = line[at]! < behind[at + 1]! ? line[at]! : behind[at + 1]!;
    }
    for (let x = 0; x < w; x++) out[x] = behind[x]! < ahead[x + size - 1]! ? behind[x]! : ahead[x + size - 1]!;
  };
}
