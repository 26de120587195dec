import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

/** A colour that is added, as a place in a disc (right red, then over yellow and green against the clock), and a level for all channels. */
export type Wheel = readonly [x: number, y: number, level: number];
export interface WheelParam extends ParamBase<Wheel> {
  kind: 'wheel';
  default: Wheel;
  /** one letter for its handle on the ring */
  mark: string;
}
export const wheel = (p: Omit<Declared<WheelParam>, 'default'>): WheelParam => ({
  kind: 'wheel',
  default: [0, 0, 0],
  ...p,
});

const part = z.number().min(-1).max(1);
export const wheelKind = defineKind<WheelParam>({
  kind: 'wheel',
  schema: () => z.tuple([part, part, part]),
  numbers: () => ({ names: ['towards red', 'towards yellow-green', 'level'], unit: '', min: -1, max: 1 }),
  range: () => 'a place in a disc, and a level of −1 to 1',
});

/** What a wheel adds to red, green and blue; together nothing but its level. */
export const wheelChannels = ([x, y]: Wheel): readonly [number, number, number] => [
  x,
  -x / 2 + (y * Math.sqrt(3)) / 2,
  -x / 2 - (y * Math.sqrt(3)) / 2,
];
