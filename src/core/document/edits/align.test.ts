import { describe, expect, test } from '@jest/globals';
import { still } from '../../base/value';
import { boxOf } from '../../place/boxes';
import { wholePlace } from '../../place/place';
import { colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import type { LayerId, Project } from '../schema';
import { ALIGNMENTS, alignLayers, spreadLayers } from './align';
import { newSource } from './layers';

const card = (id: string, x: number, y: number, change: Partial<ReturnType<typeof wholePlace>> = {}, w = 10, h = 6) =>
  layerOf(id, colourSource([1, 0, 0], w, h), {
    place: { ...wholePlace(), position: still([x, y] as [number, number]), ...change },
  });
const base = projectOf([
  card('a', -20, -8),
  card('b', 3, 5, { scale: still([2, 1] as [number, number]) }),
  card('c', 9, -3, { rotation: still(90) }),
  { ...card('d', 4, 0), parent: { layer: 'a' as LayerId, rotation: true, scale: true } },
]);
const ids = (...names: string[]) => names as LayerId[];
const chosen = (...names: string[]) => ({ shot: SHOT, layers: ids(...names), frame: 0 });
const box = (project: Project, id: string) => {
  const [shot] = project.shots;
  return boxOf(
    project,
    shot!,
    shot!.layers.find((layer) => layer.id === id)!,
    0,
  )!;
};
const done = (edit: ReturnType<typeof alignLayers>) => perform(base, edit)!.project;

test('a box is what a layer takes, scaled and turned; a shape is as large as it is drawn', () => {
  expect(box(base, 'b')).toEqual({ left: -7, right: 13, top: 2, bottom: 8 });
  const turned = box(base, 'c');
  expect([turned.left, turned.right, turned.top, turned.bottom].map(Math.round)).toEqual([6, 12, -8, 2]);
  const drawn = projectOf([layerOf('s', newSource('shape', { width: 20, height: 8, size: [64, 36] }))]);
  expect(box(drawn, 's')).toEqual({ left: -10, right: 10, top: -4, bottom: 4 });
});

describe('layers in line', () => {
  test.each(ALIGNMENTS.map(({ name }) => name))('%s: each lies there, and nothing else of its place changes', (way) => {
    const after = done(alignLayers(base, chosen('a', 'b', 'c'), way));
    const boxes = ['a', 'b', 'c'].map((id) => box(after, id));
    const at = ({ left, right, top, bottom }: (typeof boxes)[number]) =>
      ({ left, right, top, bottom, centre: (left + right) / 2, middle: (top + bottom) / 2 })[way];
    for (const own of boxes) expect(at(own)).toBeCloseTo(at(boxes[0]!), 2);
    const other = ['left', 'centre', 'right'].includes(way) ? 'top' : 'left';
    ['a', 'b', 'c'].forEach((id, i) => expect(boxes[i]![other]).toBeCloseTo(box(base, id)[other], 6));
  });

  test('one by itself goes to the shot; one that follows another ends where it should all the same', () => {
    // the shot is 64×36
    expect(box(done(alignLayers(base, chosen('b'), 'right')), 'b').right).toBeCloseTo(32, 2);
    expect(box(done(alignLayers(base, chosen('d'), 'bottom')), 'd').bottom).toBeCloseTo(18, 2);
  });

  test('spread, the gaps are equal and the outer ones stay', () => {
    const after = done(spreadLayers(base, chosen('a', 'b', 'c'), 'sideways'));
    const [a, b, c] = ['a', 'b', 'c'].map((id) => box(after, id)) as [
      ReturnType<typeof box>,
      ReturnType<typeof box>,
      ReturnType<typeof box>,
    ];
    expect(a).toEqual(box(base, 'a'));
    // by their middles: a, b, c
    expect(b.left - a.right).toBeCloseTo(c.left - b.right, 1);
    expect(c.right).toBeCloseTo(box(base, 'c').right, 2);
  });
});
