import { beforeAll, expect, test } from '@jest/globals';
import { project } from '../picture/matrix';
import { testRig, type TestRig } from '../testing/rig';
import { moving, movingFrames } from '../testing/moving';
import type { Point } from './motion';
import { carryVertices, type Carried } from './vertices';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const SIZE = { w: 240, h: 160 };
const at = (f: number) => ({
  map: moving(-20 + 3 * f, 4 * Math.sin(f / 3), 2 * f),
  bar: { x: -200 + (f > 4 ? 148 : 0), wide: 40 },
});
const print: Point[] = [
  [-30, -24],
  [30, -24],
  [30, 24],
  [-30, 24],
];

test('vertices go along with what they lie on; hidden ones with their neighbours, and say so', async () => {
  const light = movingFrames({ seed: 5, ...SIZE, noise: 0.01, half: { w: 44, h: 38 }, at });
  const seen: Carried[] = [];
  const start = print.map(([x, y]): Point => {
    const [u, v] = project(at(0).map, x, y);
    return [u, v];
  });
  await carryVertices(
    rig,
    { points: start, size: SIZE, from: 0, to: 8 },
    (frame) => Promise.resolve(light(frame)),
    (carried) => seen.push(carried) > 0,
  );
  expect(seen.map(({ frame }) => frame)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  for (const { frame, points, sure } of seen) {
    print.forEach(([x, y], i) => {
      const [u, v] = project(at(frame).map, x, y);
      if (sure[i]! > 0.5) expect(Math.hypot(points[i]![0] - u, points[i]![1] - v)).toBeLessThan(1);
    });
    if (frame < 4) expect(Math.min(...sure)).toBeGreaterThan(0.5);
  }
  // the bar comes down over the left side on frame 5
  expect(seen[4]!.sure[0]).toBe(0);
  expect(seen[4]!.sure[1]).toBeGreaterThan(0.5);
  const moved = (i: number) =>
    Math.hypot(seen[4]!.points[i]![0] - seen[3]!.points[i]![0], seen[4]!.points[i]![1] - seen[3]!.points[i]![1]);
  expect(moved(0)).toBeGreaterThan(1);
});
