import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

/** A place in the picture. Stored in pixels at full size from its centre, y down; resolved from its top left at the plan's scale. */
export interface PointParam extends ParamBase<readonly [number, number]> {
  kind: 'point';
  default: readonly [number, number];
}
export const point = (p: Declared<PointParam>): PointParam => ({ kind: 'point', ...p });

const tenth = (v: number): number => Math.round(v * 10) / 10 + 0;
const part = z.number().min(-1e6).max(1e6);

export const pointKind = defineKind<PointParam>({
  kind: 'point',
  schema: () => z.tuple([part, part]),
  numbers: () => ({ names: ['x', 'y'], unit: 'px', min: -1e6, max: 1e6 }),
  resolve(_, value, { moment, size }) {
    const [x, y] = value as [number, number];
    return [x / moment.reduction + size.w / 2, y / moment.reduction + size.h / 2];
  },
  grip: (_, value) => ({ at: value as [number, number], put: ([x, y]) => [tenth(x), tenth(y)] }),
  range: () => 'a place, px from the middle',
});
