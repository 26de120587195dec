import { beforeAll, describe, expect, test } from '@jest/globals';
import { perform } from '../document/edit';
import { setMatte } from '../document/edits/layers';
import {
  addMask,
  insertVertex,
  refreshMasks,
  removeMask,
  removeVertices,
  setArea,
  setPath,
  usesMasks,
} from '../document/edits/masks';
import { matteLoop } from '../document/circles';
import { newPass } from '../document/edits/passes';
import { newMask, newShape, pathShape, type Mask, type MaskId, type Shape } from '../document/mask';
import { wholePlace } from '../place/place';
import { projectSchema, type Layer, type LayerId, type Pass, type PassId, type Project } from '../document/schema';
import { still } from '../base/value';
import { valueIn } from '../document/edits/values';
import { keysOf } from '../base/value';
import { flattened, type Vertex } from '../masks/path';
import { fillRings } from '../masks/raster';
import { planFrame } from '../plan/plan';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import { WasmExecutor } from './backends/wasm/executor';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const executor = () => new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no stock here')));
/** Straight colour and alpha of shot pixels. */
async function rendered(project: Project, frame = 0) {
  const picture = await executor().frame(planFrame(project, SHOT, frame));
  const floats = floatsOf(rig, picture);
  picture.release();
  return (x: number, y: number) =>
    [...floats.subarray((y * 64 + x) * 4, (y * 64 + x) * 4 + 4)].map((v) => Math.round(v * 1000) / 1000);
}
const id = (name: string) => name as MaskId;
const left = (name = 'left'): Mask =>
  newMask(id(name), name, {
    kind: 'rectangle',
    centre: still([-16, 0] as [number, number]),
    size: still([32, 36] as [number, number]),
    rotation: still(0),
    radius: still(0),
  });
const pass = (type: string, values: Pass['values'] = {}, area?: { masks: MaskId[]; side: 'inside' | 'outside' }) => {
  const made = newPass('pass-1' as PassId, type);
  return { ...made, values: { ...made.values, ...values }, ...(area ? { area } : {}) };
};
const red = (change: Partial<Layer>) => layerOf('card', colourSource([0.8, 0.2, 0.2]), change);
const at = { shot: SHOT, layer: 'card' as LayerId };

