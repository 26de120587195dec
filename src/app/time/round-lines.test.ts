import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { roundLines } from './round-lines';

test('lines stand at round numbers inside the range, about as many as fit', () => {
  expect(roundLines([0, 100], 5)).toEqual([0, 20, 40, 60, 80, 100]);
  expect(roundLines([-760, 420], 3)).toEqual([-500, 0]);
  fc.assert(
    fc.property(
      fc.double({ min: -1e5, max: 1e5, noNaN: true }),
      fc.double({ min: 1e-3, max: 1e5, noNaN: true }),
      fc.integer({ min: 2, max: 12 }),
      (low, wide, most) => {
        const lines = roundLines([low, low + wide], most);
        expect(lines.length).toBeLessThanOrEqual(most + 1);
        for (const [i, v] of lines.entries()) {
          expect(v).toBeGreaterThanOrEqual(low - wide * 1e-6);
          expect(v).toBeLessThanOrEqual(low + wide * (1 + 1e-6));
          if (i) expect(Number((v - lines[i - 1]!).toPrecision(6)).toExponential()).toMatch(/^[125]e/);
        }
      },
    ),
  );
});
