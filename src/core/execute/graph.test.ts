// What lies together in a shot: passes after Place, adjustment layers, groups.
import { bytesOf } from '../picture/bytes';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { newLayer, newSource } from '../document/edits/layers';
import { newMask, type MaskId } from '../document/mask';
import { newPass } from '../document/edits/passes';
import { wholePlace } from '../place/place';
import {
  projectSchema,
  type Layer,
  type LayerId,
  type PassId,
  type Project,
  type Shot,
  type ShotId,
} from '../document/schema';
import { still } from '../base/value';
import { planFrame, planLayer } from '../plan/plan';
import { colourSource, layerOf, projectOf, SHOT, shotOf } from '../testing/documents';
import { testRig, type TestRig } from '../testing/rig';
import { WasmExecutor } from './backends/wasm/executor';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const executor = () => new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no media here')));

/** RGBA 0…1 at a pixel of a frame. */
async function seen(project: Project, frame = 0, on = executor()): Promise<(x: number, y: number) => number[]> {
  const problems: { sentence: string }[] = [];
  const picture = await on.frame(planFrame(project, SHOT, frame), 'every', problems as never);
  const data = bytesOf(on, picture);
  const { w } = picture.rect;
  picture.release();
  expect(problems).toEqual([]);
  return (x, y) => [...data.subarray((y * w + x) * 4, (y * w + x) * 4 + 4)];
}
const pass = (type: string, values: Record<string, unknown> = {}, id = type) => {
  const made = newPass(id as PassId, type);
  for (const [name, value] of Object.entries(values)) made.values[name] = still(value);
  return made;
};
const card = (change: Partial<Layer> = {}, w = 20, h = 10) => layerOf('card', colourSource([1, 0, 0], w, h), change);
const white = layerOf('white', colourSource([1, 1, 1]));
const adjustment = (passes: Layer['passes'], change: Partial<Layer> = {}, layers: string[] = []): Layer => ({
  ...newLayer('all' as LayerId, 'all', newSource('adjustment', { layers }), { start: 0, length: 48 }),
  passes,
  ...change,
});
const half = newMask('half' as MaskId, 'half', {
  kind: 'rectangle',
  centre: still([-16, 0]),
  size: still([32, 36]),
  rotation: still(0),
  radius: still(0),
} as never);

describe('a drop shadow', () => {
  const hard = { angle: 0, distance: 6, softness: 0, spread: 0, opacity: 1 };

  test('lies where it is thrown, as dark as it says, under the layer', async () => {
    const at = await seen(projectOf([card({ passes: [pass('drop-shadow', { ...hard, opacity: 0.5 })] }), white]));
    expect(at(32, 18)).toEqual([255, 0, 0, 255]); // the card, 22…41 × 13…22
    expect(at(45, 18)).toEqual([128, 128, 128, 255]); // its shadow to the right
    expect(at(50, 18)).toEqual([255, 255, 255, 255]);
    expect(at(19, 18)).toEqual([255, 255, 255, 255]);
  });

  test('grows by its spread and keeps its weight when it is blurred', async () => {
    const grown = await seen(
      projectOf([card({ passes: [pass('drop-shadow', { ...hard, distance: 0, spread: 3 })] }), white]),
    );
    expect([grown(20, 18), grown(18, 18)].map(([r]) => r)).toEqual([0, 255]);
    const clear = (softness: number) =>
      projectOf([card({ passes: [pass('drop-shadow', { ...hard, distance: 0, softness })] }, 8, 8)], {
        background: null,
      });
    const soft = await seen(clear(2));
    const sum = Array.from({ length: 64 * 36 }, (_, i) => soft(i % 64, Math.floor(i / 64))[3]! / 255);
    // what is under the card is not seen: the card's 64 pixels, and of the light outside as much as the blur has moved there
    const sharp = await seen(clear(0));
    const before = Array.from({ length: 64 * 36 }, (_, i) => sharp(i % 64, Math.floor(i / 64))[3]! / 255);
    const total = (all: number[]) => all.reduce((a, b) => a + b, 0);
    expect(total(before)).toBeCloseTo(64, 1);
    expect(total(sum)).toBeGreaterThan(64 + 10);
  });

  test('turns with the shot, not with the layer, and comes from beyond the border', async () => {
    const turned = { ...wholePlace(), rotation: still(90) };
    const at = await seen(projectOf([card({ place: turned, passes: [pass('drop-shadow', hard)] }), white]));
    expect(at(40, 18)).toEqual([0, 0, 0, 255]); // the card is 10 wide now: 27…36; its shadow still falls to the right
    const outside = { ...wholePlace(), position: still([-44, 0] as [number, number]) };
    const left = await seen(
      projectOf([card({ place: outside, passes: [pass('drop-shadow', { ...hard, distance: 20 })] }), white]),
    );
    expect(left(2, 18)).toEqual([0, 0, 0, 255]);
  });
});

