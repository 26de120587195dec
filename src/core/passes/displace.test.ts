import { beforeAll, describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { newSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import type { Layer, PassId } from '../document/schema';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { planFrame } from '../plan/plan';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { layerOf, projectOf, SHOT } from '../testing/documents';

let rig: TestRig;
let executor: WasmExecutor;
beforeAll(async () => {
  rig = await testRig(256e6);
  executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no footage here')));
});
const [W, H] = [96, 64];
type Colour = readonly [number, number, number];
/** Red grows to the right, green downwards: a colour tells where it was taken from. */
const where = newSource('gradient', {
  size: [W, H],
  from: [-W / 2, 0],
  to: [W / 2, 0],
  colours: [
    [0, [0, 0, 0]],
    [1, [1, 1, 1]],
  ],
});
const mapOf = (colour: Colour, size = [W, H]): Layer =>
  layerOf('map', newSource('colour', { size, colour }), { shown: false });
async function bent(values: object, others: Layer[], space: 'shot' | 'layer' = 'shot', source = where) {
  const pass = { ...newPass('p' as PassId, 'displace', null, { map: ['map'], across: 0, down: 0, ...values }), space };
  const project = projectOf([layerOf('own', source, { passes: [pass] }), ...others], {
    width: W,
    height: H,
    background: null,
  });
  const picture = await executor.frame(planFrame(project, SHOT, 0), 'none');
  const floats = floatsOf(rig, picture).slice();
  picture.release();
  executor.cache.clear();
  /** how far to the right a pixel was taken from */
  return (x: number, y = H / 2) => floats[(y * W + x) * 4]! * W - (x + 0.5);
}

describe('displacing by a layer', () => {
  test('middle grey leaves it, white and black push it by half of the amount to either side', async () => {
    expect((await bent({ across: 20 }, [mapOf([0.5, 0.5, 0.5])]))(40)).toBeCloseTo(0, 0);
    expect((await bent({ across: 20 }, [mapOf([1, 1, 1])]))(40)).toBeCloseTo(10, 0);
    expect((await bent({ across: 20 }, [mapOf([0, 0, 0])]))(40)).toBeCloseTo(-10, 0);
  });

  test('by the channel that is chosen', async () => {
    const red = mapOf([1, 0.5, 0]);
    expect((await bent({ across: 20, acrossBy: 'red' }, [red]))(40)).toBeCloseTo(10, 0);
    expect((await bent({ across: 20, acrossBy: 'green' }, [red]))(40)).toBeCloseTo(0, 0);
    expect((await bent({ across: 20, acrossBy: 'blue' }, [red]))(40)).toBeCloseTo(-10, 0);
  });

  test('as the layer lies in the shot; where it is clear nothing is bent', async () => {
    const map = mapOf([1, 1, 1], [W / 2, H]);
    const moved = { ...map, place: { ...map.place, position: still([W / 4, 0] as [number, number]) } } as Layer;
    const off = await bent({ across: 20 }, [moved]);
    expect(off(20)).toBeCloseTo(0, 0);
    expect(off(70)).toBeCloseTo(10, 0);
  });

  test('before Place the map is stretched over the picture, however large that is', async () => {
    const map = mapOf([1, 1, 1], [W / 2, H]);
    const left = { ...map, place: { ...map.place, position: still([-W / 4, 0] as [number, number]) } } as Layer;
    const small = { ...where, values: { ...where.values, size: still([W / 2, H / 2]) } };
    const off = await bent({ across: 20 }, [left], 'layer', small as never);
    expect(off(W / 2 - 12)).toBeCloseTo(10, 0);
    expect(off(W / 2 + 12)).toBeCloseTo(0, 0);
  });

  test('a layer that is gone bends nothing; without one the picture bends itself', async () => {
    expect((await bent({ across: 20 }, []))(70)).toBeCloseTo(0, 0);
    expect((await bent({ across: 20, map: [] }, []))(72)).toBeGreaterThan(3);
  });
});
