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
/** Every second pixel of every second row is looked at. */
const LOOKED = (CELL / 2) ** 2;
/** A cell is sure when this share of it is screen. */
const SURE = 0.9;
/** How far a hue may be from a sample's to count as screen, in shares of the key channel. */
const NEAR = 0.09;
const ROUNDS = 40;

/** Linear r, g, b for each cell, w×h cells. */
export interface ScreenModel {
  w: number;
  h: number;
  cells: Float32Array;
  /** share of the cells that were seen, not carried on */
  seen: number;
}

/** @param channel of the screen's colour @param samples picked, linear light */
export function modelScreen({ kernels, arena }: Tools, picture: Picture, channel: number, samples: readonly Linear[]): ScreenModel {
  const { w: pw, h: ph } = picture.rect;
  const [w, h] = [Math.ceil(pw / CELL), Math.ceil(ph / CELL)];
  const sums = arena.scratch(w * h * 16, (out) =>
    arena.scratch((1 + 3 * samples.length) * 4, (at) => {
      arena.floats(at, 1 + 3 * samples.length).set([samples.length, ...samples.flat()]);
      arena.floats(out, w * h * 4).fill(0);
      kernels.screenCells(picture.at, pw, ph, channel, at, NEAR, out);
      return arena.floats(out, w * h * 4).slice();
    }),
  );
  const cells = new Float32Array(w * h * 3);
  const known = new Uint8Array(w * h);
  let seen = 0;
  for (let i = 0; i < w * h; i++) {
    const [x, y] = [i % w, Math.floor(i / w)];
    // cells at the right and lower border are cut off
    const whole = Math.ceil(Math.min(CELL, pw - x * CELL) / 2) * Math.ceil(Math.min(CELL, ph - y * CELL) / 2);
    const n = sums[i * 4 + 3]!;
    if (n < SURE * Math.min(whole, LOOKED)) continue;
    for (let c = 0; c < 3; c++) cells[i * 3 + c] = sums[i * 4 + c]! / n;
    known[i] = 1;
    seen++;
  }
  if (!seen) {
    for (let i = 0; i < w * h; i++) cells.set(samples[0]!, i * 3);
    return { w, h, cells, seen: 0 };
  }
  const filled = carriedOn(cells, known, w, h);
  return { w, h, cells: smoothed(filled, w, h), seen: seen / (w * h) };
}

/** Unknown cells from coarser and coarser means of the known ones, then evened out until each is the mean of its neighbours. */
function carriedOn(cells: Float32Array, known: Uint8Array, w: number, h: number): Float32Array {
  const out = cells.slice();
  fillFromCoarser(out, known.slice(), w, h);
  for (let round = 0; round < ROUNDS; round++) {
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const i = y * w + x;
        if (known[i]) continue;
        const [l, r, u, d] = [x > 0 ? i - 1 : i, x < w - 1 ? i + 1 : i, y > 0 ? i - w : i, y < h - 1 ? i + w : i];
        // a little more than the mean at each round gets there sooner (successive over-relaxation)
        for (let c = 0; c < 3; c++) {
          const at = i * 3 + c;
          out[at] = Math.max(0, out[at]! + 1.6 * ((out[l * 3 + c]! + out[r * 3 + c]! + out[u * 3 + c]! + out[d * 3 + c]!) / 4 - out[at]!));
        }
      }
    }
  }
  return out;
}

function fillFromCoarser(cells: Float32Array, known: Uint8Array, w: number, h: number): void {
  if (w * h === 1 || known.every((v) => v)) return;
  const [cw, ch] = [Math.ceil(w / 2), Math.ceil(h / 2)];
  const coarse = new Float32Array(cw * ch * 3);
  const counts = new Uint8Array(cw * ch);
  for (let i = 0; i < w * h; i++) {
    if (!known[i]) continue;
    const j = Math.floor(Math.floor(i / w) / 2) * cw + ((i % w) >> 1);
    for (let c = 0; c < 3; c++) coarse[j * 3 + c]! += cells[i * 3 + c]!;
    counts[j]!++;
  }
  for (let j = 0; j < cw * ch; j++) if (counts[j]) for (let c = 0; c < 3; c++) coarse[j * 3 + c]! /= counts[j]!;
  fillFromCoarser(coarse, counts, cw, ch);
  for (let i = 0; i < w * h; i++) {
    if (known[i]) continue;
    const j = Math.floor(Math.floor(i / w) / 2) * cw + ((i % w) >> 1);
    for (let c = 0; c < 3; c++) cells[i * 3 + c] = coarse[j * 3 + c]!;
  }
}

/** Means of three by three cells. */
function smoothed(cells: Float32Array, w: number, h: number): Float32Array {
  const out = new Float32Array(cells.length);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      for (let c = 0; c < 3; c++) {
        let [sum, n] = [0, 0];
        for (let v = Math.max(0, y - 1); v <= Math.min(h - 1, y + 1); v++) for (let u = Math.max(0, x - 1); u <= Math.min(w - 1, x + 1); u++, n++) sum += cells[(v * w + u) * 3 + c]!;
        out[(y * w + x) * 3 + c] = sum / n;
      }
    }
  }
  return out;
}
