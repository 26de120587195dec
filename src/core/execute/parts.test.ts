// Only the part that is looked at is computed: it shows what the whole frame shows there, and costs less.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { newLayer, newSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import { newMask, type MaskId } from '../document/mask';
import type { Layer, LayerId, PassId, Project, Shot } from '../document/schema';
import { still } from '../base/value';
import type { Rect } from '../picture/rect';
import { planPart } from '../plan/parts';
import { planFrame } from '../plan/plan';
import { testRig, type TestRig } from '../testing/rig';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import { WasmExecutor } from './backends/wasm/executor';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const SIZE = { width: 640, height: 360 };
const WHOLE = { x: 0, y: 0, w: 640, h: 360 };
const SEEN: Rect[] = [
  { x: 301, y: 141, w: 77, h: 53 },
  { x: 0, y: 0, w: 130, h: 90 },
  { x: 533, y: 297, w: 107, h: 63 },
];

const pass = (type: string, values: Record<string, unknown> = {}, id = type) => {
  const made = newPass(id as PassId, type);
  for (const [name, value] of Object.entries(values)) made.values[name] = still(value);
  return made;
};
/** Circles of colour, so that every place looks different. */
const rings = (size: readonly [number, number] = [640, 360]) =>
  newSource('gradient', {
    form: 'round',
    colours: Array.from({ length: 16 }, (_, i) => [i / 15, [(i * 5) % 7, (i * 3) % 5, i % 3].map((v) => v / 7)]),
    from: [-90, -40],
    to: [190, 120],
    size,
  });
const place = (change: Partial<Layer['place']>) => ({ place: { ...layerOf('x', rings()).place, ...change } });
const ground = layerOf('ground', rings());
const card = (change: Partial<Layer>) => layerOf('card', rings([500, 300]), change);
const half = newMask('half' as MaskId, 'half', {
  kind: 'ellipse',
  centre: still([-30, 20]),
  size: still([300, 200]),
  rotation: still(20),
} as never);
const adjustment = (passes: Layer['passes'], change: Partial<Layer> = {}): Layer => ({
  ...newLayer('all' as LayerId, 'all', newSource('adjustment', { layers: [] }), { start: 0, length: 48 }),
  passes,
  ...change,
});

const CASES: Record<string, { layers: Layer[]; shot?: Partial<Shot> }> = {
  'a blur, turned and enlarged': {
    layers: [
      card({
        passes: [pass('blur', { radius: 9 }), pass('adjust', { exposure: 0.4 })],
        ...place({ rotation: still(17), scale: still([1.3, 1.3]) }),
      }),
      ground,
    ],
  },
  'drawn small, over others': {
    layers: [card({ passes: [pass('blur', { radius: 4 })], ...place({ scale: still([0.21, 0.21]) }) }), ground],
  },
  'tilted, with a shadow that follows': {
    layers: [
      card({
        passes: [pass('drop-shadow', { distance: 24, softness: 6 })],
        ...place({ tilt: still([12, -35]), scale: still([0.7, 0.7]) }),
      }),
      ground,
    ],
  },
  'an area, an outline and a light wrap': {
    layers: [
      card({
        masks: [half],
        passes: [
          { ...pass('blur', { radius: 12 }), area: { masks: ['half' as MaskId], side: 'inside' } },
          pass('mask'),
          pass('outline', { width: 8 }),
          pass('light-wrap', { reach: 20 }),
        ],
      }),
      ground,
    ],
  },
  'an adjustment that blurs, in linear light': {
    layers: [adjustment([pass('blur', { radius: 7 })], { opacity: still(0.6) }), card({}), ground],
    shot: { light: 'linear' },
  },
  'a matte from another layer, blended': {
    layers: [
      layerOf('giver', rings([300, 300]), { shown: false }),
      card({
        blend: 'screen',
        opacity: still(0.7),
        matte: { layer: 'giver' as LayerId, by: 'brightness', invert: true },
      }),
      adjustment([pass('adjust', { exposure: 1 })], {
        matte: { layer: 'giver' as LayerId, by: 'alpha', invert: false },
      }),
      ground,
    ],
  },
  'an echo of a layer that has gone on': {
    layers: [
      {
        ...card({ passes: [{ ...pass('echo', { copies: 1, spacing: 2, fade: 0.2 }), space: 'shot' }] }),
        ...place({
          scale: still([0.2, 0.2]),
          position: { keys: [0, 4].map((at) => ({ at, value: [at * 150 - 130, 0], ease: 'linear' })) } as never,
        }),
      },
      ground,
    ],
  },
  'a colour key before a blur': {
    layers: [
      card({ passes: [pass('colour-key', { screen: [[0.3, 0.7, 0.3]] }), pass('blur', { radius: 5 })] }),
      ground,
    ],
  },
};
const documentOf = ({ layers, shot }: (typeof CASES)[string]): Project => projectOf(layers, { ...SIZE, ...shot });

/** Floats of a frame, or of the part of it that is looked at. */
async function computed(project: Project, seen?: Rect): Promise<{ floats: Float32Array; rect: Rect; bytes: number }> {
  const executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no media here')));
  const plan = planFrame(project, SHOT, 3);
  const problems: { sentence: string }[] = [];
  const picture = await executor.frame(seen ? planPart(plan, seen) : plan, 'every', problems as never);
  const floats = rig.arena.floats(picture.at, picture.pixels * 4).slice();
  picture.release();
  expect(problems).toEqual([]);
  const { bytes } = executor.cache;
  executor.cache.clear();
  return { floats, rect: picture.rect, bytes };
}

describe.each(Object.entries(CASES))('%s', (_, item) => {
  test('each part shows what the whole shows there, with less memory', async () => {
    const project = documentOf(item);
    const whole = await computed(project);
    const kept = rig.arena.used;
    for (const seen of SEEN) {
      const part = await computed(project, seen);
      expect(part.rect).toEqual(seen);
      let worst = 0;
      for (let y = 0; y < seen.h; y++)
        for (let i = 0; i < seen.w * 4; i++) {
          const own = part.floats[y * seen.w * 4 + i]!;
          const there = whole.floats[((seen.y + y) * WHOLE.w + seen.x) * 4 + i]!;
          worst = Math.max(worst, Math.abs(own - there));
        }
      expect(worst).toBeLessThan(2e-4);
      expect(part.bytes).toBeLessThan(whole.bytes);
    }
    expect(rig.arena.used).toBe(kept);
  });
});

test('most of a frame is the whole frame, and so is one of which every pixel may count', () => {
  const plan = planFrame(documentOf(CASES['a blur, turned and enlarged']!), SHOT, 3);
  expect(planPart(plan, { x: 10, y: 10, w: 600, h: 340 })).toBe(plan);
  const keyed = planFrame(
    projectOf([adjustment([pass('colour-key', { screen: [[0, 1, 0]] })]), ground], SIZE),
    SHOT,
    3,
  );
  expect(planPart(keyed, SEEN[0]!)).toBe(keyed);
});

test('a layer that does not reach the part is left out; equal parts are known by equal keys', () => {
  const plan = planFrame(documentOf(CASES['drawn small, over others']!), SHOT, 3);
  const corner = planPart(plan, SEEN[1]!);
  expect(corner.layers.map((layer) => layer.name)).toEqual(['ground']);
  expect(planPart(plan, SEEN[0]!).layers.map((layer) => layer.name)).toEqual(['ground', 'card']);
  expect(planPart(plan, { ...SEEN[1]! }).key).toBe(corner.key);
  expect(planPart(plan, SEEN[0]!).key).not.toBe(corner.key);
});
