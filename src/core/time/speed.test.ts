import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Ease, Key, Value } from '../base/value';
import { lengthFor, sourceFramesTo } from './speed';
import { steadyAt } from './values';

const eases: fc.Arbitrary<Ease> = fc.oneof(
  fc.constantFrom<Ease>('hold', 'linear', 'smooth', { bounce: 2 }),
  fc
    .tuple(
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 2, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: -1, max: 2, noNaN: true }),
    )
    .map((cubic): Ease => ({ cubic })),
);
const speeds: fc.Arbitrary<Value<number>> = fc
  .array(
    fc.record({
      gap: fc.integer({ min: 1, max: 40 }),
      value: fc.double({ min: -3, max: 4, noNaN: true }),
      ease: eases,
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((list) => {
    let at = -7;
    return { keys: list.map(({ gap, value, ease }): Key<number> => ({ at: (at += gap), value, ease })) };
  });

/** The integral by brute force: midpoints of very short pieces. */
function summed(speed: Value<number>, from: number, to: number): number {
  const pieces = 4000;
  let sum = 0;
  for (let i = 0; i < pieces; i++) sum += steadyAt(speed, from + ((to - from) * (i + 0.5)) / pieces);
  return (sum * (to - from)) / pieces;
}

describe('source time', () => {
  test('is the integral of the speed, to a thousandth of a frame', () => {
    // holds jump, and there the brute force itself is coarse: one piece wide
    fc.assert(
      fc.property(speeds, fc.double({ min: 0, max: 40, noNaN: true }), (speed, frame) => {
        const jumps = 'keys' in speed ? speed.keys.filter((key) => key.ease === 'hold').length : 0;
        expect(Math.abs(sourceFramesTo(speed, frame) - summed(speed, 0, frame))).toBeLessThan(
          0.001 + jumps * 7 * (frame / 4000),
        );
      }),
      { numRuns: 60 },
    );
  });

  test('a straight ramp is the area of a trapezium; backwards counts down; still stands still', () => {
    const ramp: Value<number> = {
      keys: [
        { at: 0, value: 1, ease: 'linear' },
        { at: 24, value: 0.25, ease: 'linear' },
      ],
    };
    expect(sourceFramesTo(ramp, 24)).toBeCloseTo(24 * 0.625, 9);
    expect(sourceFramesTo(ramp, 12)).toBeCloseTo((12 * (1 + 0.625)) / 2, 9);
    expect(sourceFramesTo(ramp, 48)).toBeCloseTo(24 * 0.625 + 24 * 0.25, 9);
    expect(sourceFramesTo({ still: -2 }, 10)).toBe(-20);
    expect(sourceFramesTo({ still: 0 }, 10)).toBe(0);
  });

  test('is continuous: a shot frame further never takes more than the fastest speed', () => {
    fc.assert(
      fc.property(speeds, fc.integer({ min: 0, max: 60 }), (speed, frame) => {
        const step = Math.abs(sourceFramesTo(speed, frame + 1) - sourceFramesTo(speed, frame));
        const fastest = Math.max(...Array.from({ length: 201 }, (_, i) => Math.abs(steadyAt(speed, frame + i / 200))));
        expect(step).toBeLessThanOrEqual(fastest * 1.02 + 0.02);
      }),
    );
  });

  test('the length for a stretch of source is the first at which it has gone by', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        fc.integer({ min: 5, max: 100 }),
        (a, b, frames) => {
          const speed: Value<number> = {
            keys: [
              { at: 0, value: a, ease: 'linear' },
              { at: 20, value: b, ease: 'linear' },
            ],
          };
          const length = lengthFor(speed, frames, 5000)!;
          expect(sourceFramesTo(speed, length)).toBeGreaterThanOrEqual(frames - 1e-5);
          if (length > 1) expect(sourceFramesTo(speed, length - 1)).toBeLessThan(frames + 1e-5);
        },
      ),
    );
    expect(lengthFor({ still: 0 }, 10, 100)).toBeNull();
    expect(lengthFor({ still: 0.5 }, 10, 100)).toBe(20);
  });
});
