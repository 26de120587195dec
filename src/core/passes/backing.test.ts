import { beforeAll, describe, expect, test } from '@jest/globals';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(16e6);
});

const [W, H] = [60, 40];
type Pixel = readonly [number, number, number, number];
/** A blue block from (12.25, 10) to (40, 29.5), its rims by area. */
const block = (x: number, y: number): Pixel => {
  const cover = (v: number, from: number, to: number) => Math.max(0, Math.min(v + 1, to) - Math.max(v, from));
  const a = cover(x, 12.25, 40) * cover(y, 10, 29.5);
  return [0.1 * a, 0.2 * a, 0.8 * a, a];
};
function carded(values: Record<string, unknown>, pixel = block) {
  const all = Array.from({ length: W * H }, (_, i) => pixel(i % W, Math.floor(i / W))).flat();
  const out = runPass(rig, 'backing', values as never, pictureOf(rig, { x: 0, y: 0, w: W, h: H }, all));
  const floats = floatsOf(rig, out);
  const { rect } = out;
  out.release();
  const at = (x: number, y: number): number[] => {
    const i = 4 * ((y - rect.y) * rect.w + x - rect.x);
    return [...floats.subarray(i, i + 4)].map((v) => Number(v.toFixed(4)));
  };
  return { rect, at };
}
const RED = { colour: [1, 0, 0], opacity: 0.5, width: 0 };
const GREEN = { edge: [0, 1, 0], lines: 1 };

describe('a card', () => {
  test('reaches as far beyond what is seen as it was told, parts of a pixel too', () => {
    const { at } = carded({ ...RED, room: 5 });
    // from 7.25 to 45 and from 5 to 34.5
    expect(at(6, 20)).toEqual([0, 0, 0, 0]);
    expect(at(7, 20)).toEqual([0.375, 0, 0, 0.375]);
    expect(at(8, 20)).toEqual([0.5, 0, 0, 0.5]);
    expect(at(44, 20)[3]).toBe(0.5);
    expect(at(45, 20)[3]).toBe(0);
    expect([at(25, 4)[3], at(25, 5)[3], at(25, 34)[3], at(25, 35)[3]]).toEqual([0, 0.5, 0.25, 0]);
    // the picture lies over it
    expect(at(25, 20)).toEqual([0.1, 0.2, 0.8, 1].map((v) => expect.closeTo(v, 4)));
  });

  test('goes beyond the picture when it has to', () => {
    const { rect, at } = carded({ ...RED, room: 20 });
    expect([rect.x, rect.y]).toEqual([-8, -10]);
    expect(at(-7, 0)[3]).toBe(0.5);
  });

  test('rounds the corners of what lies on it', () => {
    const { at } = carded({ ...RED, opacity: 0, radius: 8 });
    expect(at(12, 10)[3]).toBe(0);
    expect(at(39, 10)[3]).toBe(0);
    expect(at(25, 11)[3]).toBeCloseTo(1, 4);
    // the corner's area, by counting points of a quarter circle about (32, 18)
    let [solid, inside] = [0, 0];
    for (let y = 10; y < 18; y++) for (let x = 32; x < 40; x++) solid += at(x, y)[3]!;
    for (let k = 0; k < 160 * 160; k++) if (Math.hypot((k % 160) + 0.5, Math.floor(k / 160) + 0.5) < 160) inside++;
    expect(solid).toBeCloseTo((inside / 160 ** 2) * 64, 0);
  });

  test('has its edge inside, over the picture, and none of it in the middle', () => {
    const { at } = carded({ ...RED, ...GREEN, opacity: 0, width: 3 });
    expect(at(36, 20)).toEqual([0.1, 0.2, 0.8, 1].map((v) => expect.closeTo(v, 4)));
    for (const x of [37, 38, 39]) expect(at(x, 20)).toEqual([0, 1, 0, 1]);
    expect(at(40, 20)[3]).toBe(0);
    expect(at(25, 12)).toEqual([0, 1, 0, 1]);
  });

  test('is nowhere when nothing is seen', () => {
    const { rect, at } = carded({ ...RED, room: 9 }, () => [0, 0, 0, 0]);
    expect(rect).toEqual({ x: 0, y: 0, w: W, h: H });
    expect(at(30, 20)).toEqual([0, 0, 0, 0]);
  });
});
