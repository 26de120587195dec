import type { CoveragePlan } from '../masks/coverage';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';
import type { PassPlan } from '../plan/types';

/** What is measured, and with what. */
export interface Measured {
  kernels: Kernels;
  arena: Arena;
  /** the layer's picture after its passes, in its source's space; computed when first asked for, not owned by the measure */
  picture(): Promise<Picture>;
  /** the same as straight 8-bit RGBA */
  bytes(): Promise<{ data: Uint8ClampedArray; w: number; h: number }>;
  /** a picture of its own taken through passes; it is given up, and the result is owned by the caller */
  through(passes: readonly PassPlan[], picture: Picture): Picture;
  /** coverage of masks over the layer's whole source, one float a pixel, not to be changed */
  coverage(plan: CoveragePlan): Promise<{ w: number; h: number; plane: Float32Array }>;
}

/** Turns a picture into plain data. */
export interface Measure<Options, Result> {
  /** what it tells */
  help: string;
  run(of: Measured, options: Options): Promise<Result>;
}
/** Declares a measure: one file, found by its name in the registry. */
export const defineMeasure = <Options, Result>(measure: Measure<Options, Result>): Measure<Options, Result> => measure;
