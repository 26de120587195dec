// The screen as it is lit: its colour at every place, from the pixels that are sure to be screen, carried on under the subject.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
type Linear = readonly [number, number, number];

/** Pixels for each cell of the model, as the kernels have it. */
export const CELL = 8;
/** Every second pixel of every fourth row is looked at. */
const COLUMN_STEP = 2;
const ROW_STEP = 4;
/** A cell is sure when this share of it is screen. */
const SURE = 0.9;
/** How far a hue may be from a sample's to count as screen, in shares of the key channel. */
const NEAR = 0.09;
const ROUNDS = 30;

/** Linear r, g, b for each cell, w×h cells. */
export interface ScreenModel {
  w: number;
  h: number;
  cells: Float32Array;
  /** share of the cells that were seen, not carried on */
  seen: number;
  /** the same of the cells along the border */
  rim: number;
}

/** @param channel of the screen's colour @param samples picked, linear light */
export function modelScreen(
  { kernels, arena }: Tools,
  picture: Picture,
  channel: number,
  samples: readonly Linear[],
): ScreenModel {
  const { w: pw, h: ph } = picture.rect;
  const [w, h] = [Math.ceil(pw / CELL), Math.ceil(ph / CELL)];
  const sums = arena.scratch(w * h * 16, (out) =>
    arena.scratch((1 + 3 * samples.length) * 4, (at) => {
      const shares = samples.flatMap((sample) => [
        sample[channel]!,
        ...sample.filter((_, c) => c !== channel).map((part) => part / sample[channel]!),
      ]);
      arena.floats(at, 1 + shares.length).set([samples.length, ...shares]);
      arena.floats(out, w * h * 4).fill(0);
      kernels.screenCells(picture.at, pw, ph, channel, at, NEAR, out);
      return arena.floats(out, w * h * 4).slice();
    }),
  );
  const cells = new Float32Array(w * h * 3);
  const known = new Uint8Array(w * h);
  let [seen, rim] = [0, 0];
  for (let y = 0, i = 0; y < h; y++) {
    // cells at the right and lower border are cut off
    const rows = Math.ceil(Math.min(CELL, ph - y * CELL) / ROW_STEP);
    for (let x = 0; x < w; x++, i++) {
      const n = sums[i * 4 + 3]!;
      if (n < SURE * rows * Math.ceil(Math.min(CELL, pw - x * CELL) / COLUMN_STEP)) continue;
      for (let c = 0; c < 3; c++) cells[i * 3 + c] = sums[i * 4 + c]! / n;
      known[i] = 1;
      seen++;
      if (x === 0 || y === 0 || x === w - 1 || y === h - 1) rim++;
    }
  }
  if (!seen) {
    for (let i = 0; i < w * h; i++) cells.set(samples[0]!, i * 3);
    return { w, h, cells, seen: 0, rim: 0 };
  }
  const filled = carriedOn({ kernels, arena }, cells, known, w, h);
  return { w, h, cells: smoothed(filled, w, h), seen: seen / (w * h), rim: rim / Math.max(1, 2 * (w + h) - 4) };
}

/** Unknown cells from coarser and coarser means of the known ones, then evened out until each is the mean of its neighbours. */
function carriedOn(
  { kernels, arena }: Tools,
  cells: Float32Array,
  known: Uint8Array,
  w: number,
  h: number,
): Float32Array {
  const out = cells.slice();
  fillFromCoarser(out, known.slice(), w, h);
  const places = unknownPlaces(known, w, h);
  return arena.scratch(w * h * 16 + places.byteLength, (at) => {
    const grid = arena.floats(at, w * h * 4);
    for (let i = 0; i < w * h; i++) for (let c = 0; c < 3; c++) grid[i * 4 + c] = out[i * 3 + c]!;
    const list = at + w * h * 16;
    arena.bytes(list, places.byteLength).set(new Uint8Array(places.buffer, places.byteOffset, places.byteLength));
    kernels.evenOut(at, list, places.length / 5, ROUNDS);
    for (let i = 0; i < w * h; i++) for (let c = 0; c < 3; c++) out[i * 3 + c] = grid[i * 4 + c]!;
    return out;
  });
}

/** Byte offsets of each unknown cell and of its neighbours in a grid of v128: itself, left, right, above, below; the border repeats. */
function unknownPlaces(known: Uint8Array, w: number, h: number): Uint32Array {
  const places = new Uint32Array(w * h * 5);
  let count = 0;
  for (let y = 0, i = 0; y < h; y++) {
    for (let x = 0; x < w; x++, i++) {
      if (known[i]) continue;
      for (const j of [i, x > 0 ? i - 1 : i, x < w - 1 ? i + 1 : i, y > 0 ? i - w : i, y < h - 1 ? i + w : i])
        places[count++] = j * 16;
    }
  }
  return places.subarray(0, count);
}

function fillFromCoarser(cells: Float32Array, known: Uint8Array, w: number, h: number): void {
  if (w * h === 1 || known.every((v) => v)) return;
  const [cw, ch] = [Math.ceil(w / 2), Math.ceil(h / 2)];
  const coarse = new Float32Array(cw * ch * 3);
  const counts = new Uint8Array(cw * ch);
  for (let i = 0; i < w * h; i++) {
    if (!known[i]) continue;
    const j = (((i / w) | 0) >> 1) * cw + ((i % w) >> 1);
    for (let c = 0; c < 3; c++) coarse[j * 3 + c]! += cells[i * 3 + c]!;
    counts[j]!++;
  }
  for (let j = 0; j < cw * ch; j++) if (counts[j]) for (let c = 0; c < 3; c++) coarse[j * 3 + c]! /= counts[j]!;
  fillFromCoarser(coarse, counts, cw, ch);
  for (let i = 0; i < w * h; i++) {
    if (known[i]) continue;
    const j = (((i / w) | 0) >> 1) * cw + ((i % w) >> 1);
    for (let c = 0; c < 3; c++) cells[i * 3 + c] = coarse[j * 3 + c]!;
  }
}

/** Means of three by three cells, the border repeated: along the rows, then along the columns. */
function smoothed(cells: Float32Array, w: number, h: number): Float32Array {
  return meansOfThree(meansOfThree(cells, w, h, 3, w * 3), h, w, w * 3, 3);
}

/** @param step from one value to the next along a line, @param line from one line to the next; three parts each */
function meansOfThree(from: Float32Array, n: number, lines: number, step: number, line: number): Float32Array {
  const to = new Float32Array(from.length);
  for (let l = 0; l < lines; l++) {
    for (let i = 0; i < n; i++) {
      const at = l * line + i * step;
      const before = i > 0 ? at - step : at;
      const after = i < n - 1 ? at + step : at;
      to[at] = (from[before]! + from[at]! + from[after]!) / 3;
      to[at + 1] = (from[before + 1]! + from[at + 1]! + from[after + 1]!) / 3;
      to[at + 2] = (from[before + 2]! + from[at + 2]! + from[after + 2]!) / 3;
    }
  }
  return to;
}
