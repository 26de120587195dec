import { beforeAll, describe, expect, test } from '@jest/globals';
import { toDisplay, toLinear } from '../picture/light';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});

const [W, H] = [96, 64];
type Colour = readonly [number, number, number, number];
const picture = (pixel: (x: number, y: number) => Colour) =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => pixel(i % W, Math.floor(i / W))).flat(),
  );
function through(type: string, values: Record<string, unknown>, pixel: (x: number, y: number) => Colour) {
  const out = runPass(rig, type, values as never, picture(pixel));
  const floats = floatsOf(rig, out);
  const { rect } = out;
  out.release();
  const at = (x: number, y: number): Float32Array => {
    const i = 4 * ((y - rect.y) * rect.w + x - rect.x);
    return floats.subarray(i, i + 4);
  };
  return { rect, at, floats };
}
/** Lamps of two pixels by two on a dark ground. */
const lamp =
  (...places: readonly (readonly [number, number])[]) =>
  (x: number, y: number): Colour =>
    places.some(([px, py]) => Math.abs(x - px) < 1 && Math.abs(y - py) < 1) ? [1, 1, 1, 1] : [0.1, 0.1, 0.1, 1];
const AT: [number, number] = [48, 32];
const one = lamp([47.5, 31.5]);

describe('glow', () => {
  test('adds in linear light what three Gaussians make of the lamp', () => {
    const reach = 24;
    const values = { reach, strength: 0.5, threshold: 0.5, alone: 'light' };
    const { at } = through('glow', values, one);
    // what is far above the threshold gives all that is above it, as the lamp's own colour: 1 − threshold
    const light = 1 - toLinear(0.5);
    const gauss = (d: number, sigma: number) =>
      Math.exp(-(d * d) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI));
    const wanted = (x: number, y: number) =>
      [
        [1 / 12, 0.45],
        [1 / 5, 0.32],
        [1 / 2.2, 0.23],
      ].reduce((sum, [width, weight]) => {
        const along = (v: number, from: number) =>
          [0, 1].reduce((part, i) => part + gauss(v - (from + i), width! * reach), 0);
        return sum + weight! * along(x, 47) * along(y, 31);
      }, 0);
    for (const [x, y] of [
      [48, 32],
      [52, 32],
      [48, 40],
      [60, 38],
    ] as const)
      expect(toLinear(at(x, y)[0]!)).toBeCloseTo(0.5 * light * wanted(x, y), 3);
  });

  test('leaves what is dark, and a picture without lamps, as they are', () => {
    const { at } = through('glow', { threshold: 0.7, reach: 20 }, (x) => [x / 200, 0.2, 0.3, 1]);
    for (const x of [3, 40, 90]) expect(at(x, 20)[0]).toBeCloseTo(x / 200, 2);
  });

  test('of all of a layer shines beyond its shape, and covers there as much as it is bright', () => {
    const { at, rect } = through('glow', { of: 'all', reach: 30, colour: [1, 0.5, 0] }, (x) =>
      x < 20 ? [0.9, 0.9, 0.9, 1] : [0, 0, 0, 0],
    );
    expect(rect.x).toBeLessThan(0);
    const [r, g, b, a] = at(24, 32);
    expect(r).toBeGreaterThan(0.2);
    expect(g).toBeLessThan(r!);
    expect(b).toBeLessThan(0.02);
    expect(r).toBeCloseTo(a!, 2);
  });

  test('shows no bands: of a slow slope every row has the same mean, and its pixels are two steps at most', () => {
    const { at } = through('glow', { reach: 300, threshold: 0.3, strength: 0.2, alone: 'light' }, (x) =>
      x < 48 ? [0.9, 0.9, 0.9, 1] : [0, 0, 0, 1],
    );
    const column = (x: number) => Array.from({ length: 12 }, (_, y) => Math.round(at(x, 26 + y)[0]! * 255));
    // between two values of eight bits both are there
    let both = 0;
    for (let x = 50; x < 90; x++) {
      const found = new Set(column(x));
      expect(found.size).toBeLessThanOrEqual(2);
      if (found.size === 2) both++;
    }
    expect(both).toBeGreaterThan(5);
  });
});

