import { beforeAll, describe, expect, test } from '@jest/globals';
import { testRig, type TestRig } from '../testing/rig';
import { cloudPlane, type CloudForm } from './noise';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const [W, H] = [160, 100];
const PLAIN: CloudForm = {
  grain: [64, 40],
  from: [-80, -50],
  moved: [0, 0],
  turned: 0.37,
  layers: 1,
  rough: 0.5,
  veins: false,
  seed: 7,
};
function plane(change: Partial<CloudForm> = {}): Float32Array {
  let out = new Float32Array();
  rig.arena.scratch(W * H * 4, (at) => {
    cloudPlane(rig, at, W, H, { ...PLAIN, ...change });
    out = rig.arena.floats(at, W * H).slice();
  });
  return out;
}
const mean = (list: Float32Array) => list.reduce((sum, v) => sum + v, 0) / list.length;
const alike = (a: Float32Array, b: Float32Array): number => {
  const [ma, mb] = [mean(a), mean(b)];
  const of = (x: Float32Array, y: Float32Array, mx: number, my: number) =>
    x.reduce((sum, v, i) => sum + (v - mx) * (y[i]! - my), 0);
  return of(a, b, ma, mb) / Math.sqrt(of(a, a, ma, ma) * of(b, b, mb, mb));
};

describe('clouds', () => {
  test('are nothing at the corners of their grains, and smooth between', () => {
    // a corner of the grid lies on every 64th pixel across, every 40th upright, when nothing is turned
    const still = plane({ turned: 0, from: [0, 0] });
    for (const [x, y] of [
      [0, 0],
      [64, 40],
      [128, 80],
    ] as const)
      expect(still[y * W + x]).toBeCloseTo(0, 5);
    for (let i = 1; i < W * H; i++) if (i % W) expect(Math.abs(still[i]! - still[i - 1]!)).toBeLessThan(0.08);
    expect(Math.max(...still)).toBeGreaterThan(0.2);
    expect(Math.max(...still.map(Math.abs))).toBeLessThanOrEqual(1.01);
  });

  test('drawn by every pixel are the same as drawn by a few and straight lines between', () => {
    let direct = new Float32Array();
    rig.arena.scratch(W * H * 4, (at) => {
      rig.kernels.noisePlane(at, W, H, -80 / 64, -50 / 40, 0.37, 1 / 64, 1 / 40, 7);
      direct = rig.arena.floats(at, W * H).slice();
    });
    const quick = plane();
    const worst = direct.reduce((most, v, i) => Math.max(most, Math.abs(v - quick[i]!)), 0);
    expect(worst).toBeGreaterThan(0);
    expect(worst).toBeLessThan(0.02);
  });

  test('move as a whole: another place of the same clouds', () => {
    const [here, there] = [
      plane({ layers: 4, grain: [16, 16] }),
      plane({ layers: 4, grain: [16, 16], from: [-70, -50] }),
    ];
    for (let y = 0; y < H; y += 7)
      for (let x = 0; x < W - 10; x += 3) expect(there[y * W + x]).toBeCloseTo(here[y * W + x + 10]!, 4);
  });

  test('drift by so many pixels, parts of one too', () => {
    const [here, there] = [plane(), plane({ moved: [10, -5] })];
    for (let y = 0; y < H - 5; y += 7)
      for (let x = 10; x < W; x += 3) expect(there[y * W + x]).toBeCloseTo(here[(y + 5) * W + x - 10]!, 1.7);
    const half = plane({ moved: [0.5, 0], turned: 0 });
    expect(half[50 * W + 80]).not.toBe(plane({ turned: 0 })[50 * W + 80]);
  });

  test('of another seed are others; a little later they are nearly the same, much later others', () => {
    const layers = { layers: 4 };
    expect(alike(plane(layers), plane({ ...layers, seed: 8 }))).toBeLessThan(0.4);
    expect(alike(plane(layers), plane({ ...layers, turned: 0.39 }))).toBeGreaterThan(0.97);
    expect(alike(plane(layers), plane({ ...layers, turned: 3.37 }))).toBeLessThan(0.5);
  });

  test('are about even on the whole, and veins are most where the noise is nothing', () => {
    const many = plane({ grain: [12, 12], layers: 3 });
    expect(Math.abs(mean(many))).toBeLessThan(0.06);
    const [soft, veins] = [plane({ grain: [16, 16] }), plane({ grain: [16, 16], veins: true })];
    soft.forEach((v, i) => expect(veins[i]).toBeCloseTo(1 - 2 * Math.abs(v), 5));
  });
});
