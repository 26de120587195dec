import { beforeAll, describe, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { testRig, type TestRig } from '../testing/rig';
import { fillRamp } from './gradient';

const [W, H] = [1280, 40];
let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
/** Red of a grey ramp from left to right, as eight bits show it. */
function ramp(from: number, to: number): Uint8Array {
  const picture = Picture.make(rig.arena, { x: 0, y: 0, w: W, h: H });
  const grey = (v: number): [number, number, number] => [v, v, v];
  fillRamp(
    rig,
    picture,
    [
      [0, grey(from)],
      [1, grey(to)],
    ],
    false,
    [0, 0],
    [W, 0],
  );
  const pixels = rig.arena.floats(picture.at, W * H * 4);
  const out = Uint8Array.from({ length: W * H }, (_, i) => Math.round(pixels[4 * i]! * 255));
  picture.release();
  return out;
}

describe('a slow ramp in eight bits', () => {
  test('has no bands: every column’s mean lies within an eighth of a step of what it should be', () => {
    // eight steps over the width: without a lot each would be a band of 160 columns, up to half a step off
    const [from, to] = [100 / 255, 108 / 255];
    const got = ramp(from, to);
    for (let x = 0; x < W; x += 16) {
      let sum = 0;
      for (let y = 0; y < H; y++) for (let u = 0; u < 16; u++) sum += got[y * W + x + u]!;
      const want = 100 + (8 * (x + 8)) / W;
      expect(Math.abs(sum / (16 * H) - want)).toBeLessThan(0.125);
    }
  });

  test('is nowhere more than a step off, and one of a colour that eight bits hold is just that', () => {
    ramp(0, 1).forEach((v, i) => expect(Math.abs(v - (255 * ((i % W) + 0.5)) / W)).toBeLessThan(1.001));
    expect(new Set(ramp(90 / 255, 90 / 255))).toEqual(new Set([90]));
  });
});
