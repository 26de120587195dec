import { beforeAll, describe, expect, test } from '@jest/globals';
import { testRig, type TestRig } from '../testing/rig';
import { planeBytes } from './distance';
import { ellipseRing } from './outline';
import { finishMatte, type Finish } from './finish';
import { fillRings } from './raster';

const [W, H] = [100, 80];
let tools: TestRig;
beforeAll(async () => {
  tools = await testRig(64e6);
});
const disc = (r: number, x = 50, y = 40) =>
  fillRings([ellipseRing([2 * r, 2 * r]).map((v, i) => v + (i % 2 ? y : x))], W, H);
const area = (plane: Float32Array) => plane.reduce((sum, v) => sum + v, 0);
const finished = (plane: Float32Array, change: Partial<Finish>) =>
  tools.arena.scratch(planeBytes(W, H), (at) => {
    tools.arena.floats(at, W * H).set(plane);
    finishMatte(tools, at, W, H, { gamma: 1, shrink: 0, feather: 0, holes: 0, specks: 0, ...change });
    return tools.arena.floats(at, W * H).slice();
  });

describe('finishing a matte', () => {
  test.each([-6, -2.5, -0.5, 0.5, 1, 3.5, 8])('a disc shrunk by %d px has that much less radius', (shrink) => {
    const radius = Math.sqrt(area(finished(disc(25), { shrink })) / Math.PI);
    expect(Math.abs(radius - (25 - shrink))).toBeLessThan(0.45);
  });
  test('half a pixel lies half way between none and one', () => {
    const [none, half, one] = [0, 0.5, 1].map((shrink) => area(finished(disc(25), { shrink })));
    expect(half).toBeCloseTo((none! + one!) / 2, 3);
  });
  test('small holes are filled and small specks dropped; large ones and those at the border stay', () => {
    const plane = disc(30);
    disc(2, 50, 40).forEach((v, i) => (plane[i]! -= v));
    disc(1.5, 8, 8).forEach((v, i) => (plane[i]! += v));
    disc(5, 92, 70).forEach((v, i) => (plane[i]! += v));
    const out = finished(plane, { holes: 40, specks: 20 });
    expect(out[40 * W + 50]).toBe(1);
    expect(out[8 * W + 8]).toBe(0);
    expect(out[70 * W + 92]).toBe(1);
    expect(finished(plane, { holes: 4 })[40 * W + 50]).toBeLessThan(0.1);
  });
  test('gamma leaves clear and solid; feather keeps the total', () => {
    const bent = finished(
      Float32Array.from({ length: W * H }, (_, i) => (i % 3) / 2),
      { gamma: 2 },
    );
    expect([bent[0], bent[2]]).toEqual([0, 1]);
    expect(bent[1]).toBeCloseTo(Math.SQRT1_2, 5);
    expect(area(finished(disc(20), { feather: 12 })) / area(disc(20))).toBeCloseTo(1, 3);
  });
});
