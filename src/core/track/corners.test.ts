import { expect, test } from '@jest/globals';
import { testRig } from '../testing/rig';
import { goodPoints } from './corners';

test('good points are the corners of a square, not its sides or what lies even', async () => {
  const [w, h] = [160, 120];
  const data = new Uint8ClampedArray(w * h * 4).fill(60);
  for (let y = 40; y < 80; y++) for (let x = 50; x < 110; x++) data.fill(200, (y * w + x) * 4, (y * w + x) * 4 + 4);
  const found = goodPoints(await testRig(64e6), { data, width: w, height: h }, { most: 10, apart: 20 });
  const corners = [
    [-30, -20],
    [30, -20],
    [30, 20],
    [-30, 20],
  ];
  expect(found).toHaveLength(4);
  // as near as the window that is looked at reaches: nine pixels of half the size
  for (const [x, y] of corners) expect(found.some(([u, v]) => Math.hypot(u - x!, v - y!) < 12)).toBe(true);
});
