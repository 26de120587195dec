// Neighbours that work on each channel by itself are done as one when nobody asks for the pictures between them.
import { beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { PassPlan } from '../plan/types';
import { floatsOf, pictureOf, planned, testRig, type TestRig } from '../testing/rig';
import type { Picture } from '../picture/picture';
import { PictureCache } from './cache';
import type { Keep } from './backend';
import { layerSpace, runPasses } from './backends/wasm/passes';
import { PlateStore } from './backends/wasm/plates';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const [W, H] = [61, 7];
const RECT = { x: 0, y: 0, w: W, h: H };
const pixels = Array.from({ length: W * H }, (_, i) => {
  const alpha = i % 9 === 0 ? 0.4 : 1;
  return [((i * 37) % 101) / 100, ((i * 53) % 97) / 96, i / (W * H), 1].map((v, c) => (c < 3 ? v * alpha : alpha));
}).flat();

const planOf = (type: string, own: PassPlan['values'], i: number): PassPlan => ({
  id: `p${i}` as never,
  type,
  values: planned(type, own),
  area: null,
  key: `p${i}`,
});
function through(passes: readonly PassPlan[], keep: Keep): Float32Array {
  const tools = {
    ...rig,
    cache: new PictureCache<Picture>(32e6),
    plates: new PlateStore(rig, () => Promise.reject(new Error('none'))),
  };
  const out = runPasses(tools, layerSpace(tools, { w: W, h: H }), passes, pictureOf(rig, RECT, pixels), keep);
  const floats = Float32Array.from(floatsOf(rig, out));
  out.release();
  tools.cache.clear();
  return floats;
}

const share = fc.double({ min: -0.4, max: 0.4, noNaN: true });
const step = fc.oneof(
  share.map((v) => ['tone', { exposure: v, contrast: v / 2 }] as const),
  fc.tuple(share, share).map(([a, b]) => ['wheels', { gain: [a, b, a / 2], saturation: 1 + b }] as const),
  share.map((v) => ['cdl', { slopeR: 1 + v, offsetB: v / 4, saturation: 1 }] as const),
  share.map((v) => ['adjust', { exposure: v, temperature: v }] as const),
  share.map((v) => ['colour', { saturation: 1 + v }] as const),
);

test('a chain of grades is the same computed at once and one by one, within a 255th', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 2, maxLength: 7 }), (steps) => {
      const passes = steps.map(([type, values], i) => planOf(type, values, i));
      const [once, each] = [through(passes, 'none'), through(passes, 'every')];
      expect(Math.max(...once.map((v, i) => Math.abs(Math.min(1, v) - Math.min(1, each[i]!))))).toBeLessThan(1 / 255);
    }),
    { numRuns: 60 },
  );
});
