import { beforeAll, expect, test } from '@jest/globals';
import { floatsOf, pictureOf, testRig, type TestRig } from '../../../testing/rig';
import { asMatte, asVeil } from './looked';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(32e6);
});
const rect = { x: 0, y: 0, w: 3, h: 1 };
/** A clear pixel, a solid red one, and one that is half there. */
const three = () => pictureOf(rig, rect, [0, 0, 0, 0, 1, 0, 0, 1, 0.25, 0.5, 0, 0.5]);

test('a matte is the coverage as opaque grey', () => {
  const matte = asMatte(rig, three());
  expect([...floatsOf(rig, matte)]).toEqual([0, 0, 0, 1, 1, 1, 1, 1, 0.5, 0.5, 0.5, 1]);
  matte.release();
  expect(rig.arena.used).toBe(0);
});

test('a veil lies over what is clear, half of it over what is half there, and none over what is solid', () => {
  const veil = asVeil(rig, three());
  const floats = floatsOf(rig, veil);
  const [clear, solid, half] = [0, 1, 2].map((i) => floats.subarray(i * 4, i * 4 + 4));
  expect([...solid!]).toEqual([0, 0, 0, 0]);
  expect(clear![3]).toBeGreaterThan(0.5);
  for (let c = 0; c < 4; c++) expect(half![c]).toBeCloseTo(clear![c]! / 2, 6);
  // violet: more blue than red, more red than green
  expect(clear![2]).toBeGreaterThan(clear![0]!);
  expect(clear![0]).toBeGreaterThan(clear![1]!);
  veil.release();
});
