// What a ½ preview shows of a keyed edge, beside the full picture made smaller.
import { bytesOf } from '../picture/bytes';
import { describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { perform } from '../document/edit';
import { stockSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import { addStock } from '../document/edits/project';
import type { PassId, StockId } from '../document/schema';
import { couldBeFiner } from '../plan/finer';
import { planFrame } from '../plan/plan';
import type { PlanOptions } from '../plan/planned';
import { testRig } from '../testing/rig';
import { clipStock, layerOf, projectOf, SHOT } from '../testing/documents';
import { onePick, pickedKey } from '../testing/key-truth';
import { sceneOf } from '../testing/plates/scene';
import { WasmExecutor } from './backends/wasm/executor';

const SIZE = { w: 640, h: 360 };
const NIGHT = [0.1, 0.15, 0.3] as [number, number, number];

/** A keyed scene over night blue, drawn in different ways. @returns mean difference in the edge band from the full one, of 255 */
async function edgeError(seed: number): Promise<(options: PlanOptions) => Promise<number>> {
  const rig = await testRig();
  const { pixels, truth } = sceneOf(seed, { count: 1, size: SIZE }).frames[0]!;
  const plate = { width: SIZE.w, height: SIZE.h, frame: Buffer.from(pixels), foreground: Buffer.from(truth) };
  const key = newPass('key' as PassId, 'colour-key', null, pickedKey(rig, plate, [onePick(plate, 8, 8, 16)]));
  const layer = { ...layerOf('cut', stockSource('scene' as StockId)), passes: [key] };
  const base = projectOf([layer], { width: SIZE.w, height: SIZE.h, background: NIGHT });
  const { project } = perform(base, addStock(clipStock('scene', SIZE.w, SIZE.h)))!;
  const executor = new WasmExecutor(rig.kernels, rig.arena, () =>
    Promise.resolve({ data: pixels, width: SIZE.w, height: SIZE.h }),
  );
  const drawn = async (options: PlanOptions): Promise<Uint8ClampedArray> => {
    const picture = await executor.frame(planFrame(project, SHOT, 0, options), 'last');
    const bytes = bytesOf(executor, picture);
    picture.release();
    return bytes;
  };
  const full = await drawn({});
  const [w, h] = [SIZE.w / 2, SIZE.h / 2];
  return async (options) => {
    const half = await drawn(options);
    let [sum, count] = [0, 0];
    for (let i = 0; i < w * h; i++) {
      const first = 2 * Math.floor(i / w) * SIZE.w + 2 * (i % w);
      const block = [first, first + 1, first + SIZE.w, first + SIZE.w + 1].map((at) => at * 4);
      const mean = (of: ArrayLike<number>, c: number) => block.reduce((total, at) => total + of[at + c]!, 0) / 4;
      const alpha = mean(truth, 3) / 255;
      if (alpha < 0.02 || alpha > 0.98) continue;
      for (let c = 0; c < 3; c++) sum += Math.abs(half[4 * i + c]! - mean(full, c));
      count += 3;
    }
    expect(count).toBeGreaterThan(1000);
    return sum / count;
  };
}

describe('a ½ preview of a keyed layer', () => {
  test.each([5, 9, 44])('with keys at full size is the full picture made smaller (seed %i)', async (seed) => {
    const error = await edgeError(seed);
    expect(await error({ reduction: 2, finer: true })).toBeLessThan(1);
  });

  test('thin hair is what a key on the smaller picture gets wrong', async () => {
    const error = await edgeError(9);
    expect(await error({ reduction: 2 })).toBeGreaterThan(4);
  });

  test('what needs no pixels of its own is planned as it always is', () => {
    const layer = layerOf('cut', stockSource('plate' as StockId), { opacity: still(0.5) });
    const project = projectOf([{ ...layer, passes: [newPass('soft' as PassId, 'blur', null, { radius: 4 })] }]);
    const [plain, finer] = [false, true].map((on) => planFrame(project, SHOT, 0, { reduction: 2, finer: on }));
    expect(finer!.key).toBe(plain!.key);
    expect(couldBeFiner(plain!)).toBe(false);
    const keyed = projectOf([{ ...layer, passes: [newPass('key' as PassId, 'colour-key')] }]);
    expect(couldBeFiner(planFrame(keyed, SHOT, 0, { reduction: 2 }))).toBe(true);
  });
});
