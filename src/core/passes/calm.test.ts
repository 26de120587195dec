import { beforeAll, describe, expect, test } from '@jest/globals';
import { gauss, diceOf } from '../testing/plates/dice';
import { floatsOf, pictureOf, testRig, type TestRig } from '../testing/rig';
import { calmed, calmMoments } from './calm';
import type { PassTools } from './define';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [97, 64];
const rect = { x: 0, y: 0, w: W, h: H };
const NOISE = 0.03;

/** A frame of a textured card with noise of its own, and a white square that lies somewhere else in each. */
function frame(seed: number, noise: number, square: number | null): number[] {
  const dice = diceOf(seed);
  return Array.from({ length: W * H * 4 }, (_, i) => {
    const [x, y, c] = [(i >> 2) % W, Math.floor((i >> 2) / W), i % 4];
    if (c === 3) return 1;
    const inside = square !== null && x >= square && x < square + 12 && y >= 20 && y < 32;
    return (inside ? 0.95 : 0.4 + 0.15 * Math.sin(x / 5 + c) * Math.cos(y / 7)) + noise * gauss(dice);
  });
}
/** @param others frames around the present one, in the order of their moments; null where there is none */
function through(present: number[], others: (number[] | null)[]): Float32Array {
  const pictures = others.map((values) => values && pictureOf(rig, rect, values));
  const tools = { kernels: rig.kernels, arena: rig.arena, moment: (i: number) => pictures[i] ?? null } as PassTools;
  const picture = pictureOf(rig, rect, present);
  const out = calmed(picture, { calm: others.length / 2 }, tools);
  const floats = floatsOf(rig, out);
  [picture, out, ...pictures].forEach((held) => held?.release());
  return floats;
}
const deviation = (a: ArrayLike<number>, b: ArrayLike<number>, holds: (pixel: number) => boolean): number => {
  let [sum, count] = [0, 0];
  for (let i = 0; i < a.length; i++)
    if (i % 4 < 3 && holds(i >> 2)) [sum, count] = [sum + (a[i]! - b[i]!) ** 2, count + 1];
  return Math.sqrt(sum / count);
};
const everywhere = () => true;

test('looks at as many frames before as after, the nearest of them included, and at none when it is off', () => {
  expect(calmMoments({ calm: 0 })).toEqual([]);
  expect(calmMoments({ calm: 2 })).toEqual([-2, -1, 1, 2]);
});

describe('what stands still', () => {
  test.each([1, 2, 4])('loses noise as a mean of so many frames does: %i to each side', (count) => {
    const others = Array.from({ length: 2 * count }, (_, i) => frame(100 + i, NOISE, null));
    const out = through(frame(7, NOISE, null), others);
    const left = deviation(out, frame(0, 0, null), everywhere);
    const mean = NOISE / Math.sqrt(2 * count + 1);
    expect(left).toBeGreaterThan(0.97 * mean);
    expect(left).toBeLessThan(1.25 * mean);
  });

  test('at the ends of a clip only the frames count that there are', () => {
    const out = through(frame(7, NOISE, null), [null, null, frame(101, NOISE, null), frame(102, NOISE, null)]);
    expect(deviation(out, frame(0, 0, null), everywhere)).toBeLessThan((1.25 * NOISE) / Math.sqrt(3));
    const alone = through(frame(7, NOISE, null), [null, null]);
    expect([...alone]).toEqual([...Float32Array.from(frame(7, NOISE, null))]);
  });
});

test('what moves stays as it is, with its noise, and leaves nothing where it was or will be', () => {
  const present = frame(7, NOISE, 40);
  const others = [10, 25, 55, 70].map((at, i) => frame(100 + i, NOISE, at));
  const out = through(present, others);
  const inSquare = (at: number) => (pixel: number) => {
    const [x, y] = [pixel % W, Math.floor(pixel / W)];
    return x >= at && x < at + 12 && y >= 20 && y < 32;
  };
  // not moved towards what other frames show there
  expect(deviation(out, present, inSquare(40))).toBeLessThan(0.003);
  for (const at of [10, 25, 55, 70]) expect(deviation(out, frame(0, 0, 40), inSquare(at))).toBeLessThan(1.1 * NOISE);
});

test('footage without noise stays as it is', () => {
  const clean = frame(0, 0, null);
  expect(deviation(through(clean, [clean, clean]), Float32Array.from(clean), everywhere)).toBeLessThan(1e-6);
});

test('frames that differ all over, as on a cut, are left out', () => {
  const present = frame(7, NOISE, null);
  const other = frame(101, NOISE, null).map((v, i) => (i % 4 === 3 ? 1 : 1 - v));
  expect(deviation(through(present, [other, other]), Float32Array.from(present), everywhere)).toBeLessThan(0.01);
});
