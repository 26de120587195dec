import { stockSource } from '../../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sourceSeconds } from '../../plan/plan';
import { layerMatrix } from '../../place/projection';
import { apply } from '../../picture/matrix';
import { placeMoment, shotMoment, valueOn, SHOT, colourSource, layerOf, projectOf } from '../../testing/documents';
import { perform, undoStep, type Edit } from '../edit';
import { layerIn } from '../find';
import { type Layer, type LayerId, type PassId, type Project, followLoop, projectSchema } from '../schema';
import { still, type Key, type Value } from '../../base/value';
import {
  easeKeys,
  moveKeys,
  pasteKeys,
  copyKeys,
  removeKeys,
  reversedKeys,
  scaleKeys,
  setJitter,
  stretchKeys,
  togglePeg,
  makeStill,
  setValues,
} from './keys';
import { framingAt, type FramingStop } from '../../place/framing';
import { carriedBy, placeAt, wholePlace } from '../../place/place';
import { framingToKeys, setFraming, setParent, setPlace } from './layers';
import { changeMarker, rangeOf, setRange, toggleMarker } from './markers';
import { addPass, newPass, setPassValue } from './passes';
import { followClip } from './project';
import {
  conformLayer,
  duplicateLayer,
  fitLength,
  freeName,
  freezeHere,
  pasteLayers,
  relateLayer,
  removeLayers,
  reverseLayer,
  setSpeed,
  setTargetLength,
  slipLayer,
  splitLayer,
  trimStart,
} from './time';

const keyed: Value<[number, number]> = {
  keys: [
    { at: 4, value: [0, 0], ease: 'linear' },
    { at: 20, value: [32, -16], ease: { cubic: [0.4, 0, 0.6, 1] } },
    { at: 44, value: [0, 8], ease: 'smooth' },
  ],
};
const moving = (change: Partial<Layer> = {}): Layer => {
  const layer = layerOf('boat', stockSource('plate' as never), change);
  return {
    ...layer,
    place: { ...layer.place, position: keyed },
    time: {
      ...layer.time,
      speed: {
        keys: [
          { at: 0, value: 2, ease: 'linear' },
          { at: 30, value: 0.5, ease: 'linear' },
        ],
      },
    },
  };
};
const at = { shot: SHOT, layer: 'boat' as LayerId, frame: 12 };
const project = projectOf([moving(), layerOf('deck', colourSource([0.2, 0.2, 0.2]))]);
const done = (edit: Edit, base: Project = project): Project => perform(base, edit)?.project ?? base;
const layerOfProject = (result: Project, id = 'boat') => layerIn(result.shots[0]!, id as LayerId);
let count = 0;
const fresh = () => `fresh-${++count}`;
/** What shows of a layer at a shot frame: where it is and which source time. */
const state = (result: Project, id: string, frame: number) => {
  const shot = result.shots[0]!;
  const layer = layerOfProject(result, id);
  return [
    ...apply(layerMatrix(shotMoment(shot, layer, frame), { w: 64, h: 36 }), 0, 0),
    sourceSeconds(shot, layer, frame - layer.span.start),
  ];
};
const near = (a: number[], b: number[]) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 6));
const frames = (value: Value<unknown>) => ('keys' in value ? value.keys.map((key) => key.at) : []);

