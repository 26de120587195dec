import { beforeAll, describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { newSource } from '../document/edits/layers';
import { shapeOfMask, toFreePath } from '../document/edits/figures';
import { newMask, type Mask, type MaskId, type Shape } from '../document/mask';
import type { LayerId, Project } from '../document/schema';
import { corner } from '../masks/path';
import { planFrame } from '../plan/plan';
import { at, done } from '../testing/boat';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import { testRig, type TestRig, wholeFloats } from '../testing/rig';
import type { DrawnSource } from './define';
import { shape } from './shape';

const SIZE = { w: 200, h: 100 };
let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});

const path = (
  id: string,
  points: readonly (readonly [number, number])[],
  closed: boolean,
  more: Partial<Mask> = {},
) => ({
  ...newMask(id as MaskId, id, {
    kind: 'path',
    closed,
    path: still(points.map(([x, y]) => corner(x, y))),
  } as unknown as Shape),
  ...more,
});
const square = (id: string, x: number, half: number, more: Partial<Mask> = {}) =>
  path(
    id,
    [
      [x - half, -half],
      [x + half, -half],
      [x + half, half],
      [x - half, half],
    ],
    true,
    more,
  );
const shapeProject = (values: Readonly<Record<string, unknown>>, masks: Mask[]): Project =>
  projectOf([layerOf('boat', newSource('shape', { size: [SIZE.w, SIZE.h], ...values }), { masks })], {
    width: SIZE.w,
    height: SIZE.h,
  });
/** How much a shape's layer covers of each pixel. @param which layer of the plan, from below */
function covers(project: Project, which = 0): (x: number, y: number) => number {
  const { source } = planFrame(project, SHOT, 0).layers[which]!;
  if (source.kind !== 'drawn') throw new Error('not drawn');
  const picture = (shape as unknown as DrawnSource).draw(source.values as never, {
    ...rig,
    size: SIZE,
    line: () => ({}) as never,
    picture: () => null,
  });
  const floats = wholeFloats(rig, picture, SIZE);
  picture.release();
  return (x, y) => floats[((y + SIZE.h / 2) * SIZE.w + x + SIZE.w / 2) * 4 + 3]!;
}
const FREE = { form: 'path', line: 0 };

describe('a free path', () => {
  test('is filled where it is closed; one that is open is a line and encloses nothing', () => {
    const corners = [
      [-30, -20],
      [30, -20],
      [30, 20],
    ] as const;
    const solid = covers(shapeProject(FREE, [path('a', corners, true)]));
    expect([solid(20, 0), solid(-20, 15)]).toEqual([1, 0]);
    const open = covers(shapeProject({ ...FREE, line: 6 }, [path('a', corners, false)]));
    // along both of its sides, not along the third, not within
    expect([open(0, -20), open(30, 0), open(0, 0), open(20, -10)]).toEqual([1, 1, 0, 0]);
  });

  test('takes away, leaves out and is soft as its masks say', () => {
    const hole = covers(shapeProject(FREE, [square('a', 0, 40), square('b', 0, 10, { mode: 'exclude' })]));
    expect([hole(0, 0), hole(25, 0), hole(45, 0)]).toEqual([0, 1, 0]);
    const soft = covers(shapeProject(FREE, [square('a', 0, 30, { feather: still(20) })]));
    expect(soft(0, 0)).toBeCloseTo(1, 2);
    expect((soft(-30, 0) + soft(-31, 0)) / 2).toBeCloseTo(0.5, 2);
  });

  test('outlines of several closed paths have all of their corners, whatever their lengths add up to', () => {
    // lengths that have no exact sum
    const some = [0.1, 0.7, 1.3, 2.9].map((part, i) => square(`s${i}`, -72 + 48 * i, 15 + part));
    const alone = some.map((mask) => covers(shapeProject({ ...FREE, fill: 'none', line: 8 }, [mask])));
    const all = covers(shapeProject({ ...FREE, fill: 'none', line: 8 }, some));
    for (let y = -30; y < 30; y++)
      for (let i = 0; i < 4; i++)
        for (let x = -94 + 48 * i; x < -50 + 48 * i; x += 1)
          if (Math.abs(all(x, y) - Math.max(...alone.map((one) => one(x, y)))) > 0.02)
            throw new Error(`at ${x}, ${y} of path ${i}: ${all(x, y)}`);
  });

  test('is drawn by the masks that it names alone', () => {
    const two = [square('a', -50, 20), square('b', 50, 20)];
    const one = covers(shapeProject({ ...FREE, paths: ['b'] }, two));
    expect([one(-50, 0), one(50, 0)]).toEqual([0, 1]);
  });

  test('the line lies inside or outside whichever way round it was drawn', () => {
    const ring = square('a', 0, 30);
    const back = {
      ...ring,
      shape: { ...ring.shape, path: still([...(ring.shape as never as { path: { still: [] } }).path.still].reverse()) },
    } as Mask;
    for (const mask of [ring, back]) {
      const inside = covers(shapeProject({ ...FREE, fill: 'none', line: 8, lies: 'inside' }, [mask]));
      expect([inside(-26, 0), inside(-34, 0)]).toEqual([1, 0]);
      const outside = covers(shapeProject({ ...FREE, fill: 'none', line: 8, lies: 'outside' }, [mask]));
      expect([outside(-26, 0), outside(-34, 0)]).toEqual([0, 1]);
    }
  });
});

