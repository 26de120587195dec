import { beforeAll, describe, expect, test } from '@jest/globals';
import { measure } from '../execute/backends/wasm/measure';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import type { AlonePlan } from '../plan/types';
import { testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig();
});

const [W, H] = [64, 48];
/** A clip whose left half is a green screen and whose right half is grey; the last column is clear. */
const frame = new Uint8ClampedArray(W * H * 4);
for (let i = 0; i < W * H; i++) {
  const x = i % W;
  frame.set(x < W / 2 ? [40, 200, 60, 255] : [120, 120, 120, x === W - 1 ? 0 : 255], i * 4);
}
const layer = {
  id: 'layer',
  name: 'clip',
  source: { kind: 'stock', stock: 'clip', name: 'clip', seconds: 0, file: 'clip' },
  size: { w: W, h: H },
  sourceKey: 'clip',
  passes: [],
  after: [],
  cover: [],
  key: 'clip',
  tables: { mattes: {}, lines: {}, shots: {} },
} as unknown as AlonePlan;
const executor = () =>
  new WasmExecutor(rig.kernels, rig.arena, () => Promise.resolve({ data: frame, width: W, height: H }));

describe('measures on a layer', () => {
  test('the mean of a part is the mean of its pixels, with the part cut to the picture', async () => {
    const [r, g, b, a] = await measure(executor(), layer, 'mean', { x: 4, y: 4, w: 8, h: 8 });
    for (const [got, want] of [
      [r, 40],
      [g, 200],
      [b, 60],
      [a, 255],
    ] as const)
      expect(got).toBeCloseTo(want / 255, 4);
    const beyond = await measure(executor(), layer, 'mean', { x: W + 20, y: -5, w: 3, h: 3 });
    expect(beyond[3]).toBe(0);
  });

  test('brightness is after BT.709', async () => {
    const { w, h, values } = await measure(executor(), layer, 'luma', null);
    expect([w, h]).toEqual([W, H]);
    expect(values[0]).toBe(Math.floor(0.2126 * 40 + 0.7152 * 200 + 0.0722 * 60));
    expect(values[W - 2]).toBeGreaterThanOrEqual(119);
  });

  test('a screen is found, and how much of the picture it covers', async () => {
    const found = (await measure(executor(), layer, 'findScreen', null))!;
    expect(found.samples).toHaveLength(1);
    expect(found.samples[0]![1]).toBeCloseTo(200 / 255, 2);
    expect(found.share).toBeCloseTo(0.5, 1);
    const { seen } = await measure(executor(), layer, 'screenShare', found.samples);
    expect(seen).toBeGreaterThan(0.4);
    expect(seen).toBeLessThan(0.6);
  });

  test('a key check counts what is solid, clear and between', async () => {
    const check = await measure(executor(), layer, 'keyCheck', null);
    expect(check.clear).toBeCloseTo(1 / W, 6);
    expect(check.solid).toBeCloseTo(1 - 1 / W, 6);
    expect(check.between).toBe(0);
  });

  test('coverage is of masks and needs no picture', async () => {
    const plan = {
      masks: [
        {
          mode: 'add',
          invert: false,
          opacity: 1,
          feather: 0,
          featherSide: 'both',
          grow: 0,
          shape: { kind: 'rectangle', centre: [0, 0], size: [20, 10], rotation: 0, radius: 0 },
        },
      ],
      side: 'inside',
      scale: 1,
      centre: [W / 2, H / 2],
    };
    const { values } = await measure(executor(), null, 'coverage', plan as never);
    expect(values.reduce((sum, v) => sum + v, 0) / 255).toBeCloseTo(200, 5);
  });

  test('a placeholder is not measured, and memory comes back', async () => {
    const whole = executor();
    await measure(whole, layer, 'mean', { x: 0, y: 0, w: 4, h: 4 });
    whole.cache.clear();
    const before = rig.arena.used;
    const broken = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('gone')));
    await expect(measure(broken, layer, 'luma', null)).rejects.toMatchObject({ code: 'bad-media' });
    broken.cache.clear();
    expect(rig.arena.used).toBe(before);
  });
});