describe('layers in time', () => {
  test('a trimmed start leaves picture, place and source time of every remaining frame, ramp and all', () => {
    fc.assert(
      fc.property(fc.integer({ min: -10, max: 40 }), fc.integer({ min: 41, max: 47 }), (start, frame) => {
        near(state(done(trimStart(project, at, start)), 'boat', frame), state(project, 'boat', frame));
      }),
    );
  });

  test('both halves of a split show what the whole showed, and touch', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 47 }), fc.integer({ min: 0, max: 47 }), (cut, frame) => {
        const result = done(splitLayer(project, { ...at, frame: cut }, fresh));
        const [after, before] = result.shots[0]!.layers as [Layer, Layer];
        expect(before.span.start + before.span.length).toBe(after.span.start);
        near(state(result, frame < cut ? before.id : after.id, frame), state(project, 'boat', frame));
        expect(() => projectSchema.parse(result)).not.toThrow();
      }),
    );
    expect(done(splitLayer(project, { ...at, frame: 0 }, fresh))).toBe(project);
  });

  test('a slip shows another part of the source in the same span; a duplicate is as much later as was said', () => {
    const slipped = layerOfProject(done(slipLayer(project, at, 7)));
    expect([slipped.span, slipped.time.offset]).toEqual([{ start: 0, length: 48 }, 7]);
    const twice = done(duplicateLayer(project, at, 5, 2, fresh)).shots[0]!.layers;
    expect(twice.map((layer) => layer.span.start)).toEqual([10, 5, 0, 0]);
    expect(new Set(twice.map((layer) => layer.id)).size).toBe(4);
    near(state(done(duplicateLayer(project, at, 5, 1, () => 'copy')), 'copy', 25), state(project, 'boat', 20));
  });

  test('deleting closes the gap when asked to, and lets go of what followed', () => {
    const three = projectOf([
      layerOf('a', colourSource([0, 0, 0]), { span: { start: 0, length: 10 } }),
      layerOf('b', colourSource([0, 0, 0]), {
        span: { start: 10, length: 20 },
        parent: { layer: 'a' as LayerId, rotation: true, scale: true },
      }),
      layerOf('c', colourSource([0, 0, 0]), { span: { start: 5, length: 9 } }),
    ]);
    const starts = (closing: boolean) =>
      done(removeLayers(three, SHOT, ['a' as LayerId], closing), three).shots[0]!.layers.map(
        (layer) => layer.span.start,
      );
    expect(starts(false)).toEqual([10, 5]);
    expect(starts(true)).toEqual([0, 5]);
    expect(done(removeLayers(three, SHOT, ['a' as LayerId]), three).shots[0]!.layers[0]!.parent).toBeNull();
  });

  test('pasted layers keep their distances, the first beginning at the playhead', () => {
    const layers = [
      layerOf('x', colourSource([0, 0, 0]), { span: { start: 8, length: 4 } }),
      layerOf('y', colourSource([0, 0, 0]), { span: { start: 3, length: 4 } }),
    ];
    expect(
      done(pasteLayers(SHOT, layers, 30, fresh))
        .shots[0]!.layers.slice(0, 2)
        .map((layer) => layer.span.start),
    ).toEqual([35, 30]);
  });

  test('relations in time: start with, end with, after, before, fill, from here', () => {
    const spanAfter = (relation: Parameters<typeof relateLayer>[2]) => {
      const base = projectOf([
        layerOf('boat', colourSource([0, 0, 0]), { span: { start: 3, length: 10 } }),
        layerOf('deck', colourSource([0, 0, 0]), { span: { start: 20, length: 15 } }),
      ]);
      const { start, length } = layerOfProject(done(relateLayer(base, at, relation), base)).span;
      return [start, length];
    };
    const other = 'deck' as LayerId;
    expect(spanAfter({ kind: 'start-with', other })).toEqual([20, 10]);
    expect(spanAfter({ kind: 'end-with', other })).toEqual([25, 10]);
    expect(spanAfter({ kind: 'after', other })).toEqual([35, 10]);
    expect(spanAfter({ kind: 'before', other })).toEqual([10, 10]);
    expect(spanAfter({ kind: 'fill' })).toEqual([0, 48]);
    expect(spanAfter({ kind: 'from-here', frames: 36 })).toEqual([12, 36]);
  });
});

describe('speed', () => {
  const plain = projectOf([layerOf('boat', stockSource('plate' as never), { span: { start: 0, length: 40 } })]);

  test('a changed speed fits the length to the same source; a target length gives the speed', () => {
    expect(layerOfProject(done(setSpeed(plain, at, still(2), true), plain)).span.length).toBe(20);
    expect(layerOfProject(done(setSpeed(plain, at, still(2), false), plain)).span.length).toBe(40);
    const { span, time } = layerOfProject(done(setTargetLength(plain, at, 80), plain));
    expect([span.length, time.speed]).toEqual([80, { still: 0.5 }]);
  });

  test('reversed, frame for frame, it shows what it showed, backwards; twice is as before', () => {
    const back = done(reverseLayer(project, at));
    for (let f = 0; f < 48; f++) expect(state(back, 'boat', f)[2]).toBeCloseTo(state(project, 'boat', 47 - f)[2]!, 3);
    const again = done(reverseLayer(back, at), back);
    for (let f = 0; f < 48; f += 5) expect(state(again, 'boat', f)[2]).toBeCloseTo(state(project, 'boat', f)[2]!, 3);
  });

  test('frozen from here it stands still, and before that nothing changed', () => {
    for (const base of [plain, project]) {
      const frozen = done(freezeHere(base, at), base);
      for (const f of [0, 5, 10]) expect(state(frozen, 'boat', f)[2]).toBeCloseTo(state(base, 'boat', f)[2]!, 6);
      expect(state(frozen, 'boat', 30)[2]).toBe(state(frozen, 'boat', 12)[2]);
    }
  });
});

