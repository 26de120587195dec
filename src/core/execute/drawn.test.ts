// Made layers are held no larger than what is drawn of them; what spreads beyond that must not be cut off.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { newSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import type { Layer, Pass, PassId, Project } from '../document/schema';
import { planFrame } from '../plan/plan';
import { testRig, wholeFloats, type TestRig } from '../testing/rig';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import { WasmExecutor } from './backends/wasm/executor';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const SIZE = { w: 192, h: 128 };
const SIGMA = 12;
const blur: Pass = newPass('soft' as PassId, 'blur', null, { radius: SIGMA });
const trimmed: Pass = newPass('t' as PassId, 'crop', null, { left: 5 });
/** A white box from 80 to 112 and from 48 to 80: it and what is held around it end where what is held does. */
const box = (passes: Pass[]): Layer =>
  layerOf(
    'box',
    newSource('shape', {
      size: [SIZE.w, SIZE.h],
      form: 'rectangle',
      ...{ width: 32, height: 32, radius: 0, line: 0, colour: [1, 1, 1] },
    }),
    { passes },
  );
const shot = (layers: Layer[]): Project => projectOf(layers, { width: SIZE.w, height: SIZE.h, background: null });
const executorOf = () => new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no footage')));
async function alphaOf(project: Project, executor = executorOf()): Promise<(x: number, y: number) => number> {
  const picture = await executor.frame(planFrame(project, SHOT, 0));
  const floats = wholeFloats(rig, picture, SIZE);
  picture.release();
  return (x, y) => floats[(y * SIZE.w + x) * 4 + 3]!;
}
/** Share of a normal distribution between two places, by small steps. */
function share(from: number, to: number): number {
  let sum = 0;
  for (let i = 0; i < 4000; i++) sum += Math.exp(-((from + ((to - from) * (i + 0.5)) / 4000) ** 2) / (2 * SIGMA ** 2));
  return (sum * (to - from)) / 4000 / (SIGMA * Math.sqrt(2 * Math.PI));
}
const blurred = (x: number, y: number): number =>
  share(80 - x - 0.5, 112 - x - 0.5) * share(48 - y - 0.5, 80 - y - 0.5);
const PLACES = [112, 124, 132, 136];
const isBlurred = (alpha: (x: number, y: number) => number): void =>
  PLACES.forEach((x) => expect(Math.abs(alpha(x, 64) - blurred(x, 64))).toBeLessThan(0.01));

describe('a blurred shape', () => {
  test.each<[string, Layer[]]>([
    ['before Place', [box([blur])]],
    ['after Place', [box([{ ...blur, space: 'shot' }])]],
    ['after a pass on each pixel by itself', [box([trimmed, blur])]],
    [
      'by an adjustment layer that names it',
      [layerOf('soft', newSource('adjustment', { layers: ['box'] }), { passes: [blur] }), box([])],
    ],
  ])('spreads as far as the blur does: %s', async (_, layers) => {
    isBlurred(await alphaOf(shot(layers)));
    expect(blurred(136, 64)).toBeGreaterThan(0.012);
  });

  test('also when what came before the blur was held already', async () => {
    const executor = executorOf();
    await alphaOf(shot([box([trimmed])]), executor);
    isBlurred(await alphaOf(shot([box([trimmed, blur])]), executor));
    isBlurred(
      await alphaOf(
        shot([
          box([
            { ...trimmed, on: false },
            { ...blur, space: 'shot' },
          ]),
        ]),
        executor,
      ),
    );
  });

  test('and is cut off where a crop before it cuts', async () => {
    const crop = newPass('c' as PassId, 'crop', null, { right: 67 });
    const alpha = await alphaOf(shot([box([crop, blur])]));
    expect(alpha(124, 60)).toBeGreaterThan(0.1);
    expect(alpha(126, 60)).toBe(0);
  });
});
