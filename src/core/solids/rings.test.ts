import { describe, expect, test } from '@jest/globals';
import type { Ring } from '../masks/path';
import { platesOf, strokeOf } from './rings';

/** A rectangle that goes round clockwise, or the other way. */
const box = (left: number, top: number, right: number, bottom: number, turns = 1): Ring => {
  const ring = [left, top, right, top, right, bottom, left, bottom];
  return Float64Array.from(
    turns > 0 ? ring : [...ring].reverse().flatMap((_, i, all) => (i % 2 ? [] : [all[i + 1]!, all[i]!])),
  );
};

describe('outlines and their holes', () => {
  test('every second ring from outside is a hole, however it goes round', () => {
    const nested = [box(40, 40, 60, 60), box(0, 0, 100, 100), box(20, 20, 80, 80)];
    const plates = platesOf(nested, false);
    expect(plates.map(({ outline, holes }) => [outline, holes])).toEqual([
      [nested[1], [nested[2]]],
      [nested[0], []],
    ]);
  });

  test('in letters only what goes round the other way is a hole: strokes may lie over each other', () => {
    const stroke = box(10, -5, 20, 60);
    const [body, eye] = [box(0, 0, 100, 50), box(60, 10, 90, 40, -1)];
    const plates = platesOf([stroke, eye, body], true);
    expect(plates).toHaveLength(2);
    expect(plates.find(({ outline }) => outline === body)!.holes).toEqual([eye]);
    expect(plates.find(({ outline }) => outline === stroke)!.holes).toEqual([]);
  });

  test('a hole belongs to what is right around it', () => {
    const [big, little] = [box(0, 0, 100, 100), box(200, 0, 230, 30)];
    const [inBig, inLittle] = [box(10, 10, 90, 90, -1), box(210, 10, 220, 20, -1)];
    const plates = platesOf([inLittle, big, inBig, little], true);
    expect(plates.find(({ outline }) => outline === little)!.holes).toEqual([inLittle]);
    expect(plates.find(({ outline }) => outline === big)!.holes).toEqual([inBig]);
  });

  test('what encloses nothing is left out', () => {
    expect(platesOf([Float64Array.of(0, 0, 10, 0, 20, 0), Float64Array.of(1, 1)], false)).toEqual([]);
  });

  test('a long strip is as wide as its stroke', () => {
    expect(strokeOf(platesOf([box(0, 0, 4000, 12)], false))).toBeCloseTo(12, 1);
    expect(strokeOf([])).toBe(0);
  });
});
