import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Value } from '../../base/value';
import { momentOf } from '../../place/moment';
import { at, done, layerOfProject, project } from '../../testing/boat';
import { plainFor, valueAt } from '../../time/values';
import { projectSchema, type Project } from '../schema';
import { planFrame } from '../../plan/plan';
import { fadesOf, halfWay, setFade, setTransition, setTransitionValue, type Fades } from './ends';
import { splitLayer, trimEnd } from './time';

let count = 0;
const fresh = () => `fresh-${++count}`;
const opacityAt = (of: Project, frame: number, layer = layerOfProject(of, 'boat')): number =>
  valueAt(layer.opacity, momentOf(of, of.shots[0]!, layer, frame));

const faded = (of: Project, fades: Partial<Fades>): Project =>
  (['in', 'out'] as const).reduce(
    (now, end) => (fades[end] === undefined ? now : done(setFade(now, at, end, fades[end]), now)),
    of,
  );

describe('fades', () => {
  const { start, length } = layerOfProject(project, 'boat').span;
  const rising = faded(project, { in: 10 });

  test('nothing is there on the first frame, half at the middle, and all after it', () => {
    expect([0, 5, 10, 11].map((frame) => opacityAt(rising, start + frame))).toEqual([0, 0.5, 1, 1]);
    const out = faded(rising, { out: 4 });
    expect([4, 3, 2, 1, 0].map((back) => opacityAt(out, start + length - 1 - back))).toEqual([1, 0.75, 0.5, 0.25, 0]);
    expect(fadesOf(layerOfProject(out, 'boat'))).toEqual({ in: 10, out: 4 });
    expect(projectSchema.safeParse(out).success).toBe(true);
  });
  test('sound fades as the picture does', () => {
    const layer = layerOfProject(rising, 'boat');
    const level = (frame: number) =>
      valueAt(layer.sound.gain, momentOf(rising, rising.shots[0]!, layer, start + frame));
    expect([level(0), level(5), level(20)]).toEqual([0, 0.5, 1]);
  });
  test('a fade keeps to its end when that is trimmed, and goes away as a whole', () => {
    const out = faded(project, { out: 6 });
    const shorter = done(trimEnd(out, at, start + 20), out);
    expect(opacityAt(shorter, start + 19)).toBe(0);
    expect(opacityAt(shorter, start + 13)).toBe(1);
    expect(layerOfProject(faded(out, { out: 0 }), 'boat')).toEqual(layerOfProject(project, 'boat'));
  });
  test('two halves of a layer fade where it did, and not at the cut', () => {
    const both = faded(project, { in: 8, out: 8 });
    const cut = start + 20;
    const halves = done(splitLayer(both, { ...at, frame: cut }, fresh), both);
    for (let frame = start; frame < start + length; frame++) {
      const half = halves.shots[0]!.layers.find(
        ({ name, span }) => name.startsWith('boat') && frame >= span.start && frame < span.start + span.length,
      )!;
      expect(opacityAt(halves, frame, half)).toBeCloseTo(opacityAt(both, frame), 9);
    }
  });
  test('the ends never meet, and what a handle writes is what is seen', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 500 }), fc.nat(length - 1), (a, b, f) => {
        const of = faded(project, { in: a, out: b });
        const layer = layerOfProject(of, 'boat');
        const fades = fadesOf(layer);
        expect(fades.in + fades.out).toBeLessThan(length);
        const moment = momentOf(of, of.shots[0]!, layer, start + f);
        const seen = (still: number): number => valueAt({ ...layer.opacity, still } as Value<number>, moment);
        if (seen(1) > 0.01) expect(seen(plainFor(layer.opacity, 0.4, moment))).toBeCloseTo(0.4, 9);
      }),
    );
  });
});

describe('transitions', () => {
  const { start, length } = layerOfProject(project, 'boat').span;
  const wiped = done(setTransition(project, at, 'in', 'wipe', 10), project);
  const steps = (of: Project, frame: number) => {
    const plan = planFrame(of, at.shot, frame).layers.find(({ id }) => id === 'boat');
    return (plan?.after ?? []).map(({ type, values }) => [type, values['shown'], values['leaving']]);
  };

  test('a transition takes the place of the picture’s fade; the sound fades all the same, and as long', () => {
    expect(projectSchema.parse(JSON.parse(JSON.stringify(wiped)))).toEqual(wiped);
    expect(opacityAt(wiped, start)).toBe(1);
    const layer = layerOfProject(wiped, 'boat');
    expect(valueAt(layer.sound.gain, momentOf(wiped, wiped.shots[0]!, layer, start + 5))).toBe(0.5);
    expect(fadesOf(layer)).toEqual({ in: 10, out: 0 });
    // dragged, it is as long as the fold
    const longer = faded(wiped, { in: 16 });
    expect(fadesOf(layerOfProject(longer, 'boat')).in).toBe(16);
    expect(layerOfProject(longer, 'boat').ends.start?.type).toBe('wipe');
  });

  test('it is the last step of the picture while it is under way, at its own pace, and none afterwards', () => {
    const even = done(setTransitionValue(wiped, at, 'in', 'ease', 'even'), wiped);
    expect(steps(even, start)).toEqual([['transition wipe', 0, false]]);
    expect(steps(even, start + 5)).toEqual([['transition wipe', 0.5, false]]);
    expect(steps(wiped, start + 2)[0]![1]).toBeCloseTo(0.2 ** 2 * (3 - 0.4), 9);
    expect(steps(even, start + 10)).toEqual([]);
    const both = done(setTransition(even, at, 'out', 'iris', 4), even);
    expect(steps(both, start + length - 1)).toEqual([['transition iris', 0, true]]);
    expect(steps(both, start + length - 3)[0]![1]).toBeCloseTo(0.5, 9);
  });

  test('it goes with its length, back to a fade, and stays at its own end of a layer that is cut', () => {
    expect(layerOfProject(faded(wiped, { in: 0 }), 'boat')).toEqual(layerOfProject(project, 'boat'));
    const plain = done(setTransition(wiped, at, 'in', null, 5), wiped);
    expect(layerOfProject(plain, 'boat')).toEqual(layerOfProject(faded(project, { in: 10 }), 'boat'));
    const both = done(setTransition(wiped, at, 'out', 'iris', 4), wiped);
    const halves = done(splitLayer(both, { ...at, frame: start + 20 }, fresh), both);
    const ends = halves.shots[0]!.layers.filter(({ name }) => name.startsWith('boat')).map((layer) => layer.ends);
    expect(ends.map(({ start: first, end }) => [first?.type, end?.type])).toEqual([
      [undefined, 'iris'],
      ['wipe', undefined],
    ]);
  });

  test('seen before it is chosen, it is half way at the playhead', () => {
    const layer = layerOfProject(project, 'boat');
    for (const frame of [7, 0]) {
      const seen = halfWay(layer, 'slide', frame);
      const shot = { ...project.shots[0]!, layers: [seen] };
      const step = steps({ ...project, shots: [shot] }, start + frame)[0]!;
      expect(step[1]).toBeCloseTo(0.5, 1);
      expect(step[2]).toBe(frame === 0);
    }
  });
});
