import { z } from 'zod';
import { defineKind, ONE, type Declared, type ParamBase } from './define';

/** Degrees clockwise; whole turns may pile up in keyframes. */
export interface AngleParam extends ParamBase<number> {
  kind: 'angle';
  default: number;
}
export const angle = (p: Declared<AngleParam>): AngleParam => ({ kind: 'angle', ...p });
const MOST = 36_000;

export const angleKind = defineKind<AngleParam>({
  kind: 'angle',
  schema: () => z.number().min(-MOST).max(MOST),
  numbers: () => ({ names: ONE, unit: '°', min: -MOST, max: MOST }),
  range: () => 'degrees clockwise',
});
