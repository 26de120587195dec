import { expect, test } from '@jest/globals';
import { valueAt } from '../../time/values';
import { momentOf } from '../../place/moment';
import { layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type LayerId } from '../schema';
import { ARRIVALS, letArrive } from './arrive';
import { newSource } from './layers';

const at = { shot: SHOT, layer: 'words' as LayerId };
const base = projectOf([layerOf('words', newSource('title', { text: 'Paper harbour', height: 50 }))]);

test.each(ARRIVALS.map((way) => [way.name, way] as const))(
  '%s: nothing has come on the first frame, all of it when it is over, and the document is a right one',
  (_, way) => {
    const { project } = perform(base, letArrive(base, at, way, 20))!;
    expect(projectSchema.parse(project)).toEqual(project);
    const layer = project.shots[0]!.layers[0]!;
    const now = (frame: number) =>
      valueAt(layer.source.values[way.moves]!, momentOf(project, project.shots[0]!, layer, frame));
    expect([now(0), now(10), now(20), now(40)]).toEqual([0, 0.5, 1, 1]);
    const other = ARRIVALS[way === ARRIVALS[0] ? 1 : 0]!;
    // one way after another leaves nothing of the first
    const again = perform(project, letArrive(project, at, other, 20))!.project;
    const plain = perform(base, letArrive(base, at, other, 20))!.project;
    expect(again.shots[0]!.layers[0]!.source).toEqual(plain.shots[0]!.layers[0]!.source);
  },
);
