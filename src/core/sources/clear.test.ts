import { beforeAll, describe, expect, test } from '@jest/globals';
import { partOf } from '../picture/rows';
import { place } from '../picture/transform';
import type { Matrix } from '../picture/matrix';
import { testRig, wholeFloats, type TestRig } from '../testing/rig';
import { clearPicture } from './clear';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const SIZE = { w: 200, h: 120 };
const WHOLE = { x: 0, y: 0, ...SIZE };
/** A picture that a box of half clear colour is drawn on. */
function boxed([left, top, right, bottom]: readonly [number, number, number, number]) {
  const picture = clearPicture({ ...rig, size: SIZE }, [left, top, right, bottom]);
  const { rect } = picture;
  const floats = rig.arena.floats(picture.at, picture.pixels * 4);
  for (let y = Math.max(top, 0); y < Math.min(bottom, SIZE.h); y++)
    for (let x = Math.max(left, 0); x < Math.min(right, SIZE.w); x++)
      floats.set([0.5, 0.1 * (x % 3), 0.25, 0.6], ((y - rect.y) * rect.w + x - rect.x) * 4);
  return picture;
}

describe('a picture that is no larger than what is drawn on it', () => {
  test('has some clear pixels around it, but for the borders of the source’s picture', () => {
    expect(boxed([80, 48, 80, 48]).rect).toEqual({ x: 64, y: 32, w: 32, h: 32 });
    expect(boxed([70, 50, 96, 63]).rect).toEqual({ x: 32, y: 32, w: 96, h: 64 });
    expect(boxed([-30, 90, 230, 400]).rect).toEqual({ x: 0, y: 64, w: 200, h: 56 });
    expect(boxed([300, 0, 320, 10]).rect).toMatchObject({ w: 0, h: 0 });
    expect(clearPicture({ ...rig, size: SIZE }, null).pixels).toBe(0);
  });

  const maps: [string, Matrix][] = [
    ['as large', [1, 0, 0, 1, 3.4, -2.2]],
    ['larger and turned', [1.5, 0.6, -0.6, 1.5, -40, -30]],
    ['a third', [0.37, 0, 0, 0.37, 20.3, 11]],
    ['a seventh, turned', [0.12, 0.06, -0.06, 0.12, 60, 40]],
  ];
  test.each(maps)('lies in a shot as the whole picture does: %s', (_, map) => {
    for (const box of [
      [70, 50, 81, 61],
      [0, 0, 33, 12],
      [95, 31, 200, 120],
    ] as const) {
      const small = boxed(box);
      const whole = partOf(rig, small, WHOLE);
      const [a, b] = [small, whole].map((picture) => {
        const lying = place(rig, picture, map, 1, WHOLE)!;
        return wholeFloats(rig, lying, SIZE);
      });
      let worst = 0;
      a!.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - b![i]!))));
      expect(worst).toBeLessThan(1e-5);
      expect(a!.some((v) => v > 0.05)).toBe(true);
    }
  });
});
