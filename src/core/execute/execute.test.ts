import { bytesOf } from '../picture/bytes';
import { stockSource } from '../document/edits/layers';
import { beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { withEdit, freshHistory } from '../document/history';
import { addPass, newPass, setPassValue } from '../document/edits/passes';
import { perform } from '../document/edit';
import { newMask, type MaskId } from '../document/mask';
import type { LayerId, PassId, Project, StockId } from '../document/schema';
import { still } from '../base/value';
import { JackplaneError } from '../base/errors';
import { planFrame } from '../plan/plan';
import type { FramePlan } from '../plan/types';
import { testRig } from '../testing/rig';
import { anyEdit, colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import type { Problem } from './execute';
import { WasmExecutor } from './backends/wasm/executor';
import type { Fetch } from './backend';

const [W, H] = [64, 36];
/** A clip whose picture depends on the place and the time. */
const fetch: Fetch = async (source) => {
  if (source.stock !== 'plate')
    throw new JackplaneError('missing-media', `The media of “${source.name}” is missing.`, '');
  const shift = Math.round(source.seconds * 24);
  const data = Uint8ClampedArray.from({ length: W * H * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : 128 + 90 * Math.sin(((i >> 2) % W) / 5 + shift / 3 + (i % 4)) * Math.cos((i >> 2) / W / 6),
  );
  return { data, width: W, height: H };
};
const executor = async () => {
  const rig = await testRig(64e6);
  return new WasmExecutor(rig.kernels, rig.arena, fetch);
};
const plate = stockSource('plate' as StockId);
let worker: WasmExecutor;
beforeEach(async () => {
  worker = await executor();
});
async function bytes(by: WasmExecutor, plan: FramePlan, problems: Problem[] = []): Promise<Uint8ClampedArray> {
  const picture = await by.frame(plan, 'every', problems);
  const out = bytesOf(by, picture);
  picture.release();
  return out;
}
const pixel = (data: Uint8ClampedArray, x: number, y: number, w = W) => [
  ...data.subarray((y * w + x) * 4, (y * w + x) * 4 + 4),
];
const withPasses = (...types: string[]): Project =>
  types.reduce(
    (project, type, i) =>
      perform(project, addPass({ shot: SHOT, layer: 'plate' as LayerId }, newPass(`p${i}` as PassId, type)))!.project,
    projectOf([layerOf('plate', plate)]),
  );

describe('the path of a picture', () => {
  test('a clip alone is the clip, byte for byte', async () => {
    const plan = planFrame(projectOf([layerOf('plate', plate)]), SHOT, 5);
    const { data } = await fetch(plan.layers[0]!.source as never);
    expect(await bytes(worker, plan)).toEqual(data);
  });

  test('layers mix bottom to top with opacity, as over does', async () => {
    const project = projectOf([
      layerOf('red', colourSource([1, 0, 0]), { opacity: still(0.25) }),
      layerOf('green', colourSource([0, 1, 0])),
    ]);
    expect(pixel(await bytes(worker, planFrame(project, SHOT, 0)), 30, 20)).toEqual([64, 191, 0, 255]);
  });

  test('a clear shot keeps straight alpha', async () => {
    const project = projectOf([layerOf('red', colourSource([1, 0, 0]), { opacity: still(0.5) })], { background: null });
    expect(pixel(await bytes(worker, planFrame(project, SHOT, 0)), 1, 1)).toEqual([255, 0, 0, 128]);
  });

  test('in linear light, half white over black is the grey that emits half the light', async () => {
    const project = projectOf([layerOf('white', colourSource([1, 1, 1]), { opacity: still(0.5) })], {
      light: 'linear',
    });
    expect(pixel(await bytes(worker, planFrame(project, SHOT, 0)), 1, 1)[0]).toBe(188);
  });

  test('hidden layers, layers out of their time, and those beside a solo one do not show', async () => {
    const red = layerOf('red', colourSource([1, 0, 0]));
    const blue = layerOf('blue', colourSource([0, 0, 1]));
    const seen = async (...layers: (typeof red)[]) =>
      pixel(await bytes(worker, planFrame(projectOf(layers), SHOT, 10)), 3, 3).slice(0, 3);
    expect(await seen({ ...red, shown: false }, blue)).toEqual([0, 0, 255]);
    expect(await seen({ ...red, span: { start: 11, length: 5 } }, blue)).toEqual([0, 0, 255]);
    expect(await seen({ ...red, span: { start: 2, length: 8 } }, blue)).toEqual([0, 0, 255]);
    expect(await seen({ ...red, span: { start: 2, length: 9 } }, blue)).toEqual([255, 0, 0]);
    expect(await seen(red, { ...blue, solo: true })).toEqual([0, 0, 255]);
  });

  test('missing media shows as stripes and is named; the other layers stay', async () => {
    const project = structuredClone(projectOf([layerOf('kite', plate), layerOf('blue', colourSource([0, 0, 1]))]));
    project.stock[0]!.id = 'gone' as StockId;
    project.shots[0]!.layers[0]!.source = stockSource('gone' as StockId);
    project.shots[0]!.layers[0]!.place.scale = still([0.5, 0.5]);
    const problems: Problem[] = [];
    const data = await bytes(worker, planFrame(project, SHOT, 0), problems);
    expect(problems).toEqual([{ layer: 'kite', sentence: 'The media of “plate” is missing.' }]);
    expect(pixel(data, 2, 2)).toEqual([0, 0, 255, 255]);
    const [r, g, b] = pixel(data, 32, 18);
    expect(r === g && g === b).toBe(true);
  });
});

describe('scale', () => {
  test.each([2, 4] as const)(
    'a plan reduced by %d is the full picture reduced, within 1.5/255 on average',
    async (reduction) => {
      let project = withPasses('adjust', 'blur', 'crop');
      const set = (id: string, name: string, value: unknown) =>
        (project = perform(
          project,
          setPassValue(project, { shot: SHOT, layer: 'plate' as LayerId }, id as PassId, name, value),
        )!.project);
      set('p0', 'exposure', 0.6);
      set('p0', 'temperature', 0.3);
      set('p1', 'radius', 4);
      set('p2', 'left', 12);
      set('p2', 'feather', 8);
      const full = await bytes(worker, planFrame(project, SHOT, 3));
      const small = await bytes(worker, planFrame(project, SHOT, 3, { reduction }));
      let sum = 0;
      const [w, h] = [W / reduction, H / reduction];
      for (let y = 0; y < h; y++) {
        for (let x = 0; x < w; x++) {
          for (let c = 0; c < 3; c++) {
            let mean = 0;
            for (let k = 0; k < reduction ** 2; k++)
              mean +=
                full[((y * reduction + Math.floor(k / reduction)) * W + x * reduction + (k % reduction)) * 4 + c]! /
                reduction ** 2;
            sum += Math.abs(mean - small[(y * w + x) * 4 + c]!);
          }
        }
      }
      expect(sum / (w * h * 3)).toBeLessThanOrEqual(1.5);
    },
  );
});

describe('the cache', () => {
  test('after any edits a cached frame equals one computed from nothing', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyEdit, { minLength: 1, maxLength: 12 }), fc.nat(47), async (makers, frame) => {
        const warm = await executor();
        let history = freshHistory(
          projectOf([layerOf('plate', plate), layerOf('deck', colourSource([0.1, 0.2, 0.4]))]),
        );
        for (const make of makers) {
          history = withEdit(history, make(history.project))?.history ?? history;
          await bytes(warm, planFrame(history.project, SHOT, frame));
        }
        const plan = planFrame(history.project, SHOT, frame);
        expect(await bytes(warm, plan)).toEqual(await bytes(await executor(), plan));
      }),
      { numRuns: 25 },
    );
  }, 30_000);

  test('turning a dial computes from that pass on, and fetches nothing again', async () => {
    let fetched = 0;
    const rig = await testRig(64e6);
    const counting = new WasmExecutor(rig.kernels, rig.arena, (source) => (fetched++, fetch(source)));
    const project = withPasses('blur', 'adjust');
    await bytes(counting, planFrame(project, SHOT, 0));
    const turned = perform(
      project,
      setPassValue(project, { shot: SHOT, layer: 'plate' as LayerId }, 'p1' as PassId, 'exposure', 1),
    )!.project;
    const [before, after] = [planFrame(project, SHOT, 0), planFrame(turned, SHOT, 0)];
    expect(after.layers[0]!.passes[0]!.key).toBe(before.layers[0]!.passes[0]!.key);
    expect(after.layers[0]!.key).not.toBe(before.layers[0]!.key);
    await bytes(counting, after);
    expect(fetched).toBe(1);
  });

  test('holds no more than its limit, and releases everything it held', async () => {
    const rig = await testRig(4e6);
    const small = new WasmExecutor(rig.kernels, rig.arena, fetch);
    const project = withPasses('adjust', 'blur', 'crop', 'blur');
    for (let frame = 0; frame < 48; frame++) {
      await bytes(small, planFrame(project, SHOT, frame));
      expect(small.cache.bytes).toBeLessThanOrEqual(small.cache.limit);
    }
    small.cache.clear();
    expect(rig.arena.used).toBe(0);
  });

  test('a failing layer leaves no memory behind, wherever it fails, however often', async () => {
    const rig = await testRig(16e6);
    // fetches fail at times, and so does any kernel that passes use
    let count = 0;
    const brittle = new Proxy(rig.kernels, {
      get: (kernels, name: keyof typeof rig.kernels) =>
        [
          'blurRows',
          'blurNear',
          'blurColumns',
          'adjustSpan',
          'lerpByPlane',
          'affine',
          'blendSpan',
          'coveragePlane',
          'widen',
          'lightWrap',
        ].includes(name)
          ? (...values: never[]) => {
              if (++count % 7 === 0) throw new JackplaneError('memory', 'There is no memory.', '');
              return (kernels[name] as (...given: never[]) => void)(...values);
            }
          : kernels[name],
    });
    const failing = new WasmExecutor(brittle, rig.arena, (source) =>
      ++count % 11 === 0 ? Promise.reject(new JackplaneError('missing-media', 'gone', '')) : fetch(source),
    );
    const mask = newMask('m' as MaskId, 'm', {
      kind: 'ellipse',
      centre: still([0, 0]),
      size: still([30, 20]),
      rotation: still(0),
    });
    const limited = { ...withPasses('adjust', 'blur', 'light-wrap').shots[0]!.layers[0]!, masks: [mask] };
    const passes = limited.passes.map((pass) => ({ ...pass, area: { masks: [mask.id], side: 'inside' as const } }));
    const project = projectOf([
      {
        ...limited,
        passes,
        place: { ...limited.place, rotation: still(10) },
        matte: { layer: 'deck' as LayerId, by: 'alpha', invert: false },
      },
      layerOf('deck', colourSource([0.1, 0.2, 0.4]), { opacity: still(0.5) }),
    ]);
    let failed = 0;
    for (let frame = 0; frame < 300; frame++) {
      const problems: Problem[] = [];
      const picture = await failing
        .frame(planFrame(project, SHOT, frame % 48), frame % 2 ? 'every' : 'last', problems)
        .catch(() => null);
      if (problems.length || !picture) failed++;
      picture?.release();
    }
    expect(failed).toBeGreaterThan(100);
    failing.cache.clear();
    expect(rig.arena.used).toBe(0);
  });
});

