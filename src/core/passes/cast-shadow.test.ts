import { beforeAll, expect, test } from '@jest/globals';
import type { PlainValues } from '../params/registry';
import { floatsOf, pictureOf, planned, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [120, 80];
/** A card of 20 by 30 that stands on row 50. */
const card = () =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => {
      const [x, y] = [i % W, Math.floor(i / W)];
      return x >= 50 && x < 70 && y >= 20 && y < 50 ? [1, 0.5, 0, 1] : [0, 0, 0, 0];
    }).flat(),
  );
/** RGBA by place of the card with its shadow. */
function shadowed(values: PlainValues): (x: number, y: number) => number[] {
  const own = { floor: 10, near: 0, far: 0, fade: 0, opacity: 0.5, colour: [0, 0, 0], ...values };
  const picture = card();
  const out = runPass(rig, 'cast-shadow', planned('cast-shadow', own as PlainValues), picture);
  const floats = floatsOf(rig, out);
  const { rect } = out;
  out.release();
  return (x, y) => [
    ...floats.slice(((y - rect.y) * rect.w + x - rect.x) * 4, ((y - rect.y) * rect.w + x - rect.x) * 4 + 4),
  ];
}

test('what stands falls from its foot, as long and to where it is told; the card lies over it', () => {
  // towards the eye and half as long: the card is 30 tall, its shadow 15
  const at = shadowed({ angle: 90, length: 0.5 });
  expect(at(60, 40)).toEqual([1, 0.5, 0, 1]);
  expect(at(60, 55)).toEqual([0, 0, 0, 0.5]);
  expect(at(60, 63)[3]).toBeCloseTo(0.5, 3);
  expect(at(60, 67)[3]).toBe(0);
  expect(at(45, 55)[3]).toBe(0);
  // to the right and away: 20 above the floor it lies 20·cos 30° to the right and 20·sin 30° above the foot
  const away = shadowed({ angle: -30, length: 1 });
  const [x, y] = [Math.round(69 + 20 * Math.cos(Math.PI / 6) - 2), 50 - 10];
  expect(away(x, y)[3]).toBeCloseTo(0.5, 2);
  expect(away(x + 4, y)[3]).toBeCloseTo(0, 2);
});

test('it gets fainter by as much as said, and softer, on its way', () => {
  // the card fills 30 of the 50 rows from the top of the picture to the floor: its head is at 60 % of the way
  const fading = shadowed({ angle: 90, length: 0.9, fade: 0.5 });
  expect(fading(60, 50)[3]).toBeGreaterThan(0.48);
  const end = fading(60, 50 + 25)[3]!;
  expect(end).toBeCloseTo(0.5 * (1 - 0.5 * (25.5 / (0.9 * 50))), 2);
  const soft = shadowed({ angle: 90, length: 0.9, near: 0, far: 8 });
  // the width over which it goes from dark to clear, near and far
  const ramp = (y: number) =>
    Array.from({ length: 40 }, (_, i) => soft(30 + i, y)[3]!).filter((v) => v > 0.1 && v < 0.4).length;
  expect(ramp(52)).toBeLessThanOrEqual(3);
  expect(ramp(72)).toBeGreaterThan(ramp(56));
});

test('with nothing above the floor, or none of it to see, the picture stays as it is', () => {
  const at = shadowed({ floor: -30, angle: 90, length: 1 });
  expect(at(60, 40)).toEqual([1, 0.5, 0, 1]);
});
