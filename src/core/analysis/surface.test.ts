import { describe, expect, test } from '@jest/globals';
import { toLinear } from '../picture/light';
import { lackOf, readSurface } from './surface';

const [W, H] = [200, 140];
const ALL = [
  [0, 0],
  [W, 0],
  [W, H],
  [0, H],
] as const;
/** The share of a normal number that lies below x. Source: Abramowitz & Stegun 7.1.26. */
function below(x: number): number {
  const t = 1 / (1 + (0.3275911 * Math.abs(x)) / Math.SQRT2);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const erf = 1 - poly * Math.exp((-x * x) / 2);
  return x < 0 ? (1 - erf) / 2 : (1 + erf) / 2;
}
function dice(seed: number): () => number {
  return () => ((seed = (Math.imul(seed, 1664525) + 1013904223) | 0) >>> 0) / 4294967296;
}
/** Slanted stripes with edges soft by σ, with normal noise. */
function stripes(sigma: number, noise: number, seed = 5, alpha = 255): Uint8ClampedArray {
  const next = dice(seed);
  const normal = () => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());
  const out = new Uint8ClampedArray(W * H * 4);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const along = (x * 0.9 + y * 0.436 + 1000) % 48;
      const v = 0.25 + 0.45 * (below((along - 12) / sigma) - below((along - 36) / sigma));
      const seen = Math.round(255 * (v + noise * normal()));
      out.set([seen, seen, seen, alpha], (y * W + x) * 4);
    }
  return out;
}

/** Normal noise of deviation 1, soft by a Gaussian. */
function coarse(size: number, seed: number): Float64Array {
  const next = dice(seed);
  const reach = Math.ceil(4 * size);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, k) => Math.exp(-((k - reach) ** 2) / (2 * size * size)));
  const along = (from: Float64Array, step: number) =>
    from.map((_, i) =>
      weights.reduce((sum, v, k) => sum + v * (from[(i + (k - reach) * step + W * H) % (W * H)] ?? 0), 0),
    );
  const white = Float64Array.from({ length: W * H }, () => {
    const far = Math.sqrt(-2 * Math.log(next() + 1e-12));
    return far * Math.cos(2 * Math.PI * next());
  });
  const soft = along(along(white, 1), W);
  const deviation = Math.sqrt(soft.reduce((sum, v) => sum + v * v, 0) / soft.length);
  return soft.map((v) => v / deviation);
}

describe('a surface', () => {
  test.each([0.7, 1, 1.6, 2.5, 4])('is as soft as its edges: σ = %d', (sigma) => {
    const { softness } = readSurface(stripes(sigma, 0.004), W, H, ALL)!;
    expect(Math.abs(softness! / sigma - 1)).toBeLessThan(0.15);
  });
  test.each([0.01, 0.03, 0.05])('is so under noise of %d too', (noise) => {
    for (const sigma of [1, 1.6, 2.5])
      for (const seed of [11, 12, 13]) {
        const { softness } = readSurface(stripes(sigma, noise, seed), W, H, ALL)!;
        expect(Math.abs(softness! / sigma - 1)).toBeLessThan(0.15);
      }
  });
  test.each([0.01, 0.02, 0.05])('has the noise of its flat parts: %d', (noise) => {
    for (const seed of [1, 2, 3]) {
      const { grain } = readSurface(stripes(1.5, noise, seed), W, H, ALL)!;
      expect(Math.abs(grain / noise - 1)).toBeLessThan(0.2);
    }
  });
  test.each([0.6, 1, 1.4])('has noise whose grains are soft by %d as strong and as large as it is', (size) => {
    for (const seed of [4, 5, 6]) {
      const noise = coarse(size, seed);
      const lit = stripes(1.2, 0).map((v, i) => (i % 4 < 3 ? v + Math.round(255 * 0.03 * noise[i >> 2]!) : 255));
      const { grain, grainSize } = readSurface(lit, W, H, ALL)!;
      expect(Math.abs(grain / 0.03 - 1)).toBeLessThan(0.15);
      expect(Math.abs(grainSize - size)).toBeLessThan(0.2);
    }
  });
  test('is read only within its corners, and only where it is solid', () => {
    const picture = stripes(1, 0.01);
    // everything right of the middle is white and still
    for (let y = 0; y < H; y++) for (let x = W / 2; x < W; x++) picture.set([255, 255, 255, 255], (y * W + x) * 4);
    const right = readSurface(picture, W, H, [
      [W / 2 + 4, 4],
      [W - 4, 4],
      [W - 4, H - 4],
      [W / 2 + 4, H - 4],
    ])!;
    expect(right).toEqual({ softness: null, grain: 0, grainSize: 0, light: expect.closeTo(1, 5), black: 1 });
    expect(readSurface(stripes(1, 0, 1, 0), W, H, ALL)).toBeNull();
  });
  test('lacks what makes it as soft, grainy and black as another', () => {
    const [crisp, filmed] = [stripes(0.7, 0), stripes(2, 0.03)].map((data) => readSurface(data, W, H, ALL)!);
    // variances add up; black is 1 of 200 pixels, so some of the noise below a quarter
    const { blur, grain, black } = lackOf(crisp!, filmed!, 1);
    expect(Math.abs(blur - Math.sqrt(4 - 0.49))).toBeLessThan(0.2);
    expect(Math.abs(grain - 0.03)).toBeLessThan(0.005);
    expect((crisp!.black - black) / (1 - black)).toBeCloseTo(filmed!.black, 5);
    expect(lackOf(filmed!, crisp!, 1)).toMatchObject({ blur: 0, grain: 0 });
    expect(lackOf(crisp!, crisp!, 1)).toMatchObject({ blur: 0, grain: 0, black: 0 });
    // where the layer is drawn at half its size, what is wanted in the shot is twice as wide in the layer
    expect(Math.abs(lackOf(crisp!, filmed!, 2).blur - Math.sqrt(16 - 0.49))).toBeLessThan(0.4);
  });
  test('is as black as its darkest parts, of which one pixel in 200 counts', () => {
    const flat = new Uint8ClampedArray(W * H * 4).fill(255);
    for (let i = 0; i < W * H; i++) flat.fill(i < 50 ? 5 : i < 250 ? 20 : 120, i * 4, i * 4 + 3);
    expect(readSurface(flat, W, H, ALL)!.black).toBeCloseTo(20 / 255, 6);
  });
  test('is as bright as the mean of its light', () => {
    const flat = new Uint8ClampedArray(W * H * 4).fill(128);
    for (let i = 3; i < flat.length; i += 4) flat[i] = 255;
    expect(readSurface(flat, W, H, ALL)!.light).toBeCloseTo(toLinear(128 / 255), 6);
  });
});
