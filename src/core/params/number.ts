import { z } from 'zod';
import { defineKind, ONE, shown, type Around, type Declared, type Grip, type ParamBase, type Unit } from './define';

type Edge = 'left' | 'top' | 'right' | 'bottom';
export interface NumberParam extends ParamBase<number> {
  kind: 'number';
  unit: Unit;
  default: number;
  min: number;
  max: number;
  slider: readonly [number, number];
  /** it is the distance from this edge of the picture, which shows it */
  edge?: Edge;
}
export const number = (p: Declared<NumberParam>): NumberParam => ({ kind: 'number', ...p });

export const numberKind = defineKind<NumberParam>({
  kind: 'number',
  schema: ({ min, max }) => z.number().min(min).max(max),
  numbers: ({ unit, min, max }) => ({ names: ONE, unit, min, max }),
  resolve: ({ unit, min, max }, value, { moment }) =>
    Math.min(max, Math.max(min, value as number)) / (unit === 'px' ? moment.reduction : 1),
  grip: ({ edge }, _, around) => (edge ? edgeGrip(edge, around) : null),
  range: ({ unit, min, max }) => `${shown(min, unit)} to ${shown(max, unit)}`,
});

/** A side of the rectangle that all distances from edges leave; it moves up to the side opposite. */
function edgeGrip(edge: Edge, { size: { w, h }, params, now }: Around): Grip {
  const from = (side: Edge): number => {
    const name = Object.keys(params).find((key) => (params[key] as NumberParam).edge === side);
    return name === undefined ? 0 : (now(name) as number);
  };
  const [left, top, right, bottom] = [
    from('left') - w / 2,
    from('top') - h / 2,
    w / 2 - from('right'),
    h / 2 - from('bottom'),
  ];
  const upright = edge === 'left' || edge === 'right';
  const at = { left, top, right, bottom }[edge];
  const middle = upright ? (top + bottom) / 2 : (left + right) / 2;
  const most = upright ? w - from(edge === 'left' ? 'right' : 'left') : h - from(edge === 'top' ? 'bottom' : 'top');
  const depth = ([x, y]: readonly [number, number]): number =>
    ({ left: w / 2 + x, top: h / 2 + y, right: w / 2 - x, bottom: h / 2 - y })[edge];
  return {
    at: upright ? [at, middle] : [middle, at],
    line: upright
      ? [
          [at, top],
          [at, bottom],
        ]
      : [
          [left, at],
          [right, at],
        ],
    put: (to) => Math.max(0, Math.min(most, Math.round(depth(to)))),
  };
}