describe('streaks', () => {
  const values = { threshold: 0.5, length: 40, strength: 1, alone: 'light', colour: [1, 1, 1] };
  test('lie along their direction, equally far to both sides, and keep the light that there is', () => {
    const { at } = through('streaks', values, one);
    expect(at(60, 31)[0]).toBeCloseTo(at(35, 31)[0]!, 2);
    expect(at(52, 31)[0]).toBeGreaterThan(2 * at(60, 31)[0]!);
    expect(at(60, 31)[0]).toBeGreaterThan(0.02);
    expect(at(60, 36)[0]).toBeLessThan(0.01);
    expect(at(48 + 24, 31)[0]).toBeLessThan(0.01);
    let sum = 0;
    for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) sum += toLinear(at(x, y)[0]!);
    expect(sum).toBeCloseTo(4 * (1 - toLinear(0.5)), 0);
  });
  test('cross when there are two', () => {
    const { at } = through('streaks', { ...values, lines: '2', angle: 90 }, one);
    expect(at(47, 42)[0]).toBeGreaterThan(0.05);
    expect(at(58, 31)[0]).toBeCloseTo(at(47, 42)[0]!, 3);
    expect(at(56, 40)[0]).toBeLessThan(0.01);
  });
});

describe('light rays', () => {
  test('go away from their point alone, in line with it', () => {
    // pass points are counted from the picture's top left by the time they work
    const { at } = through(
      'light-rays',
      { from: [20, 32], threshold: 0.5, length: 0.5, strength: 4, alone: 'light' },
      lamp([40.5, 31.5]),
    );
    // the ray ends twice as far from the point as the lamp lies
    expect(at(52, 31)[0]).toBeGreaterThan(0.05);
    for (const [x, y] of [
      [66, 31],
      [34, 31],
      [52, 40],
    ] as const)
      expect(at(x, y)[0]).toBeLessThan(0.02);
  });
});

describe('moving blur', () => {
  const wave = (x: number, y: number): Colour => {
    const v = 0.5 + 0.4 * Math.sin(x / 5) * Math.cos(y / 6);
    return [v, v * 0.5, 0.2, 1];
  };
  /** The mean along a way by many small steps, of the formula itself. */
  const mean = (steps: (share: number) => readonly [number, number]): number => {
    const N = 400;
    let sum = 0;
    for (let i = 0; i < N; i++) {
      const [x, y] = steps((i + 0.5) / N - 0.5);
      sum += wave(x, y)[0];
    }
    return sum / N;
  };
  const turned = (x: number, y: number, degrees: number, size: number): [number, number] => {
    const a = (degrees * Math.PI) / 180;
    const [u, v] = [x + 0.5 - AT[0], y + 0.5 - AT[1]];
    return [
      AT[0] + (u * Math.cos(a) - v * Math.sin(a)) * size - 0.5,
      AT[1] + (u * Math.sin(a) + v * Math.cos(a)) * size - 0.5,
    ];
  };
  test.each([
    [
      'line',
      { way: 'line', length: 20, angle: 30 },
      (x: number, y: number, t: number) => [x + 20 * t * Math.cos(Math.PI / 6), y + 10 * t] as const,
    ],
    ['zoom', { way: 'zoom', zoom: 0.4, about: AT }, (x: number, y: number, t: number) => turned(x, y, 0, 1.4 ** t)],
    ['spin', { way: 'spin', spin: 20, about: AT }, (x: number, y: number, t: number) => turned(x, y, 20 * t, 1)],
  ] as const)('%s: is the mean along the way, by many steps', (_, values, way) => {
    const { at } = through('moving-blur', values, wave);
    for (const [x, y] of [
      [48, 32],
      [30, 20],
      [70, 45],
      [40, 50],
    ] as const)
      expect(at(x, y)[0]).toBeCloseTo(
        mean((t) => way(x, y, t)),
        1.7,
      );
  });

  test('keeps a picture solid up to its border, or lets it fade beyond', () => {
    const plain = (): Colour => [0.5, 0.5, 0.5, 1];
    const solid = through('moving-blur', { length: 30 }, plain);
    expect(solid.rect).toEqual({ x: 0, y: 0, w: W, h: H });
    expect([...solid.floats].every((v, i) => Math.abs(v - (i % 4 === 3 ? 1 : 0.5)) < 1e-5)).toBe(true);
    const fading = through('moving-blur', { length: 30, edges: 'fade' }, plain);
    expect(fading.at(-8, 30)[3]).toBeCloseTo(7.5 / 30, 1);
    expect(fading.at(0, 30)[3]).toBeCloseTo(0.5, 1);
  });
});

test('the threshold is soft: brightness just below it gives a little light', () => {
  const light = (v: number) =>
    through('glow', { threshold: 0.5, reach: 1, strength: 1, alone: 'light' }, () => [v, v, v, 1]).at(48, 32)[0]!;
  const t = toLinear(0.5);
  expect(light(toDisplay(0.55 * t))).toBeCloseTo(0, 2);
  expect(light(toDisplay(t))).toBeGreaterThan(0.05);
  expect(toLinear(light(toDisplay(3 * t)))).toBeCloseTo(2 * t, 2);
});
