import { beforeAll, expect, test } from '@jest/globals';
import { ellipseRing } from '../masks/outline';
import { fillRings } from '../masks/raster';
import { testRig, type TestRig } from '../testing/rig';
import { Picture } from '../picture/picture';
import { dropSpots } from './finishing';
import type { PassTools } from './define';

const [W, H] = [400, 300];
let tools: TestRig;
beforeAll(async () => {
  tools = await testRig(64e6);
});
const disc = (r: number, x: number, y: number) =>
  fillRings([ellipseRing([2 * r, 2 * r]).map((v, i) => v + (i % 2 ? y : x))], W, H);
/** Discs of a coverage each, added to each other. */
const plane = (...discs: [r: number, x: number, y: number, coverage: number][]) => {
  const out = new Float32Array(W * H);
  for (const [r, x, y, coverage] of discs)
    disc(r, x, y).forEach((v, i) => (out[i] = Math.max(0, Math.min(1, out[i]! + coverage * v))));
  return out;
};
function dropped(before: Float32Array, faint: number, clips = { offset: 0, gain: 1 }): Float32Array {
  const picture = Picture.make(tools.arena, { x: 0, y: 0, w: W, h: H });
  const out = tools.arena.scratch(before.byteLength, (at) => {
    tools.arena.floats(at, W * H).set(before);
    dropSpots(at, picture, faint, clips, tools as unknown as PassTools);
    return tools.arena.floats(at, W * H).slice();
  });
  picture.release();
  return out;
}
const at = (of: Float32Array, x: number, y: number) => of[y * W + x]!;

test('faint spots on the screen go, stronger ones and the soft rim of a subject stay as they are', () => {
  const before = plane([15, 40, 40, 1], [18, 40, 40, 0.2], [1.5, 90, 20, 0.2], [1.5, 90, 60, 0.4], [1, 0, 10, 0.2]);
  const out = dropped(before, 0.25);
  expect([at(out, 90, 20), at(out, 0, 10)]).toEqual([0, 0]);
  expect(at(out, 90, 60)).toBe(at(before, 90, 60));
  // the rim touches what is solid
  expect(at(before, 57, 40)).toBeGreaterThan(0.1);
  expect(at(out, 57, 40)).toBe(at(before, 57, 40));
});

test('faint spots in the subject are filled, holes stay', () => {
  const before = plane([35, 60, 40, 1], [2, 50, 40, -0.2], [2, 70, 40, -0.6]);
  const out = dropped(before, 0.25);
  expect(at(out, 50, 40)).toBe(1);
  expect(at(out, 70, 40)).toBe(at(before, 70, 40));
});

test('what is faint and large is smoke, and stays', () => {
  const before = plane([25, 60, 40, 0.2]);
  expect(dropped(before, 0.25)).toEqual(before);
});

test('before its clips a matte is judged by what they will make of it; zero leaves all', () => {
  // clips from 0.3 to 0.8: 0.35 will be a tenth, 0.5 two fifths
  const before = plane([400, 200, 150, 0.3], [1.5, 90, 20, 0.05], [1.5, 90, 60, 0.2]);
  const out = dropped(before, 0.25, { offset: 0.3, gain: 2 });
  expect(at(out, 90, 20)).toBeCloseTo(0.3, 6);
  expect(at(out, 90, 60)).toBeCloseTo(0.5, 6);
  expect(dropped(before, 0, { offset: 0.3, gain: 2 })).toEqual(before);
});
