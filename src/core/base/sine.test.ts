import { expect, test } from '@jest/globals';
import { cosineOf, sineOf } from './sine';

test('a sine and a cosine of turns are those of their angles, all round and far on', () => {
  for (const from of [-3, 0, 0.5, 1000, -70_000])
    for (let k = 0; k <= 360; k++) {
      const turns = from + k / 360;
      expect(Math.abs(sineOf(turns) - Math.sin(2 * Math.PI * turns))).toBeLessThan(2e-9);
      expect(Math.abs(cosineOf(turns) - Math.cos(2 * Math.PI * turns))).toBeLessThan(2e-9);
    }
  expect([0, 0.5, 1].map(sineOf)).toEqual([0, 0, 0]);
  expect(sineOf(0.25)).toBeCloseTo(1, 8);
});