describe('keyframes', () => {
  const refs = [4, 20].map((frame) => ({ layer: 'boat' as LayerId, path: 'place.position', at: frame }));
  const position = (result: Project) => layerOfProject(result).place.position;

  test('the peg adds one that changes nothing and takes it away again; the last one leaves a still value', () => {
    const pegged = done(togglePeg(project, at, 'place.position'));
    expect(frames(position(pegged))).toEqual([4, 12, 20, 44]);
    expect(valueOn(position(pegged), 12)).toEqual(valueOn(keyed, 12));
    expect(frames(position(done(togglePeg(pegged, at, 'place.position'), pegged)))).toEqual([4, 20, 44]);
    const once = done(togglePeg(project, at, 'opacity'));
    expect(layerOfProject(done(togglePeg(once, at, 'opacity'), once)).opacity).toEqual({ still: 1 });
  });

  test('a changed value at a frame sets one there when keyed, else changes as a whole; jitter stays', () => {
    expect(valueOn(position(done(setPlace(project, at, { position: [5, 6] }))), 12)).toEqual([5, 6]);
    const shaken = done(
      setJitter(project, at, 'opacity', { type: 'jitter', amount: 0.1, every: 2, smooth: 0, seed: 3 }),
    );
    expect(layerOfProject(done(setValues(at, { opacity: 0.5 }, 'x'), shaken)).opacity).toEqual({
      still: 0.5,
      drivers: [{ type: 'jitter', ...{ amount: 0.1, every: 2, smooth: 0, seed: 3 } }],
    });
    const blur = newPass('blur' as PassId, 'blur');
    const added = done(addPass(at, blur));
    const two = done(
      setPassValue(done(togglePeg(added, at, 'pass.blur.radius'), added), { ...at, frame: 30 }, blur.id, 'radius', 2),
      done(togglePeg(added, at, 'pass.blur.radius'), added),
    );
    expect(frames(layerOfProject(two).passes[0]!.values['radius'] as Value<number>)).toEqual([12, 30]);
  });

  test('moved onto others they take their place; outside the layer they are kept', () => {
    expect(frames(position(done(moveKeys(SHOT, refs, 24))))).toEqual([28, 44]);
    expect(valueOn(position(done(moveKeys(SHOT, refs, 24))), 44)).toEqual([32, -16]);
    expect(frames(position(done(moveKeys(SHOT, refs, -1000))))).toEqual([-996, -980, 44]);
  });

  test('stretched about a frame, scaled, eased, deleted', () => {
    expect(frames(position(done(stretchKeys(SHOT, refs, 0.5, 4))))).toEqual([4, 12, 44]);
    expect(valueOn(position(done(scaleKeys(SHOT, refs, 2, 1))), 20)).toEqual([65, -31]);
    const eased = position(done(easeKeys(SHOT, refs, 'hold')));
    expect(valueOn(eased, 19)).toEqual([0, 0]);
    expect(frames(position(done(removeKeys(SHOT, refs))))).toEqual([44]);
    expect(position(done(makeStill(project, at, 'place.position')))).toEqual({ still: valueOn(keyed, 12) });
  });

  test('pasted reversed they run backwards through the same values', () => {
    const all = [4, 20].map((frame) => ({ layer: 'boat' as LayerId, path: 'place.position', at: frame }));
    const clip = copyKeys(project, SHOT, all);
    const base = done(makeStill(project, at, 'place.position'));
    const pasted = position(done(pasteKeys({ ...at, frame: 30 }, clip, true), base));
    for (let f = 0; f <= 16; f++) expect(valueOn(pasted, 30 + f)[0]).toBeCloseTo(valueOn(keyed, 20 - f)[0], 6);
  });

  test('reversing twice gives the same keyframes, cubic handles included', () => {
    const cubic = fc.tuple(
      ...[0, 1, 2, 3].map(() => fc.double({ min: 0, max: 1, noNaN: true })),
    ) as unknown as fc.Arbitrary<[number, number, number, number]>;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.double({ min: -5, max: 5, noNaN: true }), cubic), {
          minLength: 2,
          maxLength: 6,
        }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (list, share) => {
          let frame = 0;
          const keys: Key<number>[] = list.map(([gap, value, handles]) => ({
            at: (frame += gap),
            value,
            ease: { cubic: handles },
          }));
          const [first, last] = [keys[0]!.at, keys.at(-1)!.at];
          const back = reversedKeys(keys, last) as Key<number>[];
          const t = share * (last - first);
          expect(valueOn({ keys: back }, t)).toBeCloseTo(valueOn({ keys }, last - t), 5);
        },
      ),
    );
  });

  test('every one of these edits is undone exactly', () => {
    const edits = [
      togglePeg(project, at, 'opacity'),
      moveKeys(SHOT, refs, 9),
      stretchKeys(SHOT, refs, 3, 0),
      removeKeys(SHOT, refs),
      splitLayer(project, at, fresh),
      reverseLayer(project, at),
      freezeHere(project, at),
      relateLayer(project, at, { kind: 'from-here', frames: 7 }),
      setRange(SHOT, { from: 3, to: 9 }),
      toggleMarker(project, SHOT, { at: 5, name: 'x', colour: 'moss' }),
    ];
    for (const edit of edits) {
      const result = perform(project, edit)!;
      expect(undoStep(result.project, { id: 1, name: edit.name, scope: 'project', changes: result.changes })).toEqual(
        project,
      );
      expect(() => projectSchema.parse(result.project)).not.toThrow();
    }
  });
});

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

