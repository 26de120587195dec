import { expect, test } from '@jest/globals';
import { still } from '../base/value';
import { newSource } from '../document/edits/layers';
import { apply } from '../picture/matrix';
import { layerOf, projectOf, SHOT } from '../testing/documents';
import { momentOf } from '../place/moment';
import { figureOf } from './figure';

test('a shape is written where it lies in its shot: turned, enlarged and moved about the middle', () => {
  const layer = layerOf('boat', newSource('shape', { form: 'rectangle', width: 100, height: 40, size: [400, 200] }));
  layer.place.position = still([30, -10]);
  layer.place.scale = still([2, 2]);
  layer.place.rotation = still(90);
  const project = projectOf([layer], { width: 640, height: 360 });
  const shot = project.shots.find(({ id }) => id === SHOT)!;
  const { matrix, d } = figureOf(momentOf(project, shot, layer, 0, 1));
  expect(d).toBe('M-50 -20L50 -20L50 20L-50 20Z');
  const [x, y] = apply(matrix, 50, -20);
  // a quarter turn clockwise takes right to down and up to right
  expect([Math.round(x), Math.round(y)]).toEqual([30 + 2 * 20, -10 + 2 * 50]);
});
