// What a sprite's pixels are, against a mean of four texels worked out in plain numbers.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { floatsOf, pictureOf, testRig, type TestRig } from '../testing/rig';
import { drawSprites } from './sprites';
import { swarmPicture } from './swarm-picture';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const [SIDE, W, H] = [20, 64, 200];
/** Brighter than white in places, as what glows may be. */
const texel = (x: number, y: number, c: number): number => {
  if (x < 0 || y < 0 || x >= SIDE || y >= SIDE) return 0;
  const alpha = 0.5 + 0.5 * Math.sin(x * 1.7 + y * 0.9);
  return c === 3 ? alpha : alpha * (1.5 + 1.4 * Math.cos(x * (1 + c) + y * 2.3));
};
const sprite = () =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: SIDE, h: SIDE },
    Array.from({ length: SIDE * SIDE * 4 }, (_, i) => texel((i >> 2) % SIDE, Math.floor((i >> 2) / SIDE), i % 4)),
  );
/** Between the four texels about a place; they are clear around the sprite. */
function between(u: number, v: number, c: number): number {
  const [x, y] = [Math.floor(u), Math.floor(v)];
  const [p, q] = [u - x, v - y];
  const row = (below: number) => texel(x, y + below, c) * (1 - p) + texel(x + 1, y + below, c) * p;
  return row(0) * (1 - q) + row(1) * q;
}

test.each([
  ['level', 0, 15, 0.5],
  ['turned and larger', 0.7, 25, 1],
  ['turned back', -2.5, 12, 0.3],
])('a sprite that is %s has the means of its texels', (_, turn, half, opacity) => {
  // across the edge of two bands of rows
  const [x, y] = [31.3, 127.6];
  const tint = [0.9, 0.5, 0.2, 1];
  const list = Float32Array.of(x, y, half, half, Math.cos(turn), Math.sin(turn), ...tint.slice(0, 3), opacity, 0, 0);
  for (const shines of [false, true]) {
    const [own, onto] = [sprite(), Picture.make(rig.arena, { x: 0, y: 0, w: W, h: H })];
    drawSprites(rig, list.slice(), [own], onto, shines);
    const drawn = floatsOf(rig, onto);
    [own, onto].forEach((held) => held.release());
    let seen = 0;
    for (let py = 0; py < H; py++)
      for (let px = 0; px < W; px++) {
        const [dx, dy] = [px + 0.5 - x, py + 0.5 - y];
        const scale = SIDE / 2 / half;
        const u = (dx * Math.cos(turn) + dy * Math.sin(turn)) * scale + SIDE / 2 - 0.5;
        const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) * scale + SIDE / 2 - 0.5;
        // at its very rim it may be left out
        if (Math.max(Math.abs(u - SIDE / 2 + 0.5), Math.abs(v - SIDE / 2 + 0.5)) > SIDE / 2 + 0.4) continue;
        seen++;
        for (let c = 0; c < 4; c++)
          expect(Math.abs(drawn[(py * W + px) * 4 + c]! - between(u, v, c) * tint[c]! * opacity)).toBeLessThan(1 / 255);
      }
    expect(seen).toBeGreaterThan(3 * half * half);
  }
});

test('figures over several bands of rows are drawn in all of them, in their order', () => {
  const disc = (x: number, y: number, r: number, colour: number[]) => [x, y, r, r, 1, 0, ...colour, 1, 0, 0];
  const [big, small] = [disc(60, 100, 80, [1, 0, 0]), disc(60, 64, 6, [0, 1, 0])];
  const size = { w: 120, h: H };
  const look = { figure: 'disc', sprites: [], tinted: 0, shines: false };
  for (const [list, middle] of [
    [
      [...big, ...small],
      [0, 1, 0, 1],
    ],
    [
      [...small, ...big],
      [1, 0, 0, 1],
    ],
  ] as const) {
    const picture = swarmPicture({ ...rig, size }, Float32Array.from(list), look);
    const at = (x: number, y: number) => [...floatsOf(rig, picture).subarray((y * 120 + x) * 4, (y * 120 + x) * 4 + 4)];
    for (let y = 0; y < H; y++) {
      const half = Math.sqrt(Math.max(0, 80 * 80 - (y + 0.5 - 100) ** 2));
      expect(at(100, y)[3]).toBeCloseTo(half > 42 ? 1 : half < 38 ? 0 : at(100, y)[3]!, 5);
    }
    for (const y of [60, 63, 64, 68]) expect(at(60, y)).toEqual(middle.map((v) => expect.closeTo(v, 5)));
    picture.release();
  }
});

