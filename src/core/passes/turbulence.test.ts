import { beforeAll, expect, test } from '@jest/globals';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(32e6);
});
const [W, H] = [120, 80];
/** How red a pixel is says where it came from across, how green from which height. */
function bent(values: Record<string, unknown>): { dx: Float32Array; dy: Float32Array } {
  const place = Array.from({ length: W * H }, (_, i) => [(i % W) / 256, Math.floor(i / W) / 256, 0, 1]).flat();
  const picture = pictureOf(rig, { x: 0, y: 0, w: W, h: H }, place);
  const out = runPass(rig, 'turbulence', values as never, picture);
  const floats = floatsOf(rig, out);
  out.release();
  const off = (c: number, own: (i: number) => number) =>
    Float32Array.from({ length: W * H }, (_, i) => floats[4 * i + c]! * 256 - own(i));
  return { dx: off(0, (i) => i % W), dy: off(1, (i) => Math.floor(i / W)) };
}

test('takes every pixel from no further than it was told, both ways, and from the border nothing that is not there', () => {
  const { dx, dy } = bent({ amount: 9, grain: 30, detail: 3 });
  for (const list of [dx, dy]) {
    expect(Math.max(...list)).toBeLessThanOrEqual(9.01);
    expect(Math.min(...list)).toBeGreaterThanOrEqual(-9.01);
    expect(Math.max(...list)).toBeGreaterThan(2);
    expect(Math.min(...list)).toBeLessThan(-2);
  }
  dx.forEach((v, i) => expect((i % W) + v).toBeGreaterThanOrEqual(-0.01));
});

test('twice as much bends twice as far, inside of the picture', () => {
  const [once, twice] = [bent({ amount: 4 }), bent({ amount: 8 })];
  for (let y = 10; y < H - 10; y += 5)
    for (let x = 10; x < W - 10; x += 5) expect(twice.dx[y * W + x]).toBeCloseTo(2 * once.dx[y * W + x]!, 2);
});

test('goes on by itself: another frame is bent otherwise', () => {
  const [now, later] = [bent({ amount: 8, beat: 0 }), bent({ amount: 8, beat: 1 })];
  expect(Math.max(...now.dx.map((v, i) => Math.abs(v - later.dx[i]!)))).toBeGreaterThan(1);
});
