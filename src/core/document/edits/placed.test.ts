// Layers that follow others, and framings: where each layer lies after the edit.

import { followLoop } from '../circles';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { layerMatrix } from '../../place/projection';
import { apply } from '../../picture/matrix';
import { placeMoment, shotMoment, colourSource, layerOf, projectOf } from '../../testing/documents';

import { type Layer, type LayerId, type PassId, projectSchema } from '../schema';
import { still } from '../../base/value';

import { framingAt, type FramingStop } from '../../place/framing';
import { carriedBy, placeAt, placement, wholePlace, type PlacementName } from '../../place/place';
import { framingToKeys, putLayer, resetPlace, setFraming, setParent } from './layers';

import { trimStart } from './time';
import { at, done, layerOfProject, moving, state } from '../../testing/boat';

const near = (a: number[], b: number[]) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 6));

describe('following', () => {
  const parent = layerOf('carrier', colourSource([0, 0, 0]));
  const base = projectOf([
    moving(),
    {
      ...parent,
      place: {
        ...parent.place,
        position: {
          keys: [
            { at: 0, value: [0, 0], ease: 'linear' },
            { at: 40, value: [40, 20], ease: 'linear' },
          ],
        },
        rotation: still(30),
        scale: still([2, 2]),
      },
    },
  ]);
  const link = { layer: 'carrier' as LayerId, rotation: true, scale: true };

  test('a layer stays where it is when it begins to follow and when it lets go, and then goes along', () => {
    const linked = done(setParent(base, at, link), base);
    near(state(linked, 'boat', 12), state(base, 'boat', 12));
    const free = done(setParent(linked, at, null), linked);
    near(state(free, 'boat', 12), state(base, 'boat', 12));
    // where the follower stands still itself, it moves as its carrier does
    const resting = projectOf([layerOf('boat', colourSource([0, 0, 0])), base.shots[0]!.layers[1]!]);
    const both = done(setParent(resting, at, link), resting);
    const moved = (id: string, axis: number) => state(both, id, 30)[axis]! - state(both, id, 12)[axis]!;
    expect(moved('boat', 0)).toBeCloseTo(moved('carrier', 0), 6);
    expect(moved('boat', 1)).toBeCloseTo(moved('carrier', 1), 6);
  });

  test('a circle is refused by name, in the edit and in a file', () => {
    const linked = done(setParent(base, at, link), base);
    expect(() =>
      setParent(linked, { ...at, layer: 'carrier' as LayerId }, { ...link, layer: 'boat' as LayerId }),
    ).toThrow(/circle: (carrier, boat|boat, carrier)/);
    const broken = structuredClone(linked);
    broken.shots[0]!.layers[1]!.parent = { ...link, layer: 'boat' as LayerId };
    expect(projectSchema.safeParse(broken).error?.issues[0]?.message).toMatch(/follow each other in a circle/);
  });
});

describe('framing', () => {
  test('what is framed fills the shot: its corners land on the shot’s corners', () => {
    const size = { w: 64, h: 36 };
    fc.assert(
      fc.property(
        fc.double({ min: -200, max: 200, noNaN: true }),
        fc.double({ min: -200, max: 200, noNaN: true }),
        fc.double({ min: 20, max: 400, noNaN: true }),
        (x, y, width) => {
          const wide = projectOf([layerOf('boat', colourSource([0, 0, 0], 800, 600))]);
          const result = done(setFraming(wide, at, [{ at: 0, x, y, width, ease: 'linear' }]), wide);
          const m = layerMatrix(shotMoment(result.shots[0]!, layerOfProject(result), 0), { w: 800, h: 600 });
          const high = (width * size.h) / size.w;
          near(apply(m, 400 + x - width / 2, 300 + y - high / 2) as unknown as number[], [0, 0]);
          near(apply(m, 400 + x + width / 2, 300 + y + high / 2) as unknown as number[], [size.w, size.h]);
        },
      ),
    );
  });

  const wide = () =>
    projectOf([
      layerOf('boat', colourSource([0, 0, 0], 800, 600), {
        place: {
          ...wholePlace(),
          rotation: {
            keys: [
              { at: 0, value: 0, ease: 'linear' },
              { at: 40, value: 30, ease: 'linear' },
            ],
          },
          anchor: still([50, -20]),
          flipX: true,
        },
      }),
    ]);
  const stops: FramingStop[] = [
    { at: 0, x: 0, y: 0, width: 800, ease: 'linear' },
    { at: 20, x: 40, y: -30, width: 500, ease: { cubic: [0.4, 0, 0.2, 1] } },
    { at: 40, x: 100, y: 50, width: 400, ease: 'linear' },
  ];
  const size = { w: 800, h: 600 };

  test('a push in has constant apparent speed: equal factors in equal times', () => {
    const result = done(setFraming(wide(), at, [stops[0]!, stops[2]!]), wide());
    const scale = (frame: number) =>
      placeAt(placeMoment(layerOfProject(result).place, frame, { w: 64, h: 36 })).scale[0];
    for (let f = 0; f < 40; f += 4) expect(scale(f + 4) / scale(f)).toBeCloseTo(2 ** 0.1, 6);
  });

  test('the middle of what is framed stays in the middle of the shot, whatever the layer is turned, flipped and anchored', () => {
    const result = done(setFraming(wide(), at, stops), wide());
    for (let frame = 0; frame <= 40; frame += 0.5) {
      const { x, y } = framingAt(stops, frame);
      near(
        apply(
          layerMatrix(shotMoment(result.shots[0]!, layerOfProject(result), frame), size),
          400 + x,
          300 + y,
        ) as unknown as number[],
        [32, 18],
      );
    }
  });

  test('as keyframes it shows the same on every frame, and is no framing any more; let go, the place is as it was', () => {
    const framed = done(setFraming(wide(), at, stops), wide());
    const keyed = done(framingToKeys(framed, at), framed);
    expect(layerOfProject(keyed).place.framing).toBeUndefined();
    const matrix = (project: typeof framed, frame: number) =>
      layerMatrix(shotMoment(project.shots[0]!, layerOfProject(project), frame), size) as unknown as number[];
    for (let frame = 0; frame < 48; frame++) near(matrix(keyed, frame), matrix(framed, frame));
    expect(layerOfProject(done(setFraming(framed, at, []), framed)).place).toEqual(layerOfProject(wide()).place);
    expect(() => projectSchema.parse(framed)).not.toThrow();
  });

  test('trimming and splitting leave what is seen at every shot frame', () => {
    const framed = done(setFraming(wide(), at, stops), wide());
    const trimmed = done(trimStart(framed, at, 7), framed);
    const place = (project: typeof framed, frame: number) =>
      layerMatrix(shotMoment(project.shots[0]!, layerOfProject(project), frame), size) as unknown as number[];
    for (let frame = 7; frame < 48; frame += 3) near(place(trimmed, frame), place(framed, frame));
  });
});

