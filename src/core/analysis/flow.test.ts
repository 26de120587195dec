import { beforeAll, describe, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { testRig, type TestRig } from '../testing/rig';
import { truthFrames, type TruthFrame } from '../testing/key-truth';
import { between } from './flow';

let rig: TestRig;
let truth: TruthFrame;
beforeAll(async () => {
  rig = await testRig(512e6);
  [truth] = (await truthFrames('even', 1)) as [TruthFrame];
});

const W = 640;
const H = 360;
/** The captain, `dx` pixels to the right, before a felt sheet that moves by `bx`: premultiplied display values. */
function scene(dx: number, bx: number): Float32Array {
  const out = new Float32Array(W * H * 4);
  const { frame, foreground, width } = truth;
  for (let y = 0; y < H; y++) {
    for (let x = 0; x < W; x++) {
      const sheet = ((y + 250) * width + Math.min(width - 1, Math.max(0, x + 20 - bx))) * 4;
      const own = (y + 250) * width + Math.min(width - 1, Math.max(0, x + 320 - dx));
      const alpha = foreground[own * 4 + 3]! / 255;
      for (let c = 0; c < 3; c++)
        out[(y * W + x) * 4 + c] = (alpha * foreground[own * 4 + c]! + (1 - alpha) * frame[sheet + c]!) / 255;
      out[(y * W + x) * 4 + 3] = 1;
    }
  }
  return out;
}
function pictureOf(data: Float32Array): Picture {
  const picture = Picture.make(rig.arena, { x: 0, y: 0, w: W, h: H });
  rig.arena.floats(picture.at, data.length).set(data);
  return picture;
}
const error = (got: Float32Array, wanted: Float32Array) =>
  got.reduce((sum, v, i) => sum + Math.abs(v - wanted[i]!), 0) / got.length;

describe('frames between', () => {
  test.each([4, 8, 12])(
    'of a subject moving %i px a frame are at least 40 %% nearer the truth than mixing',
    (speed) => {
      const drift = Math.round(speed / 6);
      const [first, second] = [scene(-speed / 2, drift), scene(speed / 2, -drift)];
      const wanted = scene(0, 0);
      const [a, b] = [pictureOf(first), pictureOf(second)];
      const out = between(rig, a, b, 0.5);
      const followed = error(rig.arena.floats(out.at, W * H * 4), wanted);
      const mixed = error(
        first.map((v, i) => (v + second[i]!) / 2),
        wanted,
      );
      [a, b, out].forEach((picture) => picture.release());
      expect(followed).toBeLessThan(0.6 * mixed);
    },
  );

  test('at the ends are the frames themselves, and what stands still stays as it is', () => {
    const [first, second] = [scene(-3, 0), scene(3, 0)];
    const [a, b] = [pictureOf(first), pictureOf(second)];
    for (const [share, wanted] of [
      [0, first],
      [1, second],
    ] as const) {
      const out = between(rig, a, b, share);
      expect(error(rig.arena.floats(out.at, W * H * 4), wanted)).toBeLessThan(0.002);
      out.release();
    }
    const same = between(rig, a, a, 0.5);
    expect(error(rig.arena.floats(same.at, W * H * 4), first)).toBeLessThan(1e-4);
    [a, b, same].forEach((picture) => picture.release());
    expect(rig.arena.used).toBe(0);
  });

  test('of very small pictures are mixed', () => {
    const tiny = (v: number) => {
      const picture = Picture.make(rig.arena, { x: 0, y: 0, w: 5, h: 4 });
      rig.arena.floats(picture.at, 80).fill(v);
      return picture;
    };
    const [a, b] = [tiny(0), tiny(1)];
    const out = between(rig, a, b, 0.25);
    expect(Math.max(...rig.arena.floats(out.at, 80))).toBeCloseTo(0.25, 6);
    [a, b, out].forEach((picture) => picture.release());
  });
});
