import { beforeAll, expect, test } from '@jest/globals';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { pictureOf, rgbaOf, WEIGHTS, type FetchedPicture, type Planes } from './fetched';
import { Picture } from './picture';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig();
});
const clamp = (v: number) => Math.min(1, Math.max(0, v));
const noise = (i: number) => (Math.imul(i + 7, 2654435761) >>> 8) % 256;

interface Case {
  w: number;
  h: number;
  matrix: Planes['matrix'];
  full: boolean;
  alpha: boolean;
  turns: boolean;
}
/** Planes of noise. */
function framed({ w, h, matrix, full, alpha, turns }: Case): FetchedPicture {
  const [luma, colour] = [w * h, Math.ceil(w / 2) * Math.ceil(h / 2)];
  const data = Uint8Array.from({ length: luma + 2 * colour + (alpha ? luma : 0) }, (_, i) => noise(i));
  const where = turns ? { u: luma, v: luma + 1, step: 2 as const } : { u: luma, v: luma + colour, step: 1 as const };
  return { data, width: w, height: h, planes: { ...where, a: alpha ? luma + 2 * colour : 0, matrix, full } };
}

/** By the formulas of the recommendations: colour in the middle of two by two pixels, straight between. */
function published({ data, width: w, height: h, planes }: FetchedPicture): number[] {
  const { u, v, step, a, matrix, full } = planes!;
  const [cw, ch] = [Math.ceil(w / 2), Math.ceil(h / 2)];
  const [kr, kb] = WEIGHTS[matrix];
  const colour = (plane: number, x: number, y: number) => {
    const [px, py] = [(x - 0.5) / 2, (y - 0.5) / 2];
    const [x0, y0] = [Math.floor(px), Math.floor(py)];
    const at = (i: number, j: number) =>
      data[plane + (Math.min(ch - 1, Math.max(0, j)) * cw + Math.min(cw - 1, Math.max(0, i))) * step]!;
    const row = (j: number) => at(x0, j) + (at(x0 + 1, j) - at(x0, j)) * (px - x0);
    return (row(y0) + (row(y0 + 1) - row(y0)) * (py - y0) - 128) / (full ? 255 : 224);
  };
  return Array.from({ length: w * h }, (_, i) => {
    const [x, y] = [i % w, Math.floor(i / w)];
    const bright = full ? data[i]! / 255 : (data[i]! - 16) / 219;
    const red = bright + 2 * (1 - kr) * colour(v, x, y);
    const blue = bright + 2 * (1 - kb) * colour(u, x, y);
    const green = (bright - kr * red - kb * blue) / (1 - kr - kb);
    const alpha = a ? data[a + i]! / 255 : 1;
    return [clamp(red) * alpha, clamp(green) * alpha, clamp(blue) * alpha, alpha];
  }).flat();
}
const pixels = (picture: Picture): Float32Array => {
  const floats = floatsOf(rig, picture);
  picture.release();
  return floats;
};
const worst = (got: ArrayLike<number>, want: ArrayLike<number>) =>
  Array.from(want).reduce((most, v, i) => Math.max(most, Math.abs(v - got[i]!)), 0);

const CASES: Case[] = [
  { w: 24, h: 10, matrix: 'bt709', full: false, alpha: false, turns: false },
  { w: 21, h: 9, matrix: 'bt601', full: false, alpha: false, turns: true },
  { w: 7, h: 5, matrix: 'bt2020', full: true, alpha: false, turns: false },
  { w: 18, h: 6, matrix: 'bt709', full: false, alpha: true, turns: false },
  { w: 1, h: 1, matrix: 'bt709', full: true, alpha: true, turns: false },
];

test.each(CASES)('planes of $w×$h, $matrix, become what the recommendation says', (item) => {
  const used = rig.arena.used;
  const frame = framed(item);
  const picture = pictureOf(rig, frame, 1);
  expect(picture.rect).toEqual({ x: 0, y: 0, w: item.w, h: item.h });
  expect(worst(pixels(picture), published(frame))).toBeLessThan(1e-5);
  expect(rig.arena.used).toBe(used);
});

test('nothing is written beside the picture', () => {
  const wide: Case = { w: 1283, h: 4, matrix: 'bt709', full: false, alpha: false, turns: false };
  // blocks that lie behind whatever is taken next
  const blocks = Array.from({ length: 40 }, (_, i) => rig.arena.take(4096 * (1 + (i % 8))));
  const holes = blocks.filter((_, i) => i % 2);
  const kept = blocks.filter((_, i) => i % 2 === 0);
  kept.forEach((at) => rig.arena.bytes(at, 4096).fill(171));
  holes.forEach((at) => rig.arena.give(at));
  for (const factor of [1, 2, 4]) pictureOf(rig, framed(wide), factor).release();
  kept.forEach((at) => {
    expect(rig.arena.bytes(at, 4096).every((v) => v === 171)).toBe(true);
    rig.arena.give(at);
  });
});

test.each([2, 4])('reduced %i times they are the mean of as many pixels as there are', (factor) => {
  for (const item of CASES) {
    const frame = framed(item);
    const whole = published(frame);
    const [w, h] = [Math.ceil(item.w / factor), Math.ceil(item.h / factor)];
    const want = Array.from({ length: w * h * 4 }, (_, i) => {
      const [x, y, c] = [(i >> 2) % w, Math.floor((i >> 2) / w), i % 4];
      const own: number[] = [];
      for (let v = y * factor; v < Math.min(item.h, (y + 1) * factor); v++)
        for (let u = x * factor; u < Math.min(item.w, (x + 1) * factor); u++)
          own.push(whole[(v * item.w + u) * 4 + c]!);
      return own.reduce((sum, v) => sum + v, 0) / own.length;
    });
    const picture = pictureOf(rig, frame, factor);
    expect(picture.rect).toEqual({ x: 0, y: 0, w, h });
    expect(worst(pixels(picture), want)).toBeLessThan(1e-5);
  }
});

test('what is written as planes and read again is the picture, but for fine colour', () => {
  const [w, h] = [32, 16];
  const picture = Picture.make(rig.arena, { x: 0, y: 0, w, h });
  const soft = Array.from({ length: w * h }, (_, i) => [
    0.2 + (i % w) / 160,
    0.7 - i / 20000,
    0.3 + i / 15000,
    1,
  ]).flat();
  rig.arena.floats(picture.at, soft.length).set(soft);
  const [luma, colour] = [w * h, (w * h) / 4];
  const data = rig.arena.scratch(luma + 2 * colour + 16, (at) => {
    rig.kernels.toYuv(picture.at, w, h, at, at + luma, at + luma + colour, 0);
    return new Uint8Array(rig.arena.bytes(at, luma + 2 * colour));
  });
  picture.release();
  const planes = { u: luma, v: luma + colour, step: 1, a: 0, matrix: 'bt709', full: false } as const;
  const again = rgbaOf(rig, { data, width: w, height: h, planes });
  expect(
    worst(
      again,
      soft.map((v) => v * 255),
    ),
  ).toBeLessThan(3);
});