describe('masks on a layer', () => {
  test('a mask pass keeps what the masks cover', async () => {
    const seen = await rendered(projectOf([red({ masks: [left()], passes: [pass('mask')] })], { background: null }));
    expect(seen(10, 18)).toEqual([0.8, 0.2, 0.2, 1]);
    expect(seen(50, 18)).toEqual([0, 0, 0, 0]);
    const other = await rendered(
      projectOf([red({ masks: [left()], passes: [pass('mask', { side: still('outside') })] })], { background: null }),
    );
    expect([other(10, 18)[3], other(50, 18)[3]]).toEqual([0, 1]);
  });

  test.each(['adjust', 'blur'])('the area of %s leaves the rest as it is', async (type) => {
    const values: Pass['values'] =
      type === 'adjust' ? { exposure: still(-10) } : { radius: still(40), edges: still('fade') };
    const seen = await rendered(
      projectOf([red({ masks: [left()], passes: [pass(type, values, { masks: [id('left')], side: 'inside' })] })]),
    );
    expect(seen(50, 18)).toEqual([0.8, 0.2, 0.2, 1]);
    expect(seen(10, 18)[0]).toBeLessThan(0.5);
    const outside = await rendered(
      projectOf([red({ masks: [left()], passes: [pass(type, values, { masks: [id('left')], side: 'outside' })] })]),
    );
    expect(outside(10, 18)).toEqual([0.8, 0.2, 0.2, 1]);
    expect(outside(50, 18)[0]).toBeLessThan(0.5);
  });

  test('a mask’s keyframes are followed, at the layer’s own time', async () => {
    const moving = left();
    moving.shape = {
      ...moving.shape,
      centre: {
        keys: [
          { at: 0, value: [-16, 0], ease: 'linear' },
          { at: 10, value: [16, 0], ease: 'linear' },
        ],
      },
    } as Shape;
    const project = projectOf([red({ span: { start: 5, length: 40 }, masks: [moving], passes: [pass('mask')] })], {
      background: null,
    });
    expect((await rendered(project, 5))(50, 18)[3]).toBe(0);
    expect((await rendered(project, 15))(50, 18)[3]).toBe(1);
    const half = await rendered(project, 10);
    expect([half(10, 18)[3], half(20, 18)[3], half(44, 18)[3], half(52, 18)[3]]).toEqual([0, 1, 1, 0]);
  });

  test('deleting a mask takes it out of the passes, and copies of a layer have masks of their own', () => {
    const area = { masks: [id('left')], side: 'inside' as const };
    const project = projectOf([
      red({
        masks: [left(), left('right')],
        passes: [
          pass('mask', { masks: still([id('left'), id('right')]) }),
          { ...pass('blur', {}, area), id: 'pass-2' as PassId },
        ],
      }),
    ]);
    const after = perform(project, removeMask(project, at, id('left')))!.project.shots[0]!.layers[0]!;
    expect(after.passes[0]!.values['masks']).toEqual({ still: ['right'] });
    expect(after.passes[1]!.area).toBeUndefined();
    const copy = structuredClone(project.shots[0]!.layers[0]!);
    let made = 0;
    refreshMasks(copy, () => `new-${made++}`);
    expect(copy.masks.map((mask) => mask.id)).toEqual(['new-0', 'new-1']);
    expect([copy.passes[0]!.values['masks'], copy.passes[1]!.area]).toEqual([
      { still: ['new-0', 'new-1'] },
      { ...area, masks: ['new-0'] },
    ]);
  });

  test('what a pass works with masks by: its area, the masks it names, or all of them; not a choice that is called alike', () => {
    expect(usesMasks(pass('blur'))).toBe(false);
    expect(usesMasks(pass('blur', {}, { masks: [id('left')], side: 'inside' }))).toBe(true);
    expect(usesMasks(pass('mask'))).toBe(true);
    expect(usesMasks(pass('colour-key'))).toBe(false);
    expect(usesMasks(pass('colour-key', { drop: still([id('left')]) }))).toBe(true);
    expect(usesMasks(pass('brightness-key', { keep: still('dark') }))).toBe(false);
    // of one mask: a Mask pass without names takes it, an area or a key only when it is named
    expect(usesMasks(pass('mask'), id('right'))).toBe(true);
    expect(usesMasks(pass('mask', { masks: still([id('left')]) }), id('right'))).toBe(false);
    expect(usesMasks(pass('blur', {}, { masks: [id('left')], side: 'inside' }), id('left'))).toBe(true);
    expect(usesMasks(pass('blur', {}, { masks: [id('left')], side: 'inside' }), id('right'))).toBe(false);
    expect(usesMasks(pass('colour-key', { drop: still([id('left')]) }), id('right'))).toBe(false);
    expect(usesMasks(pass('brightness-key', { solid: still([id('left')]) }))).toBe(true);
  });

  test('documents from before masks are still read', () => {
    const project = JSON.parse(JSON.stringify(projectOf([red({})]))) as {
      shots: { layers: Record<string, unknown>[] }[];
    };
    delete project.shots[0]!.layers[0]!['masks'];
    delete project.shots[0]!.layers[0]!['matte'];
    expect(projectSchema.parse(project).shots[0]!.layers[0]).toMatchObject({ masks: [], matte: null });
  });

  test.each(['path', 'brush'] as const)(
    'a new %s in which nothing is drawn yet takes nothing away, alone or beside others',
    async (kind) => {
      const draft = newMask(id('draft'), 'draft', newShape(kind, { w: 64, h: 36 }));
      const project = projectOf([red({ passes: [pass('mask')] })], { background: null });
      const drawn = perform(project, addMask(at, draft))!.project;
      expect(projectSchema.safeParse(drawn).success).toBe(true);
      expect((await rendered(drawn))(10, 18)[3]).toBe(1);
      const beside = await rendered(
        projectOf([red({ masks: [left(), draft], passes: [pass('mask')] })], { background: null }),
      );
      expect([beside(10, 18)[3], beside(50, 18)[3]]).toEqual([1, 0]);
      // an area without anything drawn does not limit yet; the side is kept
      const waiting = await rendered(
        projectOf([red({ passes: [pass('adjust', { exposure: still(-10) }, { masks: [], side: 'outside' })] })]),
      );
      expect(waiting(10, 18)[0]).toBeLessThan(0.1);
    },
  );

  test('light wraps only where its area is', async () => {
    const wrap = (side?: 'inside' | 'outside') =>
      pass('light-wrap', { reach: still(8), strength: still(2) }, side && { masks: [id('left')], side });
    const shot = (own: Pass) =>
      projectOf([
        red({ place: { ...wholePlace(), scale: still([0.75, 0.75]) }, masks: [left()], passes: [own] }),
        layerOf('sky', colourSource([1, 1, 1])),
      ]);
    const [all, inside, outside] = [
      await rendered(shot(wrap())),
      await rendered(shot(wrap('inside'))),
      await rendered(shot(wrap('outside'))),
    ];
    const plain = 0.2;
    // just inside the left and the right edge of the card, which covers 8…56
    expect([all(9, 18)[1]! > plain + 0.05, all(54, 18)[1]! > plain + 0.05]).toEqual([true, true]);
    expect([inside(9, 18)[1], inside(54, 18)[1]]).toEqual([all(9, 18)[1], plain]);
    expect([outside(9, 18)[1], outside(54, 18)[1]]).toEqual([plain, all(54, 18)[1]]);
  });

  test('a chain of mattes cuts as one after the other, each computed once', async () => {
    const half = (name: string, side: -1 | 1, giver?: string) => ({
      ...layerOf(name, colourSource([1, 1, 1], 32, 36), {
        place: { ...wholePlace(), position: still([side * 16, 0]) },
        shown: false,
      }),
      matte: giver ? { layer: giver as LayerId, by: 'alpha' as const, invert: false } : null,
    });
    const chain = (second: -1 | 1) =>
      projectOf(
        [red({ matte: { layer: 'a' as LayerId, by: 'alpha', invert: false } }), half('a', -1, 'b'), half('b', second)],
        { background: null },
      );
    const [same, apart] = [await rendered(chain(-1)), await rendered(chain(1))];
    expect([same(10, 18)[3], same(50, 18)[3]]).toEqual([1, 0]);
    expect([apart(10, 18)[3], apart(50, 18)[3]]).toEqual([0, 0]);
    const long = projectOf(
      Array.from({ length: 1000 }, (_, i) =>
        layerOf(`m${i}`, colourSource([1, 1, 1]), {
          shown: i === 0,
          matte: i < 999 ? { layer: `m${i + 1}` as LayerId, by: 'alpha' as const, invert: false } : null,
        }),
      ),
    );
    expect(matteLoop(long.shots[0]!.layers)).toBeNull();
    const plan = planFrame(long, SHOT, 0);
    // each of them once
    expect(Object.keys(plan.mattes)).toHaveLength(999);
    // plans are sent to workers: what nests a thousand deep does not get there
    expect(structuredClone(plan)).toEqual(plan);
    expect((await rendered(long))(10, 18)).toEqual([1, 1, 1, 1]);
  });
});

