import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { kindOf } from './registry';
import { curve, curveAt, isStraight, STRAIGHT, type CurvePoint, FLAT, placeOn, withPointAt } from './curve';

const share = fc.integer({ min: 0, max: 1000 }).map((v) => v / 1000);
const curves: fc.Arbitrary<CurvePoint[]> = fc
  .uniqueArray(fc.tuple(share, share), { minLength: 2, maxLength: 8, selector: ([from]) => from })
  .map((points) => points.sort((a, b) => a[0] - b[0]));

test('a curve goes through its points and never leaves the range of the two it is between', () => {
  fc.assert(
    fc.property(curves, share, (points, x) => {
      points.forEach(([from, to]) => expect(curveAt(points, from)).toBeCloseTo(to, 9));
      const i = points.findLastIndex(([from]) => from <= x);
      if (i < 0 || i === points.length - 1) return;
      const [a, b] = [points[i]![1], points[i + 1]![1]];
      const y = curveAt(points, x);
      expect(y).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
      expect(y).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
    }),
  );
});

test('two points are a straight line, even before the first, and light beyond white is not cut', () => {
  expect(
    [0, 0.25, 1].map((x) =>
      curveAt(
        [
          [0.2, 0.1],
          [0.7, 0.6],
        ],
        x,
      ),
    ),
  ).toEqual([0.1, expect.closeTo(0.15, 9), 0.6]);
  expect(curveAt(STRAIGHT, 1.5)).toBeCloseTo(1.5, 9);
  expect(isStraight(STRAIGHT)).toBe(true);
  expect(
    isStraight([
      [0, 0],
      [0.5, 0.6],
      [1, 1],
    ]),
  ).toBe(false);
});

test('what is stored has points that ascend, at least two, all within the range', () => {
  const schema = kindOf(curve({ label: 'x', help: 'x', default: STRAIGHT })).schema(undefined as never);
  const fits = (value: unknown) => schema.safeParse(value).success;
  expect(fits(STRAIGHT)).toBe(true);
  expect(fits([[0, 0]])).toBe(false);
  expect(
    fits([
      [0.5, 0],
      [0.5, 1],
    ]),
  ).toBe(false);
  expect(
    fits([
      [0, 0],
      [1, 1.01],
    ]),
  ).toBe(false);
});

describe('a point picked by a colour', () => {
  test('lies at its hue, brightness or channel, on the curve as it is', () => {
    expect(placeOn({ over: 'hue' }, [0.1, 0.6, 0.1])).toBeCloseTo(1 / 3, 6);
    expect(placeOn({ over: 'saturation' }, [0.8, 0.4, 0.4])).toBeCloseTo(0.5, 6);
    expect(placeOn({}, [0.5, 0.5, 0.5])).toBeCloseTo(0.5, 6);
    expect(placeOn({ tone: 'blue' }, [0.1, 0.2, 0.7])).toBe(0.7);
    const more = withPointAt(FLAT, 1 / 3)!;
    expect(more).toEqual([
      [0, 0.5],
      [0.333, 0.5],
      [1, 0.5],
    ]);
    // a hue is held apart from those beside it, over the end of the circle too
    expect(withPointAt(FLAT, 0.05, true)!.map(([at]) => at)).toEqual([0, 0.05, 0.14, 0.96, 1]);
    // what is there twice would be no curve
    expect(withPointAt(more, 0.334)).toBeNull();
  });
});