describe('an adjustment layer', () => {
  const dark = pass('adjust', { exposure: -10 });
  /** a thousandth of the light, display-encoded */
  const DARK = Math.round(255 * 12.92 * 2 ** -10);

  test('works on everything below, as strongly as its opacity says, and not on what is above', async () => {
    const top = { ...card(), id: 'top' as LayerId };
    const at = await seen(projectOf([top, adjustment([dark], { opacity: still(0.5) }), white]));
    expect(at(32, 18)).toEqual([255, 0, 0, 255]);
    expect(Math.abs(at(2, 2)[0]! - 128)).toBeLessThanOrEqual(1);
  });

  test('a Mask pass says where it works; coverage stays', async () => {
    const line = [dark, pass('mask', { masks: ['half'] })];
    const at = await seen(projectOf([adjustment(line, { masks: [half] }), white], { background: null }));
    expect([at(4, 4), at(60, 4)]).toEqual([
      [DARK, DARK, DARK, 255],
      [255, 255, 255, 255],
    ]);
  });

  test('with layers named it changes those alone', async () => {
    const at = await seen(projectOf([card(), adjustment([dark], {}, ['card']), white]));
    expect([at(32, 18), at(2, 2)]).toEqual([
      [DARK, 0, 0, 255],
      [255, 255, 255, 255],
    ]);
    const faint = await seen(projectOf([card(), adjustment([dark], { opacity: still(0.25) }, ['card']), white]));
    expect(Math.abs(faint(32, 18)[0]! - 191)).toBeLessThanOrEqual(1);
  });

  test('has no picture by itself', () => {
    const project = projectOf([adjustment([dark]), white]);
    expect(planLayer(project, project.shots[0]!, project.shots[0]!.layers[0]!, 0, 1)).toBeNull();
  });
});

