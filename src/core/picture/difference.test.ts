import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differenceOf, labOf, type Lab } from './difference';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const colour = fc.tuple(unit, unit, unit);

describe('colour difference', () => {
  /** Published pairs. Source: Sharma, Wu and Dalal, The CIEDE2000 color-difference formula, table 1. */
  test.each<[Lab, Lab, number]>([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
    [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
    [[50, -1.3802, -84.2814], [50, 0, -82.7485], 1],
    [[50, 0, 0], [50, -1, 2], 2.3669],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.5, 0], [61, -5, 29], 22.8977],
    [[50, 2.5, 0], [56, -27, -3], 31.903],
    [[50, 2.5, 0], [58, 24, 15], 19.4535],
    [[60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387], 1.2644],
  ])('of %j and %j is as published', (a, b, expected) => {
    expect(differenceOf(a, b)).toBeCloseTo(expected, 3);
    expect(differenceOf(b, a)).toBeCloseTo(expected, 3);
  });

  test('is none between a colour and itself, and is the same both ways', () => {
    fc.assert(
      fc.property(colour, colour, (a, b) => {
        const [p, q] = [labOf(a), labOf(b)];
        expect(differenceOf(p, p)).toBe(0);
        expect(differenceOf(p, q)).toBeCloseTo(differenceOf(q, p), 9);
      }),
    );
  });

  test('greys have no colour, white is 100 and middle grey, 18 % of the light, about 50', () => {
    fc.assert(
      fc.property(unit, (v) => {
        const [, a, b] = labOf([v, v, v]);
        expect(Math.hypot(a, b)).toBeLessThan(1e-9);
      }),
    );
    expect(labOf([1, 1, 1])[0]).toBeCloseTo(100, 9);
    expect(labOf([0.4613, 0.4613, 0.4613])[0]).toBeCloseTo(49.5, 0);
    // the primaries of sRGB as published by Lindbloom, under D65
    const [L, a, b] = labOf([1, 0, 0]);
    expect(L).toBeCloseTo(53.24, 1);
    expect(a).toBeCloseTo(80.09, 1);
    expect(b).toBeCloseTo(67.2, 1);
  });
});
