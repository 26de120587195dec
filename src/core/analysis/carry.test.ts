import { beforeAll, expect, test } from '@jest/globals';
import { ellipseRing } from '../masks/outline';
import { packMatte, unpackMatte } from '../masks/matte-data';
import { fillRings } from '../masks/raster';
import { pictureOf, testRig, type TestRig } from '../testing/rig';
import { agreement, carriedMatte } from './carry';
import { motionTo } from './flow';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [192, 128];
const disc = (x: number, y: number) => fillRings([ellipseRing([60, 60]).map((v, i) => v + (i % 2 ? y : x))], W, H);
const bytes = (plane: Float32Array) => Uint8Array.from(plane, (v) => Math.round(v * 255));
/** A speckled disc over a speckled ground; both have a pattern of their own to follow. */
function scene(dx: number, dy: number) {
  const cover = disc(80 + dx, 60 + dy);
  const speck = (x: number, y: number, k: number) =>
    0.5 + 0.22 * Math.sin(x / 5 + k) * Math.cos(y / 4 + k) + 0.15 * Math.sin((x + 2 * y) / 9);
  return pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => {
      const [x, y] = [i % W, Math.floor(i / W)];
      const v = cover[i]! * (0.3 + speck(x - dx, y - dy, 1)) * 0.7 + (1 - cover[i]!) * speck(x, y, 3);
      return [v, v, v, 1];
    }).flat(),
  );
}

test.each([
  [0, 0],
  [3, 0],
  [-4, 2],
])('a matte goes along with what moves by %d, %d', (dx, dy) => {
  const [then, now] = [scene(0, 0), scene(dx, dy)];
  const motion = motionTo(rig, now, then)!;
  then.release();
  now.release();
  const carried = carriedMatte(bytes(disc(80, 60)), W, H, motion);
  const truth = bytes(disc(80 + dx, 60 + dy));
  const error = carried.reduce((sum, v, i) => sum + Math.abs(v - truth[i]!), 0) / carried.length / 255;
  expect(error).toBeLessThan(0.012);
});

test('pictures too small to follow have no motion', () => {
  const tiny = pictureOf(rig, { x: 0, y: 0, w: 20, h: 20 }, new Float32Array(1600));
  expect(motionTo(rig, tiny, tiny)).toBeNull();
  tiny.release();
});

test('mattes agree with themselves and less the farther their borders are apart', () => {
  const at = (x: number) => bytes(disc(x, 60));
  const grades = [80, 81, 82, 86].map((x) => agreement(at(80), at(x), W));
  expect(grades[0]).toBe(1);
  expect(grades[1]).toBeGreaterThan(grades[2]!);
  expect(grades[2]).toBeGreaterThan(grades[3]!);
  expect(agreement(new Uint8Array(W * H), at(80), W)).toBe(0);
});

test('a matte is kept exactly, and a damaged one covers nothing', () => {
  const values = bytes(disc(70, 50));
  const packed = packMatte(values, W, H);
  expect(unpackMatte(packed)).toEqual(values);
  expect(packed.data.length).toBeLessThan(W * H);
  expect(unpackMatte({ ...packed, data: `${packed.data.slice(0, 20)}!!!` }).every((v) => v === 0)).toBe(true);
});
