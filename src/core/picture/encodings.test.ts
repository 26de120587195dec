import { describe, expect, test } from '@jest/globals';
import { fromLimited, LOG_CURVES, PRIMARIES, toBt709, type PrimariesName } from './encodings';
import { times } from './white';

describe('recorded values', () => {
  /** Code values of reflectances as their makers and standards publish them. */
  test.each([
    ['slog3', 95 / 1023, 0],
    ['slog3', 420 / 1023, 0.18],
    ['slog3', 598 / 1023, 0.9],
    ['vlog', 128 / 1023, 0],
    ['vlog', 433 / 1023, 0.18],
    ['vlog', 602 / 1023, 0.9],
    ['acescct', 0.4135884, 0.18],
    ['acescct', 0.0729055, 0],
    ['hlg', 0.75, 1],
    ['hlg', 0.38, 0.18],
    ['pq', 0.508078, 100 / 203],
    ['pq', 0.751827, 1000 / 203],
    ['pq', 0, 0],
  ] as const)('of %s: %d is %d of the light', (curve, value, light) => {
    expect(Math.abs(LOG_CURVES[curve].light(value) - light)).toBeLessThan(0.006);
  });

  test.each(Object.entries(LOG_CURVES))('of %s rise all the way, without a step', (_, { light }) => {
    for (let v = 0.01; v < 1; v += 0.001) {
      const [a, b, c] = [light(v - 0.001), light(v), light(v + 0.001)];
      expect(b).toBeGreaterThanOrEqual(a);
      // a step would show as a rise that has nothing to do with those beside it
      expect(c - b).toBeLessThan(2.5 * (b - a) + 2e-4);
    }
  });

  test('of a video file stand on its black: 64 of 1023', () => {
    expect(fromLimited(0) * 1023).toBeCloseTo(64, 9);
    expect(fromLimited(1) * 1023).toBeCloseTo(940, 9);
  });
});

describe('primaries', () => {
  test('of BT.2020 become those of BT.709 as BT.2087 has it, and ACES AP1 as the Academy has it', () => {
    const close = (name: PrimariesName, published: readonly number[]) =>
      toBt709(name).forEach((v, i) => expect(Math.abs(v - published[i]!)).toBeLessThan(0.002));
    close('bt2020', [1.6605, -0.5876, -0.0728, -0.1246, 1.1329, -0.0083, -0.0182, -0.1006, 1.1187]);
    close('ap1', [1.70505, -0.62179, -0.08326, -0.13026, 1.1408, -0.01055, -0.024, -0.12897, 1.15297]);
  });

  test.each(Object.keys(PRIMARIES) as PrimariesName[])('of %s leave grey grey', (name) => {
    times(toBt709(name), [0.4, 0.4, 0.4]).forEach((v) => expect(v).toBeCloseTo(0.4, 9));
  });
});
