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

/** A colour of a ramp at a place 0…1, display-encoded. */
export function rampAt(stops: readonly RampStop[], place: number): [number, number, number] {
  const after = stops.findIndex(([at]) => at >= place);
  const [to, from] = [
    stops[after < 0 ? stops.length - 1 : after]!,
    stops[Math.max(0, after < 0 ? stops.length - 1 : after - 1)]!,
  ];
  const share = to[0] > from[0] ? (place - from[0]) / (to[0] - from[0]) : 1;
  return from[1].map((part, c) => part + (to[1][c]! - part) * Math.min(1, Math.max(0, share))) as [
    number,
    number,
    number,
  ];
}