describe('the drawn part of a line', () => {
  const twoLines = [
    path(
      'a',
      [
        [-80, -20],
        [80, -20],
      ],
      false,
    ),
    path(
      'b',
      [
        [-80, 20],
        [80, 20],
      ],
      false,
    ),
  ];
  const half = { ...FREE, line: 6, cap: 'flat', to: 0.5 };
  test('goes along several paths in their order, or along each', () => {
    const after = covers(shapeProject(half, twoLines));
    expect([after(70, -20), after(-70, 20)]).toEqual([1, 0]);
    const together = covers(shapeProject({ ...half, order: 'together' }, twoLines));
    expect([together(-70, -20), together(-70, 20), together(70, -20), together(70, 20)]).toEqual([1, 1, 0, 0]);
  });

  test('fades evenly towards both of its ends', () => {
    const fading = covers(shapeProject({ ...FREE, line: 6, cap: 'flat', fade: 0.25 }, [twoLines[0]!]));
    // a quarter of 160 pixels
    for (const along of [5, 10, 20, 30, 35]) {
      expect(Math.abs(fading(-80 + along, -20) - (along + 0.5) / 40)).toBeLessThan(0.05);
      expect(Math.abs(fading(79 - along, -20) - (along + 0.5) / 40)).toBeLessThan(0.05);
    }
    expect(fading(0, -20)).toBeCloseTo(1, 6);
  });

  test('has no seams where it fades along a curve', () => {
    const round = newMask('r' as MaskId, 'round', {
      kind: 'ellipse',
      centre: still([0, 0]),
      size: still([90, 90]),
      rotation: still(0),
    } as Shape);
    const ring = covers(shapeProject({ ...FREE, fill: 'none', line: 12, to: 0.5, fade: 0.5, cap: 'round' }, [round]));
    // from the right over the lower half to the left: faint, solid, faint
    for (let degrees = 6; degrees < 175; degrees += 4) {
      const turn = (degrees * Math.PI) / 180;
      const share = Math.min(degrees, 180 - degrees) / 90;
      const [x, y] = [Math.floor(45 * Math.cos(turn)), Math.floor(45 * Math.sin(turn))];
      expect(Math.abs(ring(x, y) - share)).toBeLessThan(0.05);
    }
  });
});

describe('shapes and masks', () => {
  test.each(['rectangle', 'ellipse', 'polygon', 'star', 'arrow'])('a %s looks the same as a free path', (form) => {
    const before = shapeProject({ form, width: 120, height: 70, line: 4, radius: form === 'rectangle' ? 12 : 0 }, []);
    let made = 0;
    const after = done(
      toFreePath(before, { ...at, frame: 0 }, () => `mask-${made++}`),
      before,
    );
    const [was, is] = [covers(before), covers(after)];
    let worst = 0;
    for (let y = -50; y < 50; y++)
      for (let x = -100; x < 100; x++) worst = Math.max(worst, Math.abs(was(x, y) - is(x, y)));
    expect(worst).toBeLessThan(2 / 255);
  });

  test('a shape made of a mask covers what the mask does, in the same place', () => {
    const mask = square('a', 30, 20);
    const before = shapeProject({ width: 10, height: 10, line: 0 }, [mask]);
    const moved = {
      ...before,
      shots: [
        {
          ...before.shots[0]!,
          layers: before.shots[0]!.layers.map((layer) => ({
            ...layer,
            place: { ...layer.place, position: still([7, 3]) },
          })),
        },
      ],
    } as Project;
    const after = done(
      shapeOfMask(moved, { ...at, frame: 0 }, mask, { layer: 'new' as LayerId, mask: 'm' as MaskId }),
      moved,
    );
    const [upper, lower] = after.shots[0]!.layers;
    expect([upper!.id, upper!.place, lower!.id]).toEqual(['new', lower!.place, 'boat']);
    const own = covers(after, 1);
    expect([own(30, 0), own(12, 0), own(5, 0)]).toEqual([1, 1, 0]);
  });
});
