// Clouds as planes of numbers.
import type { Arena } from './arena';
import type { Kernels } from './kernels';

export interface CloudForm {
  /** of the largest grains, in pixels across and upright */
  grain: readonly [number, number];
  /** where the first pixel lies, in whole pixels; a part of a picture has the same clouds as all of it */
  from: readonly [number, number];
  /** how far they have moved, in pixels */
  moved: readonly [number, number];
  /** how far they have changed, in grains */
  turned: number;
  /** layers of half the grain each; a fraction of one more fades in */
  layers: number;
  /** how strong each layer is beside the one before, 0…1 */
  rough: number;
  /** folded, so that there are veins */
  veins: boolean;
  seed: number;
}
/** A grain is drawn by so many places, with straight lines between them; the finer layers, which are weaker, by fewer. */
const [FINE, COARSE] = [16, 7];

/** Fills a w×h plane of floats with clouds: about −1…1, with a mean of 0 unless there are veins. @param at address, room for w·h floats */
export function cloudPlane(
  { kernels, arena }: { kernels: Kernels; arena: Arena },
  at: number,
  w: number,
  h: number,
  { grain, from, moved, turned, layers, rough, veins, seed }: CloudForm,
): void {
  kernels.fillPlane(at, w * h, 0);
  const weights = Array.from({ length: Math.ceil(layers) }, (_, k) => rough ** k * Math.min(1, layers - k));
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  weights.forEach((weight, k) => {
    const [wide, tall] = grain.map((size) => Math.max(1, size / 2 ** k)) as [number, number];
    const step = Math.max(1, Math.floor(Math.min(wide, tall) / (k < 2 ? FINE : COARSE)));
    const [left, top] = from.map((v) => step * Math.floor(v / step)) as [number, number];
    const [inX, inY] = [from[0] - left, from[1] - top];
    const [cw, ch] = [Math.floor((w - 1 + inX) / step) + 2, Math.floor((h - 1 + inY) / step) + 2];
    // far from where another layer was made, so that none repeats another
    const [x, y] = [(left - moved[0]) / wide + 37.3 * k, (top - moved[1]) / tall + 91.7 * k];
    const z = turned * 2 ** (k / 2) + 13.1 * k;
    arena.scratch(cw * ch * 4, (coarse) => {
      kernels.noisePlane(coarse, cw, ch, x, y, z, step / wide, step / tall, seed);
      kernels.addCoarse(coarse, cw, step, inX, inY, at, w, h, weight / all, veins ? 1 : 0);
    });
  });
}
