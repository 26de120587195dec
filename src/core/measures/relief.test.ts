import { expect, test } from '@jest/globals';
import { GROUND, reliefPicture } from './relief';

const [W, H] = [24, 10];
const at = (painted: Uint8ClampedArray, x: number, y: number) => [
  ...painted.subarray((y * W + x) * 4, (y * W + x) * 4 + 3),
];
const matte = (v: (x: number, y: number) => number) =>
  Uint8Array.from({ length: W * H }, (_, i) => v(i % W, Math.floor(i / W)));
const bright = (rgb: number[]) => rgb.reduce((a, b) => a + b);

test('level ground has its own tone, dark where it is clear and pale where it is solid', () => {
  expect(
    at(
      reliefPicture(
        matte(() => 0),
        W,
        H,
      ),
      5,
      5,
    ),
  ).toEqual([...GROUND.clear]);
  expect(
    at(
      reliefPicture(
        matte(() => 255),
        W,
        H,
      ),
      5,
      5,
    ),
  ).toEqual([...GROUND.solid]);
});

test('light comes from the upper left: what rises to the right is lit, what falls is in the shade; a faint crumb shows', () => {
  const ridge = reliefPicture(
    matte((x) => 100 + 2 * (12 - Math.abs(x - 12))),
    W,
    H,
  );
  expect(bright(at(ridge, 6, 5))).toBeGreaterThan(bright(at(ridge, 18, 5)) * 1.05);
  const crumb = reliefPicture(
    matte((x, y) => (x === 10 && y === 5 ? 6 : 0)),
    W,
    H,
  );
  expect(bright(at(crumb, 9, 5))).toBeGreaterThan(bright(GROUND.clear as unknown as number[]) * 1.03);
});

test('an edge is crossed by one contour line for each height', () => {
  const ramp = reliefPicture(
    matte((x) => Math.min(255, x * 11)),
    W,
    H,
  );
  const light = Array.from({ length: W }, (_, x) => bright(at(ramp, x, 5)));
  // a line is darker than the ground before it, though that rises
  const lines = light.filter((v, x) => x > 0 && v < light[x - 1]!);
  expect(lines.length).toBe(3);
});
