import { describe, expect, test } from '@jest/globals';
import { planFrame } from '../../plan/plan';
import { colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type Layer, type LayerId, type PassId } from '../schema';
import { ARRANGEMENTS, arrange } from './arrangements';
import { newSource } from './layers';
import { addPass, newPass } from './passes';

let count = 0;
const fresh = () => `fresh-${++count}`;
const [WIDTH, HEIGHT] = [1280, 720];

function shotWith(names: readonly string[], change: Partial<Layer> = {}) {
  const layers = names.map((name) => layerOf(name, colourSource([0, 1, 0], WIDTH, HEIGHT), change));
  return projectOf(layers, { width: WIDTH, height: HEIGHT });
}
function arranged(name: string, chosen: readonly string[], base = shotWith(['c', 'b', 'a'])) {
  const arrangement = ARRANGEMENTS.find((one) => one.name === name)!;
  const { project } = perform(base, arrange(base, SHOT, chosen as readonly LayerId[], arrangement, fresh))!;
  expect(projectSchema.parse(JSON.parse(JSON.stringify(project)))).toEqual(project);
  expect(planFrame(project, SHOT, 0).layers.length).toBeGreaterThan(0);
  return project.shots[0]!;
}
const still = (layer: Layer, type: string, value: string) => {
  const found = layer.passes.find((pass) => pass.type === type)!.values[value]!;
  return 'still' in found ? found.still : undefined;
};

describe('a title behind someone', () => {
  test('stands between a layer and a copy of it that waits for its screen and is not heard twice', () => {
    const { layers } = arranged('behind', ['b']);
    expect(layers.map(({ name }) => name)).toEqual(['c', 'b 2', 'title', 'b', 'a']);
    const [, copy, title, below] = layers;
    expect(copy!.passes.map(({ type }) => type)).toEqual(['colour-key']);
    expect([copy!.sound.muted, below!.sound.muted]).toEqual([true, false]);
    expect(title!.span).toEqual(below!.span);
    expect(below!.passes).toEqual([]);
  });

  test('stands right below one that is cut out already', () => {
    const base = shotWith(['c', 'b', 'a']);
    const at = { shot: SHOT, layer: 'b' as LayerId };
    const cut = perform(base, addPass(at, newPass('key' as PassId, 'brightness-key')))!.project;
    expect(arranged('behind', ['b'], cut).layers.map(({ name }) => name)).toEqual(['c', 'b', 'title', 'a']);
  });
});

describe('split among layers', () => {
  test('two have a half each, with the same line at the edges and between them', () => {
    const [first, second] = arranged('split', ['c', 'b']).layers;
    const half = (WIDTH - 3 * 6) / 2;
    for (const layer of [first!, second!]) {
      expect(still(layer, 'pane', 'width')).toBeCloseTo(half);
      expect(still(layer, 'pane', 'height')).toBe(HEIGHT - 2 * 6);
    }
    const [left, right] = [first!, second!].map((layer) => (still(layer, 'pane', 'centre') as number[])[0]!);
    expect(left! - half / 2).toBeCloseTo(-WIDTH / 2 + 6);
    expect(right! - half / 2 - (left! + half / 2)).toBeCloseTo(6);
  });

  test('four fill the quarters in the order of the stack', () => {
    const base = shotWith(['d', 'c', 'b', 'a']);
    const corners = arranged('split', ['a', 'b', 'c', 'd'], base).layers.map(({ place }) =>
      'still' in place.position ? place.position.still.map(Math.sign) : [],
    );
    expect(corners).toEqual([
      [-1, -1],
      [1, -1],
      [-1, 1],
      [1, 1],
    ]);
  });

  test('needs two to four', () => {
    expect(() => arranged('split', ['a'])).toThrow('needs 2 to 4 layers; 1 are chosen');
    expect(() => arranged('behind', ['a', 'b'])).toThrow('needs one layer; 2 are chosen');
  });
});

test('an inset lies within the lower right, and its line is drawn after the cut of its part', () => {
  const layer = arranged('inset', ['c']).layers[0]!;
  expect(layer.passes.map(({ type, space }) => [type, space])).toEqual([
    ['pane', 'shot'],
    ['outline', 'shot'],
  ]);
  const { place } = layer;
  const [x, y] = 'still' in place.position ? place.position.still : [0, 0];
  expect(x + (still(layer, 'pane', 'width') as number) / 2).toBeCloseTo(WIDTH / 2 - 28);
  expect(y + (still(layer, 'pane', 'height') as number) / 2).toBeCloseTo(HEIGHT / 2 - 28);
});

test('a glow outline follows the layer after Place', () => {
  const { passes } = arranged('glow-outline', ['c']).layers[0]!;
  expect(passes.map(({ type, space }) => [type, space])).toEqual([
    ['outline', 'shot'],
    ['drop-shadow', 'shot'],
  ]);
});

test('an adjustment layer has nothing to arrange', () => {
  const base = shotWith(['c'], { source: newSource('adjustment') });
  expect(() => arranged('inset', ['c'], base)).toThrow('c has no picture of its own');
});

test('a locked layer is left as it is, by name', () => {
  expect(() => arranged('glow-outline', ['c'], shotWith(['c'], { locked: true }))).toThrow('c is locked');
});
