import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

/** Width and height in whole pixels at full size. */
export interface SizeParam extends ParamBase<readonly [number, number]> {
  kind: 'size';
  default: readonly [number, number];
}
export const size = (p: Declared<SizeParam>): SizeParam => ({ kind: 'size', ...p });

const side = z.int().min(1).max(16384);

export const sizeKind = defineKind<SizeParam>({
  kind: 'size',
  schema: () => z.tuple([side, side]),
  range: () => 'width and height, 1 to 16384 px',
});
