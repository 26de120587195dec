import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';
import { brightnessMatte } from './brightness-key';
import type { PlainValues } from '../params/registry';
import { hueShare } from './hue-key';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(16e6);
});

/** Alpha of solid display colours after a pass with these values. */
function alphas(type: string, colours: readonly (readonly [number, number, number])[], values: PlainValues): number[] {
  const rect = { x: 0, y: 0, w: colours.length, h: 1 };
  const picture = pictureOf(
    rig,
    rect,
    colours.flatMap((colour) => [...colour, 1]),
  );
  const out = runPass(rig, type, values, picture);
  const data = floatsOf(rig, out);
  out.release();
  return colours.map((_, i) => data[i * 4 + 3]!);
}
const grey = (v: number) => [v, v, v] as const;
const unit = fc.double({ min: 0, max: 1, noNaN: true });

describe('brightness key', () => {
  test('is solid above its ramp, clear below, half way in its middle; dark is the mirror of bright', () => {
    const values = { threshold: 0.5, softness: 0.2 };
    const [black, low, middle, high, white] = alphas('brightness-key', [0, 0.39, 0.5, 0.61, 1].map(grey), values);
    expect([black, low, high, white]).toEqual([0, 0, 1, 1]);
    expect(middle).toBeCloseTo(0.5, 2);
    fc.assert(
      fc.property(unit, (v) => {
        const [bright] = alphas('brightness-key', [grey(v)], values);
        const [dark] = alphas('brightness-key', [grey(v)], { ...values, keep: 'dark' });
        expect(bright! + dark!).toBeCloseTo(1, 2);
      }),
      { numRuns: 40 },
    );
  });

  test('follows its formula over all dials, to the table’s step', () => {
    fc.assert(
      fc.property(
        unit,
        unit,
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 0.4, max: 3, noNaN: true }),
        (luma, threshold, softness, gamma) => {
          const v = { threshold, softness, clipBlack: 0.1, clipWhite: 0.9, gamma };
          const raw = Math.min(1, Math.max(0, (luma - threshold) / softness + 0.5));
          expect(brightnessMatte(luma, v)).toBeCloseTo(Math.min(1, Math.max(0, (raw - 0.1) / 0.8)) ** (1 / gamma), 9);
          expect(Math.abs(alphas('brightness-key', [grey(luma)], v)[0]! - brightnessMatte(luma, v))).toBeLessThan(0.12);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('limited to near grey it leaves colours alone, however dark', () => {
    const [dark, red] = alphas('brightness-key', [grey(0.1), [0.3, 0.02, 0.02]], { grey: 0.1 });
    expect([dark, red]).toEqual([0, 1]);
  });
});

describe('hue key', () => {
  const colours = [
    [1, 0, 0],
    [1, 1, 0],
    [0, 1, 0],
    [0, 0, 1],
    [0.5, 0.5, 0.5],
  ] as const;

  test('keeps one range or all but it; greys belong to none', () => {
    expect(alphas('hue-key', colours, { hue: 0, width: 40, softness: 10 }).map(Math.round)).toEqual([1, 0, 0, 0, 0]);
    expect(alphas('hue-key', colours, { hue: 0, width: 40, softness: 10, keep: 'rest' }).map(Math.round)).toEqual([
      0, 1, 1, 1, 1,
    ]);
    expect(alphas('hue-key', colours, { hue: 120, width: 40, softness: 10 }).map(Math.round)).toEqual([0, 0, 1, 0, 0]);
  });

  test('goes round the circle: a range about red takes hues on both of its sides', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -720, max: 720, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        unit,
        (hue, centre, share) => {
          const [width, softness] = [60, 30];
          expect(hueShare(hue, centre, width, softness)).toBeCloseTo(hueShare(hue + 360, centre, width, softness), 6);
          expect(hueShare(centre + share * 30, centre, width, softness)).toBe(1);
          expect(hueShare(centre - 45, centre, width, softness)).toBeCloseTo(0.5, 6);
        },
      ),
    );
  });
});
