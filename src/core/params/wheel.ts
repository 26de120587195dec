import { z } from 'zod';
import type { Wheel } from '../base/wheeled';
import { defineKind, type Declared, type ParamBase } from './define';

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