describe('paths over time', () => {
  const square = (x: number): Vertex[] => [
    [x - 10, -10, 0, 0, 0, 0, 0],
    [x + 10, -10, 0, 0, 3, 0, 0],
    [x + 10, 10, 0, -3, 0, 0, 0],
    [x - 10, 10, 0, 0, 0, 0, 0],
  ];
  const roto: Mask = {
    ...newMask(id('roto'), 'roto', pathShape([])),
    shape: {
      kind: 'path',
      closed: true,
      path: {
        keys: [
          { at: 0, value: square(-10) as never, ease: 'linear' },
          { at: 10, value: square(10) as never, ease: 'linear' },
        ],
      },
    },
  };
  const project = projectOf([red({ masks: [roto] })]);
  const paths = (of: Project) =>
    keysOf(valueIn(of.shots[0]!.layers[0]!, 'mask.roto.path')! as never) as unknown as {
      at: number;
      value: Vertex[];
    }[];
  const covered = (path: readonly Vertex[]) => fillRings([flattened(path).ring.map((v) => v + 32)], 64, 64);

  test('moving it at a frame makes a keyframe there', () => {
    const after = perform(project, setPath(project, { ...at, frame: 5 }, id('roto'), square(3), 'here'))!.project;
    expect(paths(after).map((key) => key.at)).toEqual([0, 5, 10]);
    expect(paths(after)[1]!.value).toEqual(square(3));
  });

  test('moving it in all keyframes, or in a range, moves each by as much', () => {
    const all = perform(project, setPath(project, { ...at, frame: 5 }, id('roto'), square(4), 'all'))!.project;
    expect(paths(all).map((key) => key.value[0]![0])).toEqual([-16, 4]);
    const some = perform(
      project,
      setPath(project, { ...at, frame: 5 }, id('roto'), square(4), { from: 6, to: 20 }),
    )!.project;
    expect(paths(some).map((key) => key.value[0]![0])).toEqual([-20, 4]);
  });

  test('a vertex put in or taken out is so in every keyframe, and one put in moves no shape', () => {
    const more = perform(project, insertVertex(project, at, id('roto'), 1, 0.4))!.project;
    paths(more).forEach((key, i) => {
      expect(key.value).toHaveLength(5);
      const [before, after] = [covered(paths(project)[i]!.value), covered(key.value)];
      expect(Math.max(...before.map((v, k) => Math.abs(v - after[k]!)))).toBeLessThan(0.005);
    });
    const fewer = perform(more, removeVertices(more, at, id('roto'), new Set([2])))!.project;
    expect(paths(fewer).map((key) => key.value.length)).toEqual([4, 4]);
  });
});

