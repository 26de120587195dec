import { beforeAll, describe, expect, test } from '@jest/globals';
import { toDisplay } from '../picture/light';
import { testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(32e6);
});

const [W, H] = [45, 38];
const EPS = 1e-4;
type Plane = Float32Array;
const plane = (at: (x: number, y: number) => number): Plane =>
  Float32Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W)));
const noise = (x: number, y: number) => (Math.sin(x * 12.9898 + y * 78.233) * 43758.5453) % 1;

/** The kernel over a whole plane, the whole of it. */
function guided(matte: Plane, luma: Plane, r: number): Plane {
  const { arena, kernels } = rig;
  const bytes = matte.byteLength + 12;
  return arena.scratch(3 * bytes + 64, (at) =>
    arena.scratch(kernels.guideScratch(r), (scratch) => {
      const [alpha, guide, out] = [0, 1, 2].map((k) => at + k * 16 * Math.ceil(bytes / 16)) as [number, number, number];
      arena.floats(alpha, matte.length).set(matte);
      arena.floats(guide, luma.length).set(luma);
      kernels.guidePlane(alpha, guide, out, W, H, 0, r, EPS, 0, 1, scratch);
      return arena.floats(out, matte.length).slice();
    }),
  );
}

const read = (from: Plane, x: number, y: number) =>
  from[Math.min(H - 1, Math.max(0, y)) * W + Math.min(W - 1, Math.max(0, x))]!;
const windowMean = (value: (x: number, y: number) => number, x: number, y: number, r: number) => {
  let sum = 0;
  for (let v = y - r; v <= y + r; v++) for (let u = x - r; u <= x + r; u++) sum += value(u, v);
  return sum / (2 * r + 1) ** 2;
};
/** Means over three by three pixels, weighted 1 2 1 each way. */
const evened = (matte: Plane): Plane => {
  const at = (x: number, y: number) => (read(matte, x - 1, y) + 2 * read(matte, x, y) + read(matte, x + 1, y)) / 4;
  return plane((x, y) => (at(x, y - 1) + 2 * at(x, y) + at(x, y + 1)) / 4);
};

/** The formula as He, Sun and Tang 2010 write it, window by window; the nearest pixel stands for what is outside. */
function byWindows(matte: Plane, luma: Plane, r: number): Plane {
  const line = (x: number, y: number): [number, number] => {
    const i = windowMean((u, v) => read(luma, u, v), x, y, r);
    const p = windowMean((u, v) => read(matte, u, v), x, y, r);
    const variance = windowMean((u, v) => read(luma, u, v) ** 2, x, y, r) - i * i;
    const a = (windowMean((u, v) => read(luma, u, v) * read(matte, u, v), x, y, r) - i * p) / (variance + EPS);
    return [a, p - a * i];
  };
  const lines = new Map<number, [number, number]>();
  const lineAt = (x: number, y: number) => {
    const key = (y + r) * 1000 + x + r;
    if (!lines.has(key)) lines.set(key, line(x, y));
    return lines.get(key)!;
  };
  return plane((x, y) =>
    Math.min(
      1,
      Math.max(
        0,
        windowMean((u, v) => lineAt(u, v)[0], x, y, r) * read(luma, x, y) +
          windowMean((u, v) => lineAt(u, v)[1], x, y, r),
      ),
    ),
  );
}

/** Mixed with the share that the luminance has between those of the two sides of the edge, by how sure each of the two is. */
function formula(matte: Plane, luma: Plane, r: number): Plane {
  const even = evened(matte);
  const lit = (x: number, y: number) => read(luma, x, y) ** 2 * (0.7 + 0.3 * read(luma, x, y));
  const rough = byWindows(even, luma, r);
  const side = (belongs: (p: number) => boolean, x: number, y: number) => {
    const is = (u: number, v: number) => (belongs(read(even, u, v)) ? 1 : 0);
    const count = windowMean(is, x, y, 2 * r);
    return count ? windowMean((u, v) => is(u, v) * lit(u, v), x, y, 2 * r) / count : NaN;
  };
  return plane((x, y) => {
    const p = even[y * W + x]!;
    const [solid, clear] = [side((v) => v >= 0.9, x, y), side((v) => v <= 0.1, x, y)];
    if (p >= 0.9 || p <= 0.1 || Number.isNaN(solid + clear)) return rough[y * W + x]!;
    const share = Math.min(1, Math.max(0, (lit(x, y) - clear) / (solid - clear)));
    const [luminance, colour] = [((solid - clear) / 0.026) ** 2, 1 / 0.2 ** 2];
    return (luminance * share + colour * rough[y * W + x]!) / (luminance + colour);
  });
}

describe('a matte guided by brightness', () => {
  const edge = plane((x) => Math.min(1, Math.max(0, (x - 18.7) / 6.1)));
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
    expect(rise(edge)).toBeLessThan(0.17);
    expect(rise(got)).toBeGreaterThan(0.4);
  });

  test('an edge that halved colour has blurred comes back at its place, to a part of a pixel', () => {
    for (const shift of [0.25, 0.5, 0.8]) {
      const truth = plane((x) => (x < 22 ? 0 : x > 22 ? 1 : shift));
      // mixed in light, recorded as luma; the matte is known for pairs of pixels only
      const luma = plane((x, y) => toDisplay(0.08 + truth[y * W + x]! * 0.4));
      const halved = plane((x, y) => (read(truth, x - (x % 2), y) + read(truth, x - (x % 2) + 1, y)) / 2);
      const at = 19 * W + 22;
      expect(Math.abs(halved[at]! - truth[at]!)).toBeGreaterThan(0.09);
      expect(Math.abs(guided(halved, luma, 2)[at]! - truth[at]!)).toBeLessThan(0.03);
    }
  });

  test('where the picture is flat the matte is only smoothed, and a solid one stays solid', () => {
    const flat = plane(() => 0.4);
    const got = guided(edge, flat, 2);
    for (let x = 1; x < W; x++) expect(got[19 * W + x]!).toBeGreaterThanOrEqual(got[19 * W + x - 1]! - 1e-6);
    guided(
      plane(() => 1),
      luma,
      3,
    ).forEach((v) => expect(v).toBe(1));
  });
});
