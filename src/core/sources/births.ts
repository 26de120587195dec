// When and where particles come: by a rate and from a place that may have keyframes, or from where a layer is not clear.
import type { Kernels } from '../picture/kernels';
import type { Arena } from '../picture/arena';
import { Picture } from '../picture/picture';
import type { When } from './define';

type Place = readonly [number, number];
/** How many had come at each of some frames that follow each other. */
export interface Counts {
  first: number;
  counts: readonly number[];
  /** frames in a second */
  perSecond: number;
}
/** Where the middle of where they come from was at each of some frames. */
export interface Way {
  first: number;
  points: readonly Place[];
  perSecond: number;
}

/** What a swarm has to know of the time before: only of what has keyframes, and only as long ago as one may last. */
export function birthsOf(
  v: { rate: number; life: number; lifeVaries: number; before: number },
  { seconds, perSecond, moves, at }: When<'rate' | 'at'>,
): { counts?: Counts; way?: Way } {
  const now = Math.ceil(seconds * perSecond);
  const first = Math.max(0, Math.floor((seconds - v.life * (1 + v.lifeVaries)) * perSecond));
  const frames = Array.from({ length: Math.max(0, now - first) + 1 }, (_, i) => first + i);
  const way = moves('at') && { way: { first, perSecond, points: frames.map((frame) => at('at', frame) as Place) } };
  return {
    ...(moves('rate') && { counts: countsOf(v, first, now, perSecond, (frame) => at('rate', frame) as number) }),
    ...way,
  };
}
/** Before the layer begins they come as on its first frame. */
function countsOf(
  { before }: { before: number },
  first: number,
  now: number,
  perSecond: number,
  rate: (frame: number) => number,
): Counts {
  let sum = before * rate(0);
  const counts: number[] = [];
  for (let frame = 0; frame <= now; frame++) {
    if (frame >= first) counts.push(sum);
    sum += rate(frame) / perSecond;
  }
  return { first, counts, perSecond };
}
/** How many had come at a moment. */
export function countAt({ first, counts, perSecond }: Counts, seconds: number): number {
  const place = Math.max(0, seconds * perSecond - first);
  const i = Math.min(counts.length - 1, Math.floor(place));
  const next = counts[Math.min(counts.length - 1, i + 1)]!;
  return counts[i]! + (next - counts[i]!) * Math.min(1, place - i);
}
/** When one came, by its number. Of those that came before the frames that are known, the first of these. */
export function bornAt({ first, counts, perSecond }: Counts, which: number): number {
  let [low, high] = [0, counts.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (counts[middle]! <= which) low = middle;
    else high = middle;
  }
  const gap = (counts[high] ?? 0) - counts[low]!;
  const share = gap > 0 ? Math.min(1, Math.max(0, (which - counts[low]!) / gap)) : 0;
  return (first + low + share) / perSecond;
}
/** How many came a second at a moment, as far as is known. */
export function rateAt({ rate, counts }: { rate: number; counts?: Counts }, seconds: number): number {
  const last = counts ? counts.counts.length - 2 : -1;
  if (!counts || last < 0) return rate;
  const i = Math.min(last, Math.max(0, Math.floor(seconds * counts.perSecond) - counts.first));
  return (counts.counts[i + 1]! - counts.counts[i]!) * counts.perSecond;
}
export function wayAt({ first, points, perSecond }: Way, seconds: number): Place {
  const place = Math.min(points.length - 1, Math.max(0, seconds * perSecond - first));
  const i = Math.floor(place);
  const [a, b] = [points[i]!, points[Math.min(points.length - 1, i + 1)]!];
  return [a[0] + (b[0] - a[0]) * (place - i), a[1] + (b[1] - a[1]) * (place - i)];
}

/** Cells that a picture is looked at in, at most, along its longer side. */
const CELLS = 256;
/** Where a picture is not clear: sums of its alpha cell by cell, row after row. */
export interface Spots {
  w: number;
  h: number;
  /** pixels from a cell to the next */
  cell: number;
  sums: Float64Array;
}
/** @returns null for a clear picture @param picture from its top left on */
export function spotsOf({ kernels, arena }: { kernels: Kernels; arena: Arena }, picture: Picture): Spots | null {
  let small = picture.retain();
  let cell = 1;
  while (Math.max(small.rect.w, small.rect.h) > CELLS) {
    const { w, h } = small.rect;
    const next = Picture.make(arena, { x: 0, y: 0, w: Math.ceil(w / 2), h: Math.ceil(h / 2) });
    kernels.halve(small.at, w, h, next.at);
    small.release();
    small = next;
    cell *= 2;
  }
  const { w, h } = small.rect;
  const floats = arena.floats(small.at, w * h * 4);
  const sums = new Float64Array(w * h);
  for (let i = 0, sum = 0; i < sums.length; i++) sums[i] = sum += floats[4 * i + 3]!;
  small.release();
  return sums.at(-1)! > 0 ? { w, h, cell, sums } : null;
}
/** The same for a plane of what is covered. @param plane w×h floats 0…1 @returns null where nothing is */
export function spotsOfPlane(plane: Float32Array, w: number, h: number): Spots | null {
  const cell = Math.max(1, Math.ceil(Math.max(w, h) / CELLS));
  const [wide, high] = [Math.ceil(w / cell), Math.ceil(h / cell)];
  const sums = new Float64Array(wide * high);
  for (let y = 0, i = 0; y < h; y++)
    for (let x = 0, row = Math.floor(y / cell) * wide; x < w; x++, i++) sums[row + Math.floor(x / cell)]! += plane[i]!;
  for (let i = 1; i < sums.length; i++) sums[i]! += sums[i - 1]!;
  return sums.at(-1)! > 0 ? { w: wide, h: high, cell, sums } : null;
}
/** A place in it. @param lots three numbers 0…1 */
export function spotAt({ w, cell, sums }: Spots, lots: readonly [number, number, number]): Place {
  const wanted = lots[0] * sums.at(-1)!;
  let [low, high] = [0, sums.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sums[middle]! > wanted) high = middle;
    else low = middle + 1;
  }
  return [((low % w) + lots[1]) * cell, (Math.floor(low / w) + lots[2]) * cell];
}