describe('layer mattes', () => {
  const spot = (change: Partial<Layer> = {}) =>
    layerOf('spot', colourSource([0.5, 0.5, 0.5]), {
      shown: false,
      masks: [left()],
      passes: [pass('mask')],
      ...change,
    });
  const matted = (by: 'alpha' | 'brightness', invert: boolean) =>
    projectOf([red({ matte: { layer: 'spot' as LayerId, by, invert } }), spot()], { background: null });

  test('a hidden layer’s alpha or brightness is the coverage, inverted or not', async () => {
    const alpha = await rendered(matted('alpha', false));
    expect([alpha(10, 18)[3], alpha(50, 18)[3]]).toEqual([1, 0]);
    const inverted = await rendered(matted('alpha', true));
    expect([inverted(10, 18)[3], inverted(50, 18)[3]]).toEqual([0, 1]);
    const bright = await rendered(matted('brightness', false));
    expect([bright(10, 18)[3], bright(50, 18)[3]]).toEqual([0.5, 0]);
  });

  test('a circle of mattes is refused with its names', () => {
    const project = projectOf([red({ matte: { layer: 'spot' as LayerId, by: 'alpha', invert: false } }), spot()]);
    expect(() =>
      setMatte(
        project,
        { shot: SHOT, layer: 'spot' as LayerId },
        { layer: 'card' as LayerId, by: 'alpha', invert: false },
      ),
    ).toThrow(/circle: card, spot|circle: spot, card/);
    const bad = structuredClone(project);
    bad.shots[0]!.layers[1]!.matte = { layer: 'card' as LayerId, by: 'alpha', invert: false };
    expect(projectSchema.safeParse(bad).error?.message).toMatch(/mattes from each other/);
  });

  test('a matte ends with its layer', async () => {
    const project = projectOf(
      [
        red({ matte: { layer: 'spot' as LayerId, by: 'alpha', invert: false } }),
        spot({ span: { start: 0, length: 10 } }),
      ],
      { background: null },
    );
    expect((await rendered(project, 9))(10, 18)[3]).toBe(1);
    expect((await rendered(project, 10))(10, 18)[3]).toBe(0);
  });
});

test('an area is taken away by freeing the pass', () => {
  const project = projectOf([red({ masks: [left()], passes: [pass('blur')] })]);
  const limited = perform(
    project,
    setArea(project, at, 'pass-1' as PassId, { masks: [id('left')], side: 'inside' }),
  )!.project;
  expect(limited.shots[0]!.layers[0]!.passes[0]!.area).toEqual({ masks: ['left'], side: 'inside' });
  const freed = perform(limited, setArea(limited, at, 'pass-1' as PassId, null))!;
  expect(freed.project.shots[0]!.layers[0]!.passes[0]!.area).toBeUndefined();
  expect(setArea(limited, at, 'pass-1' as PassId, null).name).toBe('Blur everywhere');
});
