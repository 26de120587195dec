import { expect, test } from '@jest/globals';
import { colourSource, layerOf, projectOf, SHOT } from '../../testing/documents';
import { perform } from '../edit';
import { projectSchema, type LayerId, type PassId } from '../schema';
import { addGrade, addJig, copiesOf, gradeJigs, gradeOf, removeJig } from './jigs';
import { newPass } from './passes';

const pass = (type: string) => newPass(type as PassId, type);
const masked = { ...pass('wheels'), area: { masks: ['m' as never], side: 'inside' as const } };
const project = projectOf([
  layerOf('graded', colourSource([0.4, 0.4, 0.4]), {
    passes: [pass('colour-key'), pass('tone'), masked, { ...pass('balance'), on: false }, pass('drop-shadow')],
  }),
  layerOf('other', colourSource([0.2, 0.4, 0.4]), { passes: [pass('crop'), { ...pass('light-wrap'), space: 'shot' }] }),
]);
const [graded, other] = project.shots[0]!.layers;

test('a layer’s grade is what is on of it and grades, without its masks', () => {
  const passes = gradeOf(graded!);
  expect(passes.map(({ type }) => type)).toEqual(['tone', 'wheels']);
  expect(passes[1]).not.toHaveProperty('area');
  expect(() => gradeOf(other!)).toThrow('other has no grade of its own');
});

test('on another layer it comes after what works before Place, as passes of its own, in one step', () => {
  let n = 0;
  const copies = copiesOf(gradeOf(graded!), () => `copy-${n++}`);
  const at = { shot: SHOT, layer: 'other' as LayerId };
  const after = perform(project, addGrade(project, at, other!, copies, 'Paste'))!.project;
  expect(after.shots[0]!.layers[1]!.passes.map(({ type }) => type)).toEqual(['crop', 'tone', 'wheels', 'light-wrap']);
  expect(projectSchema.safeParse(JSON.parse(JSON.stringify(after))).error).toBeUndefined();
});

test('kept with the project it is found again after writing and reading, and can be deleted', () => {
  const jig = { id: 'j', kind: 'grade' as const, name: 'dusk', passes: gradeOf(graded!) };
  const kept = perform(project, addJig(jig))!.project;
  const read = projectSchema.parse(JSON.parse(JSON.stringify(kept)));
  expect(gradeJigs(read)).toEqual([jig]);
  expect(gradeJigs(perform(read, removeJig(read, 'j'))!.project)).toEqual([]);
  // what another version keeps there stays as it is
  const foreign = { ...kept, jigs: [...kept.jigs, { id: 'k', kind: 'dial book', pages: 3 }] };
  expect(projectSchema.parse(foreign).jigs).toEqual(foreign.jigs);
  expect(gradeJigs(foreign)).toEqual([jig]);
});
