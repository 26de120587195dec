// What a sprite's pixels are, against a mean of four texels worked out in plain numbers.
import { beforeAll, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { floatsOf, pictureOf, testBench, type TestBench } from '../testing/bench';
import { drawSprites } from './sprites';
import { swarmPicture } from './swarm-picture';

let bench: TestBench;
beforeAll(async () => {
  bench = await testBench(64e6);
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
    bench,
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
  const list = Float32Array.of(x, y, half, half, Math.cos(turn), Math.sin(turn), ...tint.slice(0, 3), opacity, 0);
  for (const shines of [false, true]) {
    const [own, onto] = [sprite(), Picture.make(bench.arena, { x: 0, y: 0, w: W, h: H })];
    drawSprites(bench, list.slice(), [own], onto, shines);
    const drawn = floatsOf(bench, onto);
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
  const disc = (x: number, y: number, r: number, colour: number[]) => [x, y, r, r, 1, 0, ...colour, 1, 0];
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
    const picture = swarmPicture({ ...bench, size }, Float32Array.from(list), look);
    const at = (x: number, y: number) => [
      ...floatsOf(bench, picture).subarray((y * 120 + x) * 4, (y * 120 + x) * 4 + 4),
    ];
    for (let y = 0; y < H; y++) {
      const half = Math.sqrt(Math.max(0, 80 * 80 - (y + 0.5 - 100) ** 2));
      expect(at(100, y)[3]).toBeCloseTo(half > 42 ? 1 : half < 38 ? 0 : at(100, y)[3]!, 5);
    }
    for (const y of [60, 63, 64, 68]) expect(at(60, y)).toEqual(middle.map((v) => expect.closeTo(v, 5)));
    picture.release();
  }
});
