import { beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { PassPlan } from '../../../plan/types';
import { floatsOf, testRig, type TestRig } from '../../../testing/rig';
import { medianOf, PlateStore } from './plates';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(32e6);
});

const SIZE = { w: 4, h: 2 };
const asked: number[] = [];
beforeEach(() => void asked.splice(0));

/** A clip whose frame at a second is grey all over by that second. */
const clip =
  (width = 4, height = 2) =>
  (_: unknown, seconds: number) => {
    asked.push(seconds);
    const data = new Uint8Array(width * height * 4).fill(seconds * 10);
    for (let i = 3; i < data.length; i += 4) data[i] = 255;
    return Promise.resolve({ data, width, height });
  };
const plan = (seconds: number[], stock = 'clean') => ({ stock, name: stock, file: stock, seconds });
const passWith = (plate: unknown) => ({ type: 'difference-key', values: { plate } }) as unknown as PassPlan;

describe('clean plates', () => {
  test('the median of an odd count is the middle one of the sorted values, at every byte', () => {
    const count = fc.constantFrom(1, 3, 5, 11);
    fc.assert(
      fc.property(
        count.chain((n) => fc.array(fc.uint8Array({ minLength: 8, maxLength: 8 }), { minLength: n, maxLength: n })),
        (frames) => {
          const got = medianOf(rig, frames);
          for (let i = 0; i < 8; i++)
            expect(got[i]).toBe(frames.map((frame) => frame[i]!).sort((a, b) => a - b)[frames.length >> 1]);
        },
      ),
    );
  });

  test('a median is taken over pictures of any size, from first byte to last', () => {
    const frames = [3, 1, 2].map((at) => Uint8Array.from({ length: 70_003 }, (_, i) => (i * at * 7) % 251));
    const got = medianOf(rig, frames);
    expect(got.length).toBe(70_003);
    for (let i = 0; i < got.length; i++)
      if (got[i] !== frames.map((frame) => frame[i]!).sort((a, b) => a - b)[1]) throw new Error(`byte ${i}`);
  });

  test('are fetched once for many frames, and what is asked for is what was prepared', async () => {
    const store = new PlateStore(rig, clip());
    const [one, median] = [plan([7]), plan([1, 9, 3])];
    for (let frame = 0; frame < 3; frame++)
      await store.prepare([passWith(one), passWith(median), passWith(null)], SIZE);
    expect([...asked].sort()).toEqual([1, 3, 7, 9]);
    expect(floatsOf(rig, store.get(one, SIZE)!)[0]).toBeCloseTo(70 / 255, 5);
    expect(floatsOf(rig, store.get(median, SIZE)!)[0]).toBeCloseTo(30 / 255, 5);
    expect(store.get(null, SIZE)).toBeNull();
    expect(store.get(plan([8]), SIZE)).toBeNull();
  });

  test('are fitted to the layer they are compared with', async () => {
    const store = new PlateStore(rig, clip(16, 8));
    await store.prepare([passWith(plan([5]))], SIZE);
    const fitted = store.get(plan([5]), SIZE)!;
    expect(fitted.rect).toEqual({ x: 0, y: 0, ...SIZE });
    floatsOf(rig, fitted).forEach((v, i) => expect(v).toBeCloseTo(i % 4 === 3 ? 1 : 50 / 255, 3));
  });

  test('only the last few stay, so that changing the plate again and again does not fill the memory', async () => {
    const store = new PlateStore(rig, clip());
    const before = rig.arena.used;
    for (let at = 1; at <= 12; at++) await store.prepare([passWith(plan([at]))], SIZE);
    expect(store.get(plan([12]), SIZE)).not.toBeNull();
    expect(store.get(plan([1]), SIZE)).toBeNull();
    expect(rig.arena.used - before).toBeLessThanOrEqual(4 * 4 * 2 * 16);
  });
});