describe('following', () => {
  test('a bent path keeps its form when its layer begins to follow one that is turned and scaled', () => {
    const bent = {
      keys: [
        { at: 0, value: [0, 0], ease: 'linear', bend: { in: [0, 0], out: [10, -14] } },
        { at: 20, value: [20, 4], ease: 'linear', bend: { in: [-6, -8], out: [0, 0] } },
      ],
    } as Layer['place']['position'];
    const lead = layerOf('lead', colourSource([0, 0, 0]), {
      place: { ...wholePlace(), position: still([5, 3]), rotation: still(40), scale: still([1.5, 1.5]) },
    });
    const before = projectOf([
      layerOf('boat', colourSource([0, 0, 0]), { place: { ...wholePlace(), position: bent } }),
      lead,
    ]);
    const after = done(setParent(before, at, { layer: lead.id, rotation: true, scale: true }), before);
    for (let frame = 0; frame <= 20; frame++) {
      const spot = (project: typeof before) =>
        apply(
          layerMatrix(shotMoment(project.shots[0]!, layerOfProject(project), frame), { w: 64, h: 36 }),
          32,
          18,
        ) as unknown as number[];
      near(spot(after), spot(before));
    }
  });

  test('a chain of a thousand layers is gone along once, to the same place as link by link', () => {
    let looked = 0;
    const chain = Array.from({ length: 1000 }, (_, i) =>
      layerOf(`link-${i}`, colourSource([0, 0, 0]), {
        place: { ...wholePlace(), position: still([0.01 * i, 0]) },
        parent: i ? { layer: `link-${i - 1}` as Layer['id'], rotation: true, scale: true } : null,
      }),
    );
    const counted = (layer: Layer): Layer => {
      const { position } = layer.place;
      const place = Object.defineProperty({ ...layer.place }, 'position', { get: () => (looked++, position) });
      return { ...layer, place };
    };
    const plain = projectOf(chain).shots[0]!;
    const shot = { ...plain, layers: plain.layers.map(counted) };
    const places = shot.layers.map((layer) => carriedBy(shotMoment(shot, layer, 3)));
    // link by link for each of them it would be half a million times
    expect(looked).toBeGreaterThan(0);
    expect(looked).toBeLessThan(20_000);
    // the sum of 0.01·k up to the layer before
    for (const i of [1, 2, 500, 999]) expect(places[i]![4]).toBeCloseTo((0.01 * (i * (i - 1))) / 2, 6);
    expect(followLoop(shot.layers)).toBeNull();
  });
});

describe('one-click placements in a part of the shot', () => {
  const base = projectOf([moving()]);
  const shot = { w: 640, h: 360 };
  const put = (project: typeof base, name: PlacementName, id: string) =>
    done(putLayer(project, at, placement(name, shot, shot, { fills: true, border: 0 }), name, id as PassId), project);
  const panes = (project: typeof base) => layerOfProject(project, 'boat').passes.filter(({ type }) => type === 'pane');

  test('a pane comes with what would go beyond, is used by the next one, and goes with what needs none', () => {
    const left = put(base, 'left', 'one');
    expect(panes(left)).toMatchObject([
      { id: 'one', space: 'shot', values: { centre: still([-160, 0]), width: still(320), height: still(360) } },
    ]);
    const right = put(left, 'right', 'two');
    expect(panes(right)).toMatchObject([{ id: 'one', values: { centre: still([160, 0]) } }]);
    expect(panes(put(right, 'fit', 'three'))).toEqual([]);
    expect(panes(done(resetPlace(right, at), right))).toEqual([]);
    expect(projectSchema.parse(right)).toEqual(right);
  });
});
