import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { newSource } from '../document/edits/layers';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { plainFont } from '../formats/font-file';
import { planFrame } from '../plan/plan';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import { boundsOf } from '../masks/path';
import { lineOf, readFont } from '../text/line';
import type { Reduction } from '../time/moment';
import { MOST_POINTS, thinEnough } from './solid-bodies';

let rig: TestRig;
let executor: WasmExecutor;
beforeAll(async () => {
  rig = await testRig(512e6);
  const file = createRequire(import.meta.url).resolve('@fontsource/archivo/files/archivo-latin-700-normal.woff');
  const font = readFont(await plainFont(new Uint8Array(readFileSync(file)), 'archivo'));
  executor = new WasmExecutor(
    rig.kernels,
    rig.arena,
    () => Promise.reject(new Error('no footage here')),
    (text, { tracking }) => Promise.resolve(lineOf([font], text, tracking)),
  );
});

const [W, H] = [640, 360];
const FLAT = { tip: 0, swing: 0, bevel: 0, letter: 80, deep: 30 };
async function shown(values: object, reduction: Reduction = 1): Promise<{ w: number; floats: Float32Array }> {
  const layer = layerOf('a', newSource('solid', { size: [W, H], ...FLAT, ...values }));
  const project = projectOf([layer], { width: W, height: H, background: null });
  const picture = await executor.frame(planFrame(project, SHOT, 0, { reduction }), 'none');
  const floats = floatsOf(rig, picture).slice();
  const { w } = picture.rect;
  picture.release();
  executor.cache.clear();
  return { w, floats };
}
const covered = ({ floats }: { floats: Float32Array }): number => {
  let sum = 0;
  for (let i = 3; i < floats.length; i += 4) sum += floats[i]!;
  return sum;
};
const alphaAt = ({ w, floats }: { w: number; floats: Float32Array }, x: number, y: number): number =>
  floats[(y * w + x) * 4 + 3]!;

describe('solid titles', () => {
  test('a figure covers as much as its form says; towards the viewer it is nearer by its depth', async () => {
    const box = { of: 'rectangle', width: 200, height: 100, eye: 1000 };
    expect(covered(await shown({ ...box, deep: 200 }))).toBeCloseTo(200 * 100, 0);
    const nearer = 1000 / (1000 - 200);
    expect(covered(await shown({ ...box, deep: 200, grows: 'towards' }))).toBeCloseTo(200 * 100 * nearer ** 2, 0);
  });

  test('letters have their holes, and stand where flat ones stand', async () => {
    const solid = await shown({ text: 'HOH', deep: 0.01 });
    const layer = layerOf('a', newSource('title', { size: [W, H], text: 'HOH', height: 80, tracking: 0.04 }));
    const project = projectOf([layer], { width: W, height: H, background: null });
    const picture = await executor.frame(planFrame(project, SHOT, 0), 'none');
    const flat = { w: W, floats: floatsOf(rig, picture) };
    expect(covered(solid) / covered(flat)).toBeCloseTo(1, 2);
    expect(alphaAt(solid, W / 2, H / 2)).toBe(0);
    expect(alphaAt(flat, W / 2, H / 2)).toBe(0);
    let apart = 0;
    for (let i = 3; i < flat.floats.length; i += 4)
      apart = Math.max(apart, Math.abs(flat.floats[i]! - solid.floats[i]!));
    expect(apart).toBeLessThan(0.2); // a coverage of sixteen samples
    picture.release();
  });

  test('letters come one by one: with nothing done none are there, halfway the first half', async () => {
    const arriving = { text: 'IIIIIIII', overlap: 0, startSwing: 0 };
    const whole = covered(await shown(arriving));
    expect(covered(await shown({ ...arriving, done: 0 }))).toBeLessThan(whole / 7);
    const half = await shown({ ...arriving, done: 0.5 });
    expect(covered(half) / whole).toBeCloseTo(0.5, 1);
    expect(alphaAt(half, W / 2 + 90, H / 2)).toBe(0);
  });

  test('at half size it is the full picture made smaller', async () => {
    const turned = { text: 'Paper', swing: 30, tip: -12, bevel: 3, deep: 60 };
    const [full, half] = [await shown(turned), await shown(turned, 2)];
    let sum = 0;
    for (let y = 0; y < H / 2; y++)
      for (let x = 0; x < W / 2; x++)
        for (let c = 0; c < 4; c++) {
          const at = (dx: number, dy: number) => full.floats[((2 * y + dy) * W + 2 * x + dx) * 4 + c]!;
          const mean = (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4;
          sum += Math.abs(mean - half.floats[(y * half.w + x) * 4 + c]!);
        }
    expect(sum / (W * H)).toBeLessThan(2 / 255);
  });

  test('without anything to draw it is clear: no text, a path without masks, no depth', async () => {
    expect(covered(await shown({ text: '' }))).toBe(0);
    expect(covered(await shown({ of: 'path' }))).toBe(0);
    expect(covered(await shown({ of: 'star', deep: 0 }))).toBeGreaterThan(0);
  });

  test('outlines with very many points get fewer, and stay where they are', () => {
    const round = Float64Array.from({ length: 4000 }, (_, i) => {
      const angle = (2 * Math.PI * (i >> 1)) / 2000;
      return 300 * (i % 2 ? Math.sin(angle) : Math.cos(angle)) + 0.4 * Math.sin(300 * angle);
    });
    const thin = thinEnough(Array.from({ length: 150 }, () => [round]));
    const points = thin.flat().reduce((sum, ring) => sum + ring.length / 2, 0);
    expect(points).toBeLessThanOrEqual(MOST_POINTS);
    for (const v of boundsOf(thin[0]!)) expect(Math.abs(Math.abs(v) - 300)).toBeLessThan(2);
    expect(thinEnough([[Float64Array.of(0, 0, 9, 0, 9, 9, 0, 9)]])[0]![0]).toHaveLength(8);
  });
});
