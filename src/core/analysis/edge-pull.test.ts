import { expect, test } from '@jest/globals';
import { corner, type Vertex } from '../masks/path';
import { fillRings } from '../masks/raster';
import { pulledToEdges } from './edge-pull';

const [W, H] = [160, 120];
const square = (r: number, dx = 0): Vertex[] => [
  corner(-r + dx, -r),
  corner(r + dx, -r),
  corner(r + dx, r),
  corner(-r + dx, r),
];
const card = (() => {
  const plane = fillRings(
    [Float64Array.of(80 - 30.4, 60 - 30.4, 80 + 30.4, 60 - 30.4, 80 + 30.4, 60 + 30.4, 80 - 30.4, 60 + 30.4)],
    W,
    H,
  );
  return { w: W, h: H, values: Uint8Array.from(plane, (v, i) => 60 + 130 * v + ((i * 7919) % 5)) };
})();

test('corners a few pixels off are pulled onto the card’s edges', () => {
  for (const start of [square(25), square(35), square(30, 4)]) {
    // twice, as someone does who moves and looks
    const all = new Set([0, 1, 2, 3]);
    const found = pulledToEdges(pulledToEdges(start, all, card), all, card);
    found.forEach(([x, y]) => {
      expect(Math.abs(Math.abs(x) - 30.4)).toBeLessThan(0.6);
      expect(Math.abs(Math.abs(y) - 30.4)).toBeLessThan(0.6);
    });
  }
});

test('only chosen vertices move, and none where there is no edge', () => {
  const some = pulledToEdges(square(25), new Set([1]), card);
  expect(some[0]).toEqual(square(25)[0]);
  expect(some[1]).not.toEqual(square(25)[1]);
  const flat = { w: W, h: H, values: new Uint8Array(W * H).fill(90) };
  expect(pulledToEdges(square(25), new Set([0, 1, 2, 3]), flat)).toEqual(square(25));
});
