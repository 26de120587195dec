import { automatic } from './automatic';
import { coverage } from './coverage';
import { findScreen } from './find-screen';
import { flatness } from './flatness';
import { gradeTable } from './grade-table';
import { keyCheck } from './key-check';
import { keyPlate } from './key-plate';
import { luma } from './luma';
import { match } from './match';
import { matte } from './matte';
import { mean } from './mean';
import { screenShare } from './screen-share';
import { surface } from './surface';
import { surfaceOf } from './surface-of';

/** Every measure there is. */
export const MEASURES = {
  automatic,
  coverage,
  findScreen,
  flatness,
  gradeTable,
  keyCheck,
  keyPlate,
  luma,
  match,
  matte,
  mean,
  screenShare,
  surface,
  surfaceOf,
};
export type MeasureName = keyof typeof MEASURES;
export type OptionsOf<N extends MeasureName> = Parameters<(typeof MEASURES)[N]['run']>[1];
export type ResultOf<N extends MeasureName> = Awaited<ReturnType<(typeof MEASURES)[N]['run']>>;
