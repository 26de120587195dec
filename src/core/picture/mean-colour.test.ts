import { describe, expect, test } from '@jest/globals';
import { meanColour } from './mean-colour';

/** Two by two: red, green, blue half covered, clear white. */
const pixels = new Uint8ClampedArray([255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 128, 255, 255, 255, 0]);

describe('the mean colour of a part', () => {
  test('is that of its pixels', () => {
    expect(meanColour(pixels, 2, { x: 0, y: 0, w: 1, h: 1 })).toEqual([1, 0, 0]);
    expect(meanColour(pixels, 2, { x: 0, y: 0, w: 2, h: 1 })).toEqual([0.5, 0.5, 0]);
  });

  test('counts each pixel by what it covers; what is clear has no colour', () => {
    const [r, g, b] = meanColour(pixels, 2, { x: 0, y: 0, w: 2, h: 2 });
    const whole = 255 + 255 + 128;
    [r, g, b].forEach((got, c) => expect(got).toBeCloseTo([255, 255, 128][c]! / whole, 9));
    expect(meanColour(pixels, 2, { x: 1, y: 1, w: 1, h: 1 })).toEqual([0, 0, 0]);
  });
});