describe('out of focus', () => {
  const size = { w: 200, h: 160 };
  const [X, Y] = [100.3, 79.6];
  /** How much of an aperture about a place lies in a disc: what two circles have in common, of the aperture. */
  function seen(r: number, s: number, far: number): number {
    if (far >= r + s) return 0;
    if (far <= Math.abs(r - s)) return Math.min(1, (r / s) ** 2);
    const part = (a: number, b: number) => {
      const x = (far ** 2 + a ** 2 - b ** 2) / (2 * far);
      return a ** 2 * Math.acos(x / a) - x * Math.sqrt(Math.max(0, a ** 2 - x ** 2));
    };
    return (part(r, s) + part(s, r)) / (Math.PI * s ** 2);
  }
  function cover(figure: string, half: number, soft: number, wide = half): Float32Array {
    const list = Float32Array.of(X, Y, half, wide, 1, 0, 1, 1, 1, 1, 0, soft);
    const picture = swarmPicture({ ...rig, size }, list, { figure, sprites: [], tinted: 0, shines: false });
    const alpha = floatsOf(rig, picture).filter((_, i) => i % 4 === 3);
    picture.release();
    return alpha;
  }
  const sum = (alpha: Float32Array) => alpha.reduce((a, b) => a + b, 0);

  test.each([
    [40, 3],
    [40, 8],
    [25, 15],
    [20, 20],
    [12, 30],
    [3, 40],
  ])('a disc of %i pixels is seen through an aperture of %i as far as the two have in common', (r, s) => {
    const alpha = cover('disc', r, s);
    let worst = 0;
    for (let y = 0; y < size.h; y++)
      for (let x = 0; x < size.w; x++) {
        const far = Math.hypot(x + 0.5 - X, y + 0.5 - Y);
        // where the edge is steep, half a pixel of its place counts
        const slack = Math.abs(seen(r, s, far + 0.75) - seen(r, s, Math.max(0, far - 0.75)));
        worst = Math.max(worst, Math.abs(alpha[y * size.w + x]! - seen(r, s, far)) - slack);
      }
    expect(worst).toBeLessThan(0.07 * Math.min(1, (r / s) ** 2));
  });

  test.each(['disc', 'scrap', 'leaf', 'flake', 'dot'])('a %s covers as much in all as when it is sharp', (figure) => {
    const sharp = sum(cover(figure, 14, 0));
    for (const soft of [14, 21, 30, 45]) expect(Math.abs(sum(cover(figure, 14, soft)) / sharp - 1)).toBeLessThan(0.06);
    // one that is seen from its edge
    expect(Math.abs(sum(cover(figure, 14, 20, 2)) / sum(cover(figure, 14, 0, 2)) - 1)).toBeLessThan(0.25);
  });

  test('a soft dot is as far about its middle as dot and aperture are together', () => {
    const alpha = cover('dot', 10, 20);
    const square = alpha.reduce(
      (all, v, i) => all + v * (((i % size.w) + 0.5 - X) ** 2 + (Math.floor(i / size.w) + 0.5 - Y) ** 2),
      0,
    );
    expect(Math.abs(square / sum(alpha) / (10 ** 2 / 4 + 20 ** 2 / 2) - 1)).toBeLessThan(0.01);
  });

  test('what grows more out of focus does so without a leap', () => {
    const softs = Array.from({ length: 60 }, (_, i) => 2 + i * 0.5);
    const middles = softs.map((soft) => cover('disc', 12, soft)[Math.floor(Y) * size.w + Math.floor(X)]!);
    for (let i = 1; i < middles.length; i++) expect(Math.abs(middles[i]! - middles[i - 1]!)).toBeLessThan(0.14);
    expect(middles[0]).toBeCloseTo(1, 2);
  });
});
