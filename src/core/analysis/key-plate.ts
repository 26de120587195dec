// What kind of plate a key has before it: read from the picture and the picked screen alone.
import type { Colour } from '../params/define';
import type { Reading } from '../params/reading';
import type { Picture } from '../picture/picture';
import { screenOf, screenRows, weights, type Tools } from './screen-likeness';
import { CELL } from './screen-model';

/** Bins of the histogram. */
export const BINS = 64;
/** Pixels around one that have to be of its kind for it to lie far from edges. */
const AWAY = 8;
const STEP = 3;
/** Likeness to the subject up to which a pixel may be screen, and from which it may be subject. */
const SCREEN = 0.3;
const SUBJECT = 0.65;
/** Shares of the screen and of the subject that may lie beyond what is read. */
const SCREEN_BEYOND = 0.005;
const SUBJECT_BEYOND = 0.01;
/** What lies below the subject's most frequent likeness belongs to it as long as no gap comes: a bin with less than this share of the fullest. */
const GAP = 0.005;
/** Least samples that say anything. */
const ENOUGH = 50;

export interface KeyPlate {
  reading: Reading;
  /** how many pixels are how unlike the screen, from 0 to 1 */
  histogram: number[];
}

/** @returns null when there is no screen to be like */
export function readPlate(picture: Picture, screen: readonly Colour[], balance: number, tools: Tools): KeyPlate | null {
  if (!screen.length) return null;
  const { kernels, arena, scratch } = tools;
  const { w, h } = picture.rect;
  const { channel } = screenOf(screen[0]!);
  const rows = screenRows(picture, screen, balance, tools);
  const params = scratch(14 * 4);
  arena.floats(params, 14).set([channel, ...weights(balance), 0, 1, 0, 1]);
  const [rough, luma, even] = [0, 0, 0].map(() => scratch(w * h * 4 + 12)) as [number, number, number];
  for (let y = 0; y < h; y++) kernels.keyAlpha(picture.row(y), w, rough + y * w * 4, luma + y * w * 4, params, rows(y));
  kernels.evenPlane(rough, w, h, even);
  const unlike = arena.floats(even, w * h);
  const away = awayFromEdges(unlike, w, h);
  const clear = Math.min(0.35, Math.max(0.02, quantile(away.screen, 1 - SCREEN_BEYOND, unlike) ?? 0.1));
  const solid = Math.min(0.97, Math.max(0.7, solidFrom(away.subject.map((at) => unlike[at]!))));
  const middle = quantile(away.subject, 0.5, unlike) ?? 1;
  return {
    reading: {
      clear: rounded(clear),
      solid: rounded(solid),
      noise: rounded(noiseOf(arena.floats(luma, w * h), away.screen)),
      uneven: rounded(unevenness(arena.floats(luma, w * h), away.screen, w, h)),
      spill: rounded(1 - middle),
      edge: rounded(kernels.edgeWidth(even, w, h, clear, 1 / (solid - clear))),
    },
    histogram: histogramOf(arena.floats(even, w * h)),
  };
}
const rounded = (v: number): number => Math.round(v * 10_000) / 10_000;

/** Places whose surroundings are all screen, and all subject. */
function awayFromEdges(unlike: Float32Array, w: number, h: number): { screen: number[]; subject: number[] } {
  const [screen, subject]: [number[], number[]] = [[], []];
  for (let y = AWAY; y < h - AWAY; y += STEP) {
    for (let x = AWAY; x < w - AWAY; x += STEP) {
      let [low, high] = [1, 0];
      for (let v = -AWAY; v <= AWAY; v += AWAY / 2) {
        for (let u = -AWAY; u <= AWAY; u += AWAY / 2) {
          const near = unlike[(y + v) * w + x + u]!;
          low = Math.min(low, near);
          high = Math.max(high, near);
        }
      }
      if (high < SCREEN) screen.push(y * w + x);
      else if (low > SUBJECT) subject.push(y * w + x);
    }
  }
  return { screen, subject };
}

function quantile(places: readonly number[], share: number, of: Float32Array): number | null {
  if (places.length <= ENOUGH) return null;
  const sorted = places.map((at) => of[at]!).sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
}

/** From where on the subject is what it is: the lower end of its most frequent likeness, so that glass beside it does not count. */
function solidFrom(values: number[]): number {
  if (values.length <= ENOUGH) return 0.9;
  const bins = 50;
  const counts = new Array<number>(bins + 1).fill(0);
  for (const v of values) counts[Math.min(bins, Math.floor(v * bins))]!++;
  let mode = bins;
  for (let bin = bins; bin >= 0; bin--) if (counts[bin]! > counts[mode]!) mode = bin;
  let low = mode;
  while (low > 0 && counts[low - 1]! > GAP * counts[mode]!) low--;
  const own = values.filter((v) => v >= low / bins).sort((a, b) => a - b);
  return own[Math.floor(SUBJECT_BEYOND * own.length)]!;
}

/** Standard deviation of noise from the mean difference of neighbours: √2·√(2/π) of it where it is normal. */
function noiseOf(luma: Float32Array, places: readonly number[]): number {
  if (places.length <= ENOUGH) return 0;
  const steps = places.reduce((sum, at) => sum + Math.abs(luma[at]! - luma[at + 1]!), 0);
  return Math.min(1, ((steps / places.length) * Math.sqrt(Math.PI)) / 2);
}

/** Half of what the light of a screen varies, in cells, as a share of its middle. */
function unevenness(luma: Float32Array, places: readonly number[], w: number, h: number): number {
  const wide = Math.ceil(w / (4 * CELL));
  const [sums, counts] = [0, 0].map(() => new Float32Array(wide * Math.ceil(h / (4 * CELL)))) as [
    Float32Array,
    Float32Array,
  ];
  for (const at of places) {
    const cell = Math.floor(Math.floor(at / w) / (4 * CELL)) * wide + Math.floor((at % w) / (4 * CELL));
    sums[cell]! += luma[at]!;
    counts[cell]!++;
  }
  // a display-encoded luma, about its square in light
  const lights = [...sums]
    .flatMap((sum, i) => (counts[i]! > 8 ? [(sum / counts[i]!) ** 2.2] : []))
    .sort((a, b) => a - b);
  if (lights.length < 4) return 0;
  const [low, high] = [lights[Math.floor(lights.length * 0.05)]!, lights[Math.floor(lights.length * 0.95)]!];
  return (high - low) / (high + low);
}

function histogramOf(unlike: Float32Array): number[] {
  const bins = new Array<number>(BINS).fill(0);
  for (const v of unlike) bins[Math.min(BINS - 1, Math.floor(v * BINS))]!++;
  return bins;
}
