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

/** Linear r, g, b and a spare number for each cell, w×h cells. */
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
  return arena.scratch(w * h * 16, (at) => {
    arena.scratch((1 + 3 * samples.length) * 4, (list) => {
      const shares = samples.flatMap((sample) => [
        sample[channel]!,
        ...sample.filter((_, c) => c !== channel).map((part) => part / sample[channel]!),
      ]);
      arena.floats(list, 1 + shares.length).set([samples.length, ...shares]);
      kernels.screenCells(picture.at, pw, ph, channel, list, NEAR, at);
    });
    // looked up anew each time: lending may move the memory
    const cells = () => arena.floats(at, w * h * 4);
    const { seen, rim } = meansOfSure(cells(), w, h, picture);
    if (!seen) for (let i = 0; i < w * h; i++) cells().set(samples[0]!, i * 4);
    else arena.scratch(kernels.carryScratch(w, h), (scratch) => kernels.carryOn(at, w, h, ROUNDS, scratch));
    return { w, h, cells: cells().slice(), seen: seen / (w * h), rim: rim / Math.max(1, 2 * (w + h) - 4) };
  });
}

/** From sums of cells to means, with 1 behind them, of those that are sure, and to zeros of the others; in place. */
function meansOfSure(cells: Float32Array, w: number, h: number, { rect }: Picture): { seen: number; rim: number } {
  let [seen, rim] = [0, 0];
  for (let y = 0, i = 0; y < h; y++) {
    // cells at the right and lower border are cut off
    const rows = Math.ceil(Math.min(CELL, rect.h - y * CELL) / ROW_STEP);
    for (let x = 0; x < w; x++, i += 4) {
      const n = cells[i + 3]!;
      const sure = n >= SURE * rows * Math.ceil(Math.min(CELL, rect.w - x * CELL) / COLUMN_STEP);
      for (let c = 0; c < 4; c++) cells[i + c] = sure ? cells[i + c]! / n : 0;
      if (!sure) continue;
      seen++;
      if (x === 0 || y === 0 || x === w - 1 || y === h - 1) rim++;
    }
  }
  return { seen, rim };
}
