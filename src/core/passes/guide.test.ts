import { beforeAll, describe, expect, test } from '@jest/globals';
import { testBench, type TestBench } from '../testing/bench';

let bench: TestBench;
beforeAll(async () => {
  bench = await testBench(32e6);
});

const [W, H, TILE] = [45, 38, 16];
const EPS = 1e-4;
type Plane = Float32Array;
const plane = (at: (x: number, y: number) => number): Plane => Float32Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W)));
const noise = (x: number, y: number) => (Math.sin(x * 12.9898 + y * 78.233) * 43758.5453) % 1;

/** The kernel over a whole plane, tile by tile. */
function guided(matte: Plane, luma: Plane, r: number): Plane {
  const { arena, kernels } = bench;
  const bytes = matte.byteLength + 12;
  const block = 2 * (TILE + 4 * r) ** 2 * 16;
  return arena.scratch(3 * bytes + 64, (at) =>
    arena.scratch(block, (scratch) => {
      const [alpha, guide, out] = [0, 1, 2].map((k) => at + k * 16 * Math.ceil(bytes / 16)) as [number, number, number];
      arena.floats(alpha, matte.length).set(matte);
      arena.floats(guide, luma.length).set(luma);
      for (let y = 0; y < H; y += TILE) for (let x = 0; x < W; x += TILE) kernels.guideTile(alpha, guide, out, W, H, x, y, TILE, r, EPS, scratch);
      return arena.floats(out, matte.length).slice();
    }),
  );
}

/** The formula as He, Sun and Tang 2010 write it, window by window; the nearest pixel stands for what is outside. */
function formula(matte: Plane, luma: Plane, r: number): Plane {
  const read = (from: Plane, x: number, y: number) => from[Math.min(H - 1, Math.max(0, y)) * W + Math.min(W - 1, Math.max(0, x))]!;
  const windowMean = (value: (x: number, y: number) => number, x: number, y: number) => {
    let sum = 0;
    for (let v = y - r; v <= y + r; v++) for (let u = x - r; u <= x + r; u++) sum += value(u, v);
    return sum / (2 * r + 1) ** 2;
  };
  const line = (x: number, y: number): [number, number] => {
    const i = windowMean((u, v) => read(luma, u, v), x, y);
    const p = windowMean((u, v) => read(matte, u, v), x, y);
    const variance = windowMean((u, v) => read(luma, u, v) ** 2, x, y) - i * i;
    const a = (windowMean((u, v) => read(luma, u, v) * read(matte, u, v), x, y) - i * p) / (variance + EPS);
    return [a, p - a * i];
  };
  const lines = new Map<number, [number, number]>();
  const lineAt = (x: number, y: number) => {
    const key = (y + r) * 1000 + x + r;
    if (!lines.has(key)) lines.set(key, line(x, y));
    return lines.get(key)!;
  };
  return plane((x, y) => Math.min(1, Math.max(0, windowMean((u, v) => lineAt(u, v)[0], x, y) * read(luma, x, y) + windowMean((u, v) => lineAt(u, v)[1], x, y))));
}

describe('a matte guided by brightness', () => {
  const edge = plane((x) => Math.min(1, Math.max(0, (x - 18) / 9)));
  const luma = plane((x, y) => 0.5 + (x < 22 + (y % 5) ? 0.2 : -0.2) + 0.05 * noise(x, y));

  test.each([1, 2, 4])('is what the formula says at every pixel, over the seams of tiles too; radius %d', (r) => {
    const [got, want] = [guided(edge, luma, r), formula(edge, luma, r)];
    // where the matte is the same all around, it is left alone
    got.forEach((v, i) => expect(Math.abs(v - want[i]!)).toBeLessThan(2e-3));
  });

  test('a soft matte gets the sharp edge of the picture', () => {
    const step = plane((x) => (x < 22 ? 0.2 : 0.8));
    const got = guided(edge, step, 4);
    const rise = (from: Plane) => from[19 * W + 22]! - from[19 * W + 21]!;
    expect(rise(edge)).toBeLessThan(0.12);
    expect(rise(got)).toBeGreaterThan(0.4);
  });

  test('where the picture is flat the matte is only smoothed, and a solid one stays solid', () => {
    const flat = plane(() => 0.4);
    const got = guided(edge, flat, 2);
    for (let x = 1; x < W; x++) expect(got[19 * W + x]!).toBeGreaterThanOrEqual(got[19 * W + x - 1]! - 1e-6);
    guided(plane(() => 1), luma, 3).forEach((v) => expect(v).toBe(1));
  });
});
