import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Value } from '../../base/value';
import { momentOf } from '../../place/moment';
import { at, done, layerOfProject, project } from '../../testing/boat';
import { plainFor, valueAt } from '../../time/values';
import { projectSchema, type Project } from '../schema';
import { fadesOf, setFade, type Fades } from './ends';
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
