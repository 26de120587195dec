import { beforeAll, describe, expect, test } from '@jest/globals';
import type { PlainValues } from '../params/registry';
import type { Rect } from '../picture/rect';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});

const SIDE = 160;
const WHOLE: Rect = { x: 0, y: 0, w: SIDE, h: SIDE };
/** What it adds to a flat picture, by channel. */
function added(values: PlainValues, grey = 0.5, alpha = 1, rect = WHOLE): number[][] {
  const flat = Array.from({ length: rect.w * rect.h }, () => [grey * alpha, grey * alpha, grey * alpha, alpha]).flat();
  const out = runPass(rig, 'grain', { amount: 0.05, ...values }, pictureOf(rig, rect, flat));
  const floats = floatsOf(rig, out);
  out.release();
  return [0, 1, 2].map((c) => Array.from({ length: rect.w * rect.h }, (_, i) => floats[i * 4 + c]! / alpha - grey));
}
const mean = (list: readonly number[]): number => list.reduce((sum, v) => sum + v, 0) / list.length;
const deviation = (list: readonly number[]): number => {
  const middle = mean(list);
  return Math.sqrt(mean(list.map((v) => (v - middle) ** 2)));
};
/** How alike two lists are, −1…1. */
const alike = (a: readonly number[], b: readonly number[]): number => {
  const [p, q] = [mean(a), mean(b)];
  return mean(a.map((v, i) => (v - p) * (b[i]! - q))) / (deviation(a) * deviation(b));
};
const beside = (list: readonly number[], by: number): [number[], number[]] => {
  const kept = list.map((_, i) => i).filter((i) => i % SIDE < SIDE - by);
  return [kept.map((i) => list[i]!), kept.map((i) => list[i + by]!)];
};

describe('grain', () => {
  test.each([0, 0.5, 0.8, 1.5, 3])('of size %d has the deviation asked for, and its mean is nothing', (size) => {
    const [red] = added({ size, colour: 0.5 });
    expect(Math.abs(deviation(red!) / 0.05 - 1)).toBeLessThan(0.12);
    expect(Math.abs(mean(red!))).toBeLessThan(0.006);
  });

  test('is as soft as its size says: neighbours are alike as a Gaussian of that size makes them', () => {
    for (const size of [0, 0.8, 1.5]) {
      const [red] = added({ size });
      const want = size ? Math.exp(-1 / (4 * size * size)) : 0;
      expect(Math.abs(alike(...beside(red!, 1)) - want)).toBeLessThan(0.06);
    }
  });

  test('is grey without colour; with all of it the channels know nothing of each other', () => {
    const [r, g] = added({ colour: 0 });
    r!.forEach((v, i) => expect(v).toBeCloseTo(g![i]!, 5));
    const [p, q] = added({ colour: 1, size: 0 });
    expect(Math.abs(alike(p!, q!))).toBeLessThan(0.03);
  });

  test.each([
    [2, 0.6],
    [4, 0.6],
    [4, 1.5],
  ])('in a picture %d times smaller is as strong as the mean of so many pixels is, at size %d', (by, size) => {
    const [whole] = added({ size });
    const small = SIDE / by;
    const means = Array.from({ length: small * small }, (_, i) => {
      const [x, y] = [(i % small) * by, Math.floor(i / small) * by];
      return mean(Array.from({ length: by * by }, (__, k) => whole![(y + Math.floor(k / by)) * SIDE + x + (k % by)]!));
    });
    const [reduced] = added({ size: size / by, by });
    expect(Math.abs(deviation(reduced!) / deviation(means) - 1)).toBeLessThan(0.25);
  });

  test('each channel has as much as its dial says', () => {
    const parts = added({ size: 0, red: 0.5, green: 0, blue: 2 });
    expect(parts.map((part) => deviation(part) / 0.05)).toEqual([0.5, 0, 2].map((v) => expect.closeTo(v, 1)));
  });

  test('goes by brightness', () => {
    const values = { dark: 0.2, middle: 1, bright: 0.5, amount: 0.02 };
    const at = (grey: number) => deviation(added(values, grey)[1]!) / 0.02;
    expect(at(0.5)).toBeCloseTo(1, 1);
    expect(at(0.75)).toBeCloseTo(0.75, 1);
    expect(at(0.25)).toBeCloseTo(0.6, 1);
  });

  test('is another one on another frame and with another seed, and the same on the same', () => {
    const [first] = added({ at: 3 });
    expect(added({ at: 3 })[0]).toEqual(first);
    expect(Math.abs(alike(first!, added({ at: 4 })[0]!))).toBeLessThan(0.05);
    expect(Math.abs(alike(first!, added({ at: 3, seed: 2 })[0]!))).toBeLessThan(0.05);
  });

  test('hangs on the place, not on the part that is computed; what is clear stays clear', () => {
    const [whole] = added({ size: 0.8 });
    const part: Rect = { x: 40, y: 30, w: 50, h: 20 };
    const [some] = added({ size: 0.8 }, 0.5, 1, part);
    some!.forEach((v, i) =>
      expect(v).toBeCloseTo(whole![(part.y + Math.floor(i / part.w)) * SIDE + part.x + (i % part.w)]!, 4),
    );
    const half = added({}, 0.5, 0.5)[0]!;
    expect(Math.abs(deviation(half) / deviation(added({})[0]!) - 1)).toBeLessThan(0.01);
    const clear = runPass(
      rig,
      'grain',
      { amount: 0.5 },
      pictureOf(rig, { x: 0, y: 0, w: 8, h: 8 }, Array(256).fill(0)),
    );
    expect([...floatsOf(rig, clear)].every((v) => v === 0)).toBe(true);
    clear.release();
  });
});
