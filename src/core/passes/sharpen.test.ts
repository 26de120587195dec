import { beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import type { PlainValues } from '../params/registry';
import type { Rect } from '../picture/rect';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const SIDE = 64;
const WHOLE: Rect = { x: 0, y: 0, w: SIDE, h: SIDE };
type Rgba = readonly [number, number, number, number];

function sharpened(of: (x: number, y: number) => Rgba, values: PlainValues): Float32Array {
  const given = Array.from({ length: SIDE * SIDE }, (_, i) => {
    const [r, g, b, a] = of(i % SIDE, Math.floor(i / SIDE));
    return [r * a, g * a, b * a, a];
  }).flat();
  const out = runPass(rig, 'sharpen', values, pictureOf(rig, WHOLE, given));
  const floats = Float32Array.from(floatsOf(rig, out));
  out.release();
  return floats;
}
const at = (floats: Float32Array, x: number, y: number, c = 0): number => floats[(y * SIDE + x) * 4 + c]!;
const step = (x: number): Rgba => (x < SIDE / 2 ? [0.3, 0.3, 0.3, 1] : [0.6, 0.6, 0.6, 1]);

describe('sharpen', () => {
  test('is a grey picture less its own blur, as another program blurs it', async () => {
    const wave = (x: number, y: number): number => 0.5 + 0.2 * Math.sin(x / 2) * Math.cos(y / 3);
    const bytes = Uint8Array.from({ length: SIDE * SIDE }, (_, i) =>
      Math.round(wave(i % SIDE, Math.floor(i / SIDE)) * 255),
    );
    const soft = await sharp(bytes, { raw: { width: SIDE, height: SIDE, channels: 1 } })
      .blur({ sigma: 2, precision: 'float', minAmplitude: 0.001 })
      .toColourspace('b-w')
      .raw()
      .toBuffer();
    const grey = (x: number, y: number): Rgba => {
      const v = bytes[y * SIDE + x]! / 255;
      return [v, v, v, 1];
    };
    const got = sharpened(grey, { strength: 1, size: 2, quiet: 0, most: 1 });
    for (let y = 8; y < SIDE - 8; y++)
      for (let x = 8; x < SIDE - 8; x++) {
        const i = y * SIDE + x;
        expect(Math.abs(at(got, x, y) - (2 * bytes[i]! - soft[i]!) / 255)).toBeLessThan(2 / 255);
      }
  });
  test('adds no more than its limit, and leaves what differs less than noise', () => {
    const limited = sharpened(step, { strength: 5, size: 3, quiet: 0, most: 0.05 });
    const values = Array.from({ length: SIDE }, (_, x) => at(limited, x, 20));
    expect(Math.min(...values)).toBeCloseTo(0.25, 5);
    expect(Math.max(...values)).toBeCloseTo(0.65, 5);
    const left = sharpened(step, { strength: 5, size: 3, quiet: 0.2, most: 1 });
    for (let x = 0; x < SIDE; x++) expect(at(left, x, 20)).toBeCloseTo(step(x)[0], 5);
  });
  test('keeps the colour of what it sharpens, and the layer’s own edge', () => {
    const red = sharpened((x) => (x < SIDE / 2 ? [0.4, 0.2, 0.1, 1] : [0.6, 0.4, 0.3, 1]), { most: 1, quiet: 0 });
    for (let x = 0; x < SIDE; x++) expect(at(red, x, 9, 0) - at(red, x, 9, 1)).toBeCloseTo(0.2, 5);
    const edge = sharpened((x) => [0.5, 0.5, 0.5, Math.min(1, Math.max(0, (x - 20) / 12))], {
      strength: 3,
      most: 1,
      quiet: 0,
    });
    for (let x = 0; x < SIDE; x++) {
      const alpha = Math.min(1, Math.max(0, (x - 20) / 12));
      expect(at(edge, x, 30, 3)).toBeCloseTo(alpha, 6);
      expect(at(edge, x, 30)).toBeCloseTo(0.5 * alpha, 4);
    }
  });
});
