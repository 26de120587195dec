import { stockSource } from '../document/edits/layers';
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, invert, multiply, rotation, scaling, translation } from '../picture/matrix';
import { planFrame } from '../plan/plan';
import { addPass, newPass } from '../document/edits/passes';
import { perform } from '../document/edit';
import type { LayerId, PassId, StockId } from '../document/schema';
import { testRig, type TestRig } from '../testing/rig';
import { SHOT, colourSource, layerOf, projectOf } from '../testing/documents';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { coverScale } from './shake';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});

test('the enlargement that covers is enough for every move, turn and size within the amounts', () => {
  const share = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      share,
      share,
      share,
      share,
      fc.double({ min: 0, max: 60, noNaN: true }),
      fc.double({ min: 0, max: 45, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      (x, y, turn, size, position, degrees, scale) => {
        const [w, h] = [320, 180];
        const enough = coverScale(w, h, position, degrees, scale) * (1 + size * scale);
        const map = multiply(
          translation(w / 2 + x * position, h / 2 + y * position),
          multiply(rotation(turn * degrees), multiply(scaling(enough, enough), translation(-w / 2, -h / 2))),
        );
        const back = invert(map)!;
        for (const [cx, cy] of [
          [0, 0],
          [w, 0],
          [w, h],
          [0, h],
        ] as const) {
          const [u, v] = apply(back, cx, cy);
          expect(u >= 0 && u <= w && v >= 0 && v <= h).toBe(true);
        }
      },
    ),
  );
});

describe('shaken frames', () => {
  const project = perform(
    projectOf([layerOf('deck', colourSource([0.8, 0.4, 0.2]))]),
    addPass({ shot: SHOT, layer: 'deck' as LayerId }, newPass('shake' as PassId, 'shake')),
  )!.project;

  test('the same seed plans the same frames, another seed others; every frame differs', () => {
    const keys = (seed: number) => {
      const changed = structuredClone(project);
      changed.shots[0]!.layers[0]!.passes[0]!.values['seed'] = { still: seed };
      return Array.from({ length: 12 }, (_, frame) => planFrame(changed, SHOT, frame).key);
    };
    expect(keys(4)).toEqual(keys(4));
    expect(new Set([...keys(4), ...keys(5)]).size).toBe(24);
  });

  test('a square goes elsewhere in every frame, no farther than the amount, and nothing else of it changes', async () => {
    const [amount, side] = [9, 12];
    const square = Array.from({ length: 64 * 36 }, (_, i) =>
      Math.abs((i % 64) + 0.5 - 32) < side / 2 && Math.abs(Math.floor(i / 64) + 0.5 - 18) < side / 2
        ? [255, 255, 255, 255]
        : [0, 0, 0, 0],
    ).flat();
    const values = { position: amount, rotation: 0, scale: 0, edges: 'open' };
    const shaken = newPass('shake' as PassId, 'shake');
    for (const [name, value] of Object.entries(values)) shaken.values[name] = { still: value };
    const plate = layerOf('deck', stockSource('plate' as StockId), { passes: [shaken] });
    const executor = new WasmExecutor(rig.kernels, rig.arena, () =>
      Promise.resolve({ data: Uint8Array.from(square), width: 64, height: 36 }),
    );
    const places = new Set<string>();
    for (let frame = 0; frame < 8; frame++) {
      const picture = await executor.frame(planFrame(projectOf([plate]), SHOT, frame), 'last');
      const floats = rig.arena.floats(picture.at, picture.pixels * 4);
      let [sum, x, y] = [0, 0, 0];
      for (let i = 0; i < picture.pixels; i++) {
        const light = floats[i * 4]!;
        sum += light;
        x += light * ((i % 64) + 0.5 - 32);
        y += light * (Math.floor(i / 64) + 0.5 - 18);
      }
      picture.release();
      expect(Math.abs(sum / side / side - 1)).toBeLessThan(0.01);
      expect(Math.max(Math.abs(x), Math.abs(y)) / sum).toBeLessThanOrEqual(amount + 0.01);
      places.add(`${(x / sum).toFixed(1)} ${(y / sum).toFixed(1)}`);
    }
    expect(places.size).toBe(8);
  });

  test('no edge is uncovered: a plain colour stays plain in every frame', async () => {
    const executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no stock')));
    for (const frame of [0, 5, 11, 30]) {
      const picture = await executor.frame(planFrame(project, SHOT, frame), 'last');
      const pixels = rig.arena.floats(picture.at, picture.pixels * 4);
      for (let i = 0; i < pixels.length; i += 4)
        expect([pixels[i]!, pixels[i + 3]!].map((v) => Math.round(v * 1000) / 1000)).toEqual([0.8, 1]);
      picture.release();
    }
  });
});
