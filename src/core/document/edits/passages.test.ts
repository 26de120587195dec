import { describe, expect, test } from '@jest/globals';
import { planFrame } from '../../plan/plan';
import { colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type Layer, type LayerId } from '../schema';
import { arrange } from './arrangements';
import { fadesOf } from './ends';
import { BETWEEN } from './passages';

const of = (name: string, start: number, length: number): Layer =>
  layerOf(name, colourSource([1, 0, 0], 640, 360), { span: { start, length } });
function gone(way: string, layers: readonly Layer[]) {
  const base = projectOf([...layers], { width: 640, height: 360, length: 100, rate: { num: 24, den: 1 } });
  const ids = layers.map(({ id }) => id) as LayerId[];
  const edit = arrange(
    base,
    SHOT,
    ids,
    BETWEEN.find(({ name }) => name === way)!,
    () => 'new',
  );
  const { project } = perform(base, edit)!;
  expect(projectSchema.parse(JSON.parse(JSON.stringify(project)))).toEqual(project);
  const [shot] = project.shots;
  const layer = (name: string) => shot!.layers.find((one) => one.name === name)!;
  /** What a layer's start and end have come to at a frame: 1 where nothing is under way. */
  const shown = (name: string, frame: number): number => {
    const plan = planFrame(project, SHOT, frame).layers.find((one) => one.name === name);
    const steps = (plan?.after ?? []).map(({ values }) => values['shown']).filter((v) => typeof v === 'number');
    return plan ? ([...steps, 1][0] as number) * plan.opacity : 0;
  };
  return { layer, shown };
}

describe('from one layer to the next', () => {
  test('layers that meet come to overlap about the cut for three quarters of a second', () => {
    const { layer } = gone('cross-fade', [of('b', 50, 50), of('a', 0, 50)]);
    expect(layer('a').span).toEqual({ start: 0, length: 59 });
    expect(layer('b').span).toEqual({ start: 41, length: 59 });
  });

  test('a cross fade is of the upper one, whichever that is; the other stays whole below it', () => {
    const later = gone('cross-fade', [of('b', 50, 50), of('a', 0, 50)]);
    expect([fadesOf(later.layer('b')), fadesOf(later.layer('a'))]).toEqual([
      { in: 17, out: 0 },
      { in: 0, out: 0 },
    ]);
    expect([later.shown('b', 41), later.shown('b', 58), later.shown('a', 50)]).toEqual([0, 1, 1]);
    const earlier = gone('cross-fade', [of('a', 0, 50), of('b', 50, 50)]);
    expect([earlier.shown('a', 41), earlier.shown('a', 58), earlier.shown('b', 50)]).toEqual([1, 0, 1]);
  });

  test('what is pushed out leaves as much of the shot as what pushes it has taken, on every frame', () => {
    const { shown, layer } = gone('push', [of('a', 0, 50), of('b', 50, 50)]);
    for (let frame = 41; frame < 59; frame++) expect(shown('a', frame) + shown('b', frame)).toBeCloseTo(1, 9);
    const sides = [layer('a').ends.end!, layer('b').ends.start!].map(({ values }) => values['side']);
    expect(sides).toEqual([{ still: 'left' }, { still: 'right' }]);
  });

  test('through a colour both meet at the cut', () => {
    const { layer } = gone('dip-over', [of('b', 44, 50), of('a', 0, 50)]);
    expect([layer('a').span.length, layer('b').span.start]).toEqual([47, 47]);
  });

  test('an overlap that is there is kept', () => {
    const { layer } = gone('push', [of('b', 30, 70), of('a', 0, 50)]);
    expect([layer('a').span, layer('b').span]).toEqual([
      { start: 0, length: 50 },
      { start: 30, length: 70 },
    ]);
    expect(fadesOf(layer('b')).in).toBe(19);
  });

  test('layers far apart, and one within the other’s time, are refused by their names', () => {
    expect(() => gone('push', [of('b', 90, 10), of('a', 0, 20)])).toThrow('a and b are 70 frames apart.');
    expect(() => gone('push', [of('b', 10, 10), of('a', 0, 50)])).toThrow('b ends before a does.');
  });
});
