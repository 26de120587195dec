import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

/** Another number, another chance. */
export interface SeedParam extends ParamBase<number> {
  kind: 'seed';
  default: number;
}
export const seed = (p: Declared<SeedParam>): SeedParam => ({ kind: 'seed', ...p });

export const seedKind = defineKind<SeedParam>({
  kind: 'seed',
  schema: () => z.number().min(0).max(1_000_000),
  resolve: (_, value) => Math.round(value as number),
  range: () => 'a whole number',
});
