import { expect, test } from '@jest/globals';
import { newPass } from '../document/edits/passes';
import type { LayerId, PassId } from '../document/schema';
import { colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import { tracedProject } from './traced';
import { visibleLayers } from './plan';

const pass = (type: string) => newPass(type as PassId, type, null);
const project = projectOf([
  layerOf('title', colourSource([1, 1, 1])),
  layerOf('captain', colourSource([0, 1, 0]), {
    opacity: { still: 0.2 },
    shown: false,
    passes: [pass('colour-key'), pass('blur'), pass('mask'), pass('refine-edge')],
  }),
  layerOf('deck', colourSource([0, 0, 1])),
]);
const seen = (through: number) =>
  visibleLayers(tracedProject(project, SHOT, 'captain' as LayerId, through).shots[0]!, 0).map(({ id, opacity }) => [
    id,
    opacity,
  ]);

test('what is traced is whole, even when it is hidden; what lies above shows faintly or not at all', () => {
  expect(seen(0)).toEqual(expect.arrayContaining([['captain', { still: 1 }]]));
  expect(seen(0).map(([id]) => id)).not.toContain('title');
  expect(seen(0.25)).toEqual(expect.arrayContaining([['title', { still: 0.25 }]]));
  expect(seen(0.25).map(([id]) => id)).toContain('deck');
  const [, captain] = tracedProject(project, SHOT, 'captain' as LayerId, 0).shots[0]!.layers;
  expect(captain!.passes.map(({ type }) => type)).toEqual(['blur']);
});
