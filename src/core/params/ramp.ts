import { z } from 'zod';
import { colourSchema } from './colour';
import { defineKind, type Colour, type Declared, type ParamBase } from './define';

/** A colour at a place of a ramp, 0…1. */
export type RampStop = readonly [at: number, colour: Colour];

/** Colours that go over into each other, the first place first. Before the first and after the last it is even. */
export interface RampParam extends ParamBase<readonly RampStop[]> {
  kind: 'ramp';
  default: readonly RampStop[];
}
export const ramp = (p: Declared<RampParam>): RampParam => ({ kind: 'ramp', ...p });

/** Most colours of a ramp. */
export const MOST_STOPS = 16;
const stop = z.tuple([z.number().min(0).max(1), colourSchema]);

export const rampKind = defineKind<RampParam>({
  kind: 'ramp',
  schema: () =>
    z
      .array(stop)
      .min(2)
      .max(MOST_STOPS)
      .refine((stops) => stops.every(([at], i) => i === 0 || stops[i - 1]![0] <= at), 'places must ascend'),
  range: () => `2 to ${MOST_STOPS} colours and their places`,
});