describe('markers and range', () => {
  test('markers stay in order, one at a frame; the range stays within the shot', () => {
    let result = project;
    for (const frame of [20, 5, 12])
      result = done(toggleMarker(result, SHOT, { at: frame, name: `m${frame}`, colour: 'sand' }), result);
    expect(result.shots[0]!.markers.map((marker) => marker.at)).toEqual([5, 12, 20]);
    expect(done(changeMarker(SHOT, 5, { at: 20 }), result).shots[0]!.markers.map((marker) => marker.name)).toEqual([
      'm12',
      'm5',
    ]);
    expect(
      done(toggleMarker(result, SHOT, { at: 12, name: '', colour: 'sand' }), result).shots[0]!.markers,
    ).toHaveLength(2);
    expect(rangeOf(done(setRange(SHOT, { from: -5, to: 900 }), project).shots[0]!)).toEqual({ from: 0, to: 48 });
    expect(rangeOf(done(setRange(SHOT, { from: 30, to: 10 }), project).shots[0]!)).toEqual({ from: 30, to: 31 });
  });
});

describe('lengths, rates and names', () => {
  const clip = () =>
    projectOf([layerOf('boat', stockSource('plate' as never), { span: { start: 0, length: 96 } })], {
      rate: { num: 24, den: 1 },
    });
  test('on a ramp the length stays; with a still speed it follows, there and back', () => {
    const base = clip();
    const ramp: Value<number> = {
      keys: [
        { at: 0, value: 1, ease: 'linear' },
        { at: 95, value: 3, ease: 'linear' },
      ],
    };
    expect(layerOfProject(done(setSpeed(base, at, ramp, true), base)).span.length).toBe(96);
    const fast = done(setSpeed(base, at, still(3), true), base);
    expect(layerOfProject(fast).span.length).toBe(32);
    expect(layerOfProject(done(setSpeed(fast, at, still(1), true), fast)).span.length).toBe(96);
    // asked for, a ramp is as long as its clip lasts: 1 + 2 f / 95 summed to 96 source frames
    const ramped = done(setSpeed(base, at, ramp, true), base);
    const { length } = layerOfProject(done(fitLength(ramped, at, 96), ramped)).span;
    const passed = (frames: number) => frames + (frames * frames) / 95;
    expect(passed(length)).toBeGreaterThanOrEqual(96);
    expect(passed(length - 1)).toBeLessThan(96);
  });

  test.each([
    [10, 2.4, 50],
    [60, 0.4, 300],
    [25, 0.96, 125],
  ])('conformed, a clip of %d frames a second runs at %d and shows each of its frames once', (rate, speed, length) => {
    const base = clip();
    const result = done(conformLayer(base, at, { num: rate, den: 1 }, 5), base);
    const layer = layerOfProject(result);
    expect(layer.time.speed).toEqual({ still: expect.closeTo(speed, 9) });
    expect(layer.span.length).toBe(length);
    for (let frame = 0; frame < length; frame++)
      expect(Math.floor(sourceSeconds(result.shots[0]!, layer, frame) * rate + 1e-6)).toBe(frame);
  });

  test('a shot made like its clip is filled by it, frame by frame', () => {
    const base = clip();
    const result = done(
      followClip(SHOT, at.layer, { width: 768, height: 576, rate: { num: 10, den: 1 }, length: 795 }),
      base,
    );
    expect(result.shots[0]).toMatchObject({ width: 768, length: 795, rate: { num: 10 } });
    expect(layerOfProject(result).span).toEqual({ start: 0, length: 795 });
  });

  test('copies get names of their own', () => {
    let result = project;
    for (let i = 0; i < 3; i++) result = done(duplicateLayer(result, at, 0, 1, fresh), result);
    result = done(pasteLayers(SHOT, [layerOfProject(result)], 5, fresh), result);
    result = done(splitLayer(result, { ...at, frame: 20 }, fresh), result);
    const names = result.shots[0]!.layers.map((layer) => layer.name);
    expect(new Set(names).size).toBe(names.length);
    expect(freeName('take 2', [{ name: 'take 2' }, { name: 'take 3' }])).toBe('take 4');
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
