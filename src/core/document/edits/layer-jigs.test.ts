import { describe, expect, test } from '@jest/globals';
import { still } from '../../base/value';
import { readDialledJig, writeDialledJig } from '../../formats/jig';
import { boxOf } from '../../place/boxes';
import { clipStock, colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type Layer, type LayerId, type Project, type StockId } from '../schema';
import { stockSource } from './layers';
import { addJig, removeJig } from './jigs';
import { holderOfDial, possibleDials, usualDials, withJigValue } from './jig-dials';
import { layerJigOf, layerJigs, putLayerJig, shotOfJig } from './layer-jigs';
import { addReadyMade, READY_MADE } from './ready-made';

let count = 0;
const fresh = () => `fresh-${++count}`;
const ids = (layers: readonly Layer[]): LayerId[] => layers.map(({ id }) => id);
const lowerThird = (): Project => {
  const base = projectOf([], { width: 1280, height: 720, length: 120 });
  const made = READY_MADE.find(({ name }) => name === 'lower-third')!;
  return perform(base, addReadyMade(base, SHOT, made, fresh))!.project;
};

describe('a jig of layers', () => {
  test('goes through a file and stands in a shot of another size at the same share of it, with the ties among its layers', () => {
    const from = lowerThird();
    const [shot] = from.shots;
    const jig = layerJigOf(from, SHOT, ids(shot!.layers), 'keeper', 'jig-1');
    const read = readDialledJig(writeDialledJig(jig), 'keeper.jig.json', 'jig-2');
    const other = projectOf([], { width: 1920, height: 1080, length: 200 });
    const kept = perform(other, addJig(read))!.project;
    expect(projectSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
    const put = perform(kept, putLayerJig(kept, SHOT, 30, layerJigs(kept)[0]!, fresh))!.project;
    expect(projectSchema.parse(JSON.parse(JSON.stringify(put)))).toEqual(put);
    const layers = put.shots[0]!.layers;
    expect(layers).toHaveLength(shot!.layers.length);
    expect(ids(layers).some((id) => ids(shot!.layers).includes(id))).toBe(false);
    const bar = layers.find(({ name }) => name === 'bar')!;
    expect(layers.find(({ source }) => source.type === 'title')!.parent?.layer).toBe(bar.id);
    const was = boxOf(
      from,
      shot!,
      shot!.layers.find(({ name }) => name === 'bar')!,
      60,
    )!;
    const now = boxOf(put, put.shots[0]!, bar, 90)!;
    for (const side of ['left', 'right', 'top', 'bottom'] as const) expect(now[side]).toBeCloseTo(was[side] * 1.5, 3);
    expect(Math.min(...layers.map(({ span }) => span.start))).toBe(30);
  });

  test('is tied to nothing outside of it', () => {
    const a = layerOf('a', colourSource([1, 0, 0]));
    const b = layerOf('b', colourSource([0, 1, 0]), {
      parent: { layer: a.id, rotation: true, scale: true },
      matte: { layer: a.id, by: 'alpha', invert: false },
    });
    const [alone] = layerJigOf(projectOf([b, a]), SHOT, [b.id], 'b', 'jig-1').layers;
    expect([alone!.parent, alone!.matte]).toEqual([null, null]);
    const both = layerJigOf(projectOf([b, a]), SHOT, [a.id, b.id], 'b', 'jig-1').layers;
    expect(both[0]!.matte?.layer).toBe(a.id);
  });

  test('holds no footage and no group, by name', () => {
    const base = { ...projectOf(), stock: [clipStock('kite-clip')] };
    const shown = layerOf('kite', stockSource('kite-clip' as StockId));
    const project = { ...base, shots: [{ ...base.shots[0]!, layers: [shown] }] };
    expect(() => layerJigOf(project, SHOT, [shown.id], 'kite', 'jig-1')).toThrow('kite needs kite-clip');
    expect(() => layerJigOf(project, SHOT, [], 'kite', 'jig-1')).toThrow('No layer is chosen');
  });

  test('makes a moving place larger too, with its path', () => {
    const moving = layerOf('a', colourSource([1, 0, 0]), {});
    moving.place.position = {
      keys: [
        { at: 0, value: [10, 20], ease: 'linear', bend: { in: [0, 0], out: [4, -6] } },
        { at: 10, value: [30, 0], ease: 'linear' },
      ],
    };
    moving.place.scale = still([0.5, 0.5]);
    const base = projectOf([moving]);
    const jig = layerJigOf(base, SHOT, [moving.id], 'a', 'jig-1');
    const twice = { ...jig, height: jig.height / 2 };
    const { place } = perform(base, putLayerJig(base, SHOT, 0, twice, fresh))!.project.shots[0]!.layers[0]!;
    expect(place.position).toEqual({
      keys: [
        { at: 0, value: [20, 40], ease: 'linear', bend: { in: [0, 0], out: [8, -12] } },
        { at: 10, value: [60, 0], ease: 'linear' },
      ],
    });
    expect(place.scale).toEqual(still([1, 1]));
  });
});

test('a file with something else says so', () => {
  expect(() => readDialledJig('{"jig":1,"name":"x","layers":[]}', 'x.jig.json', 'j')).toThrow(
    '“x.jig.json” is not a jig',
  );
  expect(() => readDialledJig('nothing', 'x.jig.json', 'j')).toThrow('it is not JSON');
});

test('a jig goes by its name; what only looks like one does not open', () => {
  const base = projectOf([layerOf('a', colourSource([1, 0, 0]))]);
  const kept = perform(base, addJig(layerJigOf(base, SHOT, ['a' as LayerId], 'card', 'jig-1')))!.project;
  expect(removeJig(kept, 'jig-1').name).toBe('Delete jig card');
  expect(perform(kept, removeJig(kept, 'jig-1'))!.project.jigs).toEqual([]);
  expect(projectSchema.safeParse({ ...base, jigs: [{ id: 'x', kind: 'layers', layers: 'none' }] }).success).toBe(false);
});

test('a jig has dials for its texts and colours until others are chosen; what is turned is what is put in', () => {
  const from = lowerThird();
  const jig = layerJigOf(from, SHOT, ids(from.shots[0]!.layers), 'keeper', 'jig-1');
  const title = jig.layers.find(({ source }) => source.type === 'title')!;
  const bar = jig.layers.find(({ source }) => source.type === 'shape')!;
  expect(usualDials(jig)).toEqual([
    { layer: title.id, value: 'text' },
    { layer: title.id, value: 'colour' },
    { layer: bar.id, value: 'colour' },
  ]);
  // what has no effect, or moves, has no dial
  const possible = possibleDials(jig).map((dial) => `${holderOfDial(dial)} ${dial.value}`);
  expect(possible).toContain(`${bar.id} radius`);
  expect(possible).not.toContain(`${bar.id} corners`);
  expect(possible).not.toContain(`${title.id} from`);
  const turned = withJigValue(jig, title.id, 'text', 'Reed');
  const seen = shotOfJig(from, from.shots[0]!, turned, fresh).shots.find(({ id }) => id === SHOT)!;
  expect(seen.layers.map(({ source }) => source.values['text'])).toEqual([still('Reed'), undefined]);
  const kept = { ...jig, dials: [{ layer: bar.id, value: 'radius' }] };
  expect(readDialledJig(writeDialledJig(kept), 'keeper.jig.json', 'jig-1').dials).toEqual(kept.dials);
});
