import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

export interface BooleanParam extends ParamBase<boolean> {
  kind: 'boolean';
  default: boolean;
}
export const boolean = (p: Declared<BooleanParam>): BooleanParam => ({ kind: 'boolean', ...p });

export const booleanKind = defineKind<BooleanParam>({
  kind: 'boolean',
  schema: () => z.boolean(),
  range: () => 'yes or no',
});