describe('a group', () => {
  const INNER = 'inner' as ShotId;
  const moving = (): Layer =>
    card({
      place: {
        ...wholePlace(),
        position: {
          keys: [
            { at: 0, value: [-20, 0], ease: 'linear' },
            { at: 40, value: [20, 0], ease: 'linear' },
          ],
        },
      },
    });
  const inner = (layers: Layer[]): Shot => ({
    ...shotOf({ id: INNER, name: 'inside', background: null, layers }),
    within: SHOT,
  });
  const outer = (layers: Layer[], change: Partial<Layer> = {}): Project => {
    const group = {
      ...newLayer('group' as LayerId, 'group', newSource('group', { shot: INNER }), { start: 0, length: 48 }),
      ...change,
    };
    const project = projectOf([group, white]);
    return projectSchema.parse({ ...project, shots: [...project.shots, inner(layers)] });
  };
  const flat = projectOf([moving(), white]);

  test('shows what its layers show by themselves, at every time', async () => {
    for (const frame of [0, 7, 20]) {
      const [one, other] = [await seen(outer([moving()]), frame), await seen(flat, frame)];
      for (let i = 0; i < 64 * 36; i += 5)
        expect(one(i % 64, Math.floor(i / 64))).toEqual(other(i % 64, Math.floor(i / 64)));
    }
  });

  test('runs at its own speed, backwards too, and its passes and place work on the whole', async () => {
    const middle = async (project: Project, frame: number) => {
      const at = await seen(project, frame);
      const xs = Array.from({ length: 64 }, (_, x) => x).filter((x) => at(x, 18)[1] === 0);
      return (xs[0]! + xs.at(-1)! + 1) / 2;
    };
    const timed = (offset: number, speed: number) =>
      outer([moving()], { time: { offset, speed: still(speed), between: 'nearest', keepPitch: true } });
    expect(await middle(timed(0, 1), 10)).toBe(32 - 10);
    expect(await middle(timed(0, 2), 10)).toBe(32);
    expect(await middle(timed(20, -1), 10)).toBe(32 - 10);
    const small = { ...wholePlace(), scale: still([0.5, 0.5] as [number, number]) };
    const at = await seen(outer([moving()], { place: small, passes: [pass('adjust', { exposure: -10 })] }), 20);
    expect(at(32, 18)[0]).toBeLessThan(10);
    expect(at(38, 18)).toEqual([255, 255, 255, 255]);
  });

  test('a circle of groups is refused with its names, and so is a group that is not there', () => {
    const project = outer(
      [{ ...newLayer('back' as LayerId, 'back', newSource('group', { shot: SHOT }), { start: 0, length: 48 }) }].slice(
        1,
      ),
    );
    const looped = structuredClone(project);
    looped.shots[1]!.layers.push(
      newLayer('back' as LayerId, 'back', newSource('group', { shot: SHOT }), { start: 0, length: 48 }),
    );
    expect(projectSchema.safeParse(looped).error?.message).toMatch(/circle: Night ferry, inside/);
    const gone = { ...project, shots: project.shots.slice(0, 1) };
    expect(projectSchema.safeParse(gone).error?.message).toMatch(/group that is not in the project/);
  });

  test('a change inside is another picture outside; the rest of the frame keeps its names', () => {
    const [before, after] = [
      planFrame(outer([moving()]), SHOT, 3),
      planFrame(outer([{ ...moving(), opacity: still(0.4) }]), SHOT, 3),
    ];
    expect(after.key).not.toBe(before.key);
    expect(after.layers[0]!.drawn).toBe(before.layers[0]!.drawn);
    expect(structuredClone(after)).toEqual(after);
  });
});

test('a thousand layers that all show are drawn in the memory of a few', async () => {
  const small = await testRig(24e6);
  const layers = Array.from({ length: 1000 }, (_, i) =>
    layerOf(`card-${i}`, colourSource([i / 1000, 0.5, 0.5]), { opacity: still(0.5) }),
  );
  const on = new WasmExecutor(small.kernels, small.arena, () => Promise.reject(new Error('no media here')));
  const at = await seen(projectOf(layers), 0, on);
  expect(at(5, 5)[3]).toBe(255);
  on.cache.clear();
  expect(small.arena.used).toBe(0);
});

test('a gradient goes from one colour to the other along its line, and about a point', async () => {
  const values = {
    colours: [
      [0, [0, 0, 0]],
      [1, [1, 1, 1]],
    ],
    from: [-32, 0],
    to: [32, 0],
    size: [64, 36],
  };
  const line = await seen(projectOf([layerOf('sky', newSource('gradient', values))]));
  for (const x of [0, 10, 40, 63]) expect(Math.abs(line(x, 9)[0]! - ((x + 0.5) / 64) * 255)).toBeLessThanOrEqual(1);
  const round = await seen(
    projectOf([layerOf('sky', newSource('gradient', { ...values, form: 'round', from: [0, 0], to: [16, 0] }))]),
  );
  for (const x of [33, 36, 44])
    expect(Math.abs(round(x, 18)[0]! - (Math.hypot(x + 0.5 - 32, 0.5) / 16) * 255)).toBeLessThanOrEqual(1);
  expect(round(60, 18)[0]).toBe(255);
});

test('a pass from before there was one of its values has that value’s default', async () => {
  const whole = pass('drop-shadow', { distance: 6, softness: 0 });
  const { spread: _, ...older } = whole.values;
  const drawn = async (values: typeof whole.values) => {
    const at = await seen(projectOf([card({ passes: [{ ...whole, values }] }), white]));
    return [20, 43, 45, 50].map((x) => at(x, 18));
  };
  expect(await drawn(older)).toEqual(await drawn(whole.values));
});
