import { describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { newPass, setPassValue, switchGroup } from '../document/edits/passes';
import { perform } from '../document/edit';
import { projectSchema, type LayerId, type PassId } from '../document/schema';
import { colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import { planThrough } from './looks';
import { planFrame } from './plan';

const tone = newPass('tone' as PassId, 'tone');
const at = { shot: SHOT, layer: 'one' as LayerId };
const plain = projectOf([layerOf('one', colourSource([0.2, 0.3, 0.4]), { passes: [tone] })]);
const lit = (['exposure', 'dark', 'fill'] as const).reduce(
  (project, name) => perform(project, setPassValue(project, at, tone.id, name, 0.5))!.project,
  plain,
);
const values = (project: typeof lit) => planFrame(project, SHOT, 0).layers[0]!.passes[0]!.values;

describe('a group of dials that is left out', () => {
  const out = perform(lit, switchGroup(lit, at, tone.id, 'Dark, middle, bright'))!.project;

  test('works as that of a new pass, while the others and what it was set to stay', () => {
    expect(values(lit)).toMatchObject({ exposure: 0.5, dark: 0.5, fill: 0.5 });
    expect(values(out)).toEqual({ ...values(lit), dark: 0 });
    expect(out.shots[0]!.layers[0]!.passes[0]!.values['dark']).toEqual(still(0.5));
    expect(projectSchema.parse(JSON.parse(JSON.stringify(out)))).toEqual(out);
  });

  test('comes back as it was', () => {
    const back = perform(out, switchGroup(out, at, tone.id, 'Dark, middle, bright'))!.project;
    expect(back.shots).toEqual(lit.shots);
  });
});

test('a layer seen through one of its passes ends there, with the pass in the form that was asked for', () => {
  const more = projectOf([
    layerOf('one', colourSource([0.2, 0.3, 0.4]), {
      passes: [newPass('first' as PassId, 'blur'), tone, newPass('last' as PassId, 'blur')],
    }),
  ]);
  const [shot] = more.shots;
  const bright = { ...tone, values: { ...tone.values, exposure: still(2) } };
  const plan = planThrough(more, shot!, shot!.layers[0]!, bright, 0)!;
  expect(plan.passes.map(({ id }) => id)).toEqual(['first', 'tone']);
  expect(plan.passes[1]!.values['exposure']).toBe(2);
});

test('a place in a pass after Place counts from the middle of the shot, whatever the size of the source', () => {
  const pane = newPass('pane' as PassId, 'pane', null, { centre: [4, -2], width: 10, height: 10 });
  const small = projectOf([layerOf('one', colourSource([0.2, 0.3, 0.4], 20, 10), { passes: [pane] })]);
  // the shot is 64×36
  expect(planFrame(small, SHOT, 0).layers[0]!.after[0]!.values['centre']).toEqual([36, 16]);
  expect(planFrame(small, SHOT, 0, { reduction: 2 }).layers[0]!.after[0]!.values['centre']).toEqual([18, 8]);
});
