import { z } from 'zod';
import { defineKind, ONE, shown, type Declared, type ParamBase, type Unit } from './define';

export interface NumberParam extends ParamBase<number> {
  kind: 'number';
  unit: Unit;
  default: number;
  min: number;
  max: number;
  slider: readonly [number, number];
}
export const number = (p: Declared<NumberParam>): NumberParam => ({ kind: 'number', ...p });

export const numberKind = defineKind<NumberParam>({
  kind: 'number',
  schema: ({ min, max }) => z.number().min(min).max(max),
  numbers: ({ unit, min, max }) => ({ names: ONE, unit, min, max }),
  resolve: ({ unit, min, max }, value, { moment }) =>
    Math.min(max, Math.max(min, value as number)) / (unit === 'px' ? moment.reduction : 1),
  range: ({ unit, min, max }) => `${shown(min, unit)} to ${shown(max, unit)}`,
});
