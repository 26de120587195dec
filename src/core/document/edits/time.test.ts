import { stockSource } from '../../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sourceSeconds } from '../../plan/sources';

import { valueOn, SHOT, colourSource, layerOf, projectOf } from '../../testing/documents';
import { perform, undoStep } from '../edit';

import { type Layer, type LayerId, type PassId, type Project, projectSchema } from '../schema';
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

import { setPlace } from './layers';
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
import { at, done, keyed, layerOfProject, project, state } from '../../testing/boat';

let count = 0;
const fresh = () => `fresh-${++count}`;
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