describe('plans', () => {
  test('the same document, frame and scale give the same plan; other frames of a clip give other keys', () => {
    const project = withPasses('colour-key', 'adjust');
    expect(planFrame(structuredClone(project), SHOT, 7, { reduction: 2 })).toEqual(
      planFrame(project, SHOT, 7, { reduction: 2 }),
    );
    const keys = new Set(Array.from({ length: 48 }, (_, frame) => planFrame(project, SHOT, frame).key));
    expect(keys.size).toBe(48);
  });

  test('source time follows start, trim and speed, and never falls a frame short', () => {
    const layer = layerOf('plate', plate, {
      span: { start: 10, length: 20 },
      time: { offset: 6, speed: still(0.5), between: 'nearest', keepPitch: true },
    });
    const { source } = planFrame(projectOf([layer]), SHOT, 18).layers[0]!;
    // 6 frames in, and 8 shot frames at half speed
    expect((source as { seconds: number }).seconds).toBeCloseTo(10 / 24, 2);
    expect((source as { seconds: number }).seconds).toBeGreaterThan(10 / 24);
  });

  test('a pass that is off, or left out for comparison, is not in the plan', () => {
    const project = withPasses('blur', 'adjust');
    expect(planFrame(project, SHOT, 0, { without: 'p0' as PassId }).layers[0]!.passes.map((pass) => pass.id)).toEqual([
      'p1',
    ]);
  });

  test('pixel values follow the scale, others stay', () => {
    const [full, half] = [1, 2].map(
      (reduction) =>
        planFrame(withPasses('blur', 'adjust'), SHOT, 0, { reduction: reduction as 1 | 2 }).layers[0]!.passes,
    );
    expect(half![0]!.values['radius']).toBe((full![0]!.values['radius'] as number) / 2);
    expect(half![1]!.values).toEqual(full![1]!.values);
  });
});
