import { describe, expect, test } from '@jest/globals';
import { PASSES } from '../passes/registry';
import { SOURCES } from '../sources/registry';
import { gripOf, type Param } from './registry';

const size = { w: 640, h: 360 };
const declared = [...PASSES, ...SOURCES].flatMap(({ type, params }) =>
  Object.keys(params).map((name) => ({ type, name, params: params as Record<string, Param> })),
);
const around = (params: Record<string, Param>, values: Record<string, unknown>) => ({
  size,
  params,
  now: (name: string) => (name in values ? values[name] : params[name]!.default),
});
const held = declared.filter(({ name, params }) => gripOf(params[name]!, params[name]!.default, around(params, {})));

test('a crop has four grips, a gradient two', () => {
  const of = (type: string) => held.filter((item) => item.type === type).map((item) => item.name);
  expect(of('crop')).toEqual(['left', 'top', 'right', 'bottom']);
  expect(of('gradient')).toEqual(['from', 'to']);
});

describe.each(held)('$type: $name', ({ name, params }) => {
  const param = params[name]!;
  const at = (value: unknown) => gripOf(param, value, around(params, { [name]: value }))!;
  test('put where it is, it changes nothing', () => {
    const grip = at(param.default);
    expect(grip.put(grip.at)).toEqual(param.default);
  });
  test('it lies where it was put', () => {
    const moved = at(at(param.default).put([-40, -25]));
    expect(moved.at).toContain(moved.line && moved.at[0] === 0 ? -25 : -40);
    if (!moved.line) expect(moved.at).toEqual([-40, -25]);
  });
});

test('an edge goes no further than the one opposite and stays inside the picture', () => {
  const { params } = PASSES.find((item) => item.type === 'crop')!;
  const left = gripOf(params['left'] as Param, 10, around(params as Record<string, Param>, { left: 10, right: 500 }))!;
  expect(left.put([1000, 0])).toBe(140);
  expect(left.put([-1000, 0])).toBe(0);
  expect(left.at).toEqual([-310, 0]);
  expect(left.line).toEqual([
    [-310, -180],
    [-310, 180],
  ]);
});
