// Grades and made layers that are kept with the project to be used again.
import { JackplaneError } from '../../base/errors';
import { passOf } from '../../passes/registry';
import { together, type Edit } from '../edit';
import type { DialledJig, GradeJig, Jig, JigDial, Layer, Pass, PassId, Project } from '../schema';
import type { Draft } from 'immer';
import type { At } from './keys';
import { addPass, withoutMasks } from './passes';

export const gradeJigs = (project: Project): GradeJig[] =>
  project.jigs.filter((jig): jig is GradeJig => 'kind' in jig && jig.kind === 'grade');

/** The passes of a layer that grade it, without its masks. @throws JackplaneError bad-value when there are none */
export function gradeOf(layer: Layer): Pass[] {
  const passes = layer.passes.filter((pass) => pass.on && passOf(pass.type)?.group === 'grade');
  if (!passes.length)
    throw new JackplaneError(
      'bad-value',
      `${layer.name} has no grade of its own.`,
      'Add Tone, Wheels, Colour or another pass that grades.',
    );
  return passes.map(withoutMasks);
}

/** Chooses which dials of a jig are shown before it is put in. */
export const setJigDials = (id: string, dials: readonly JigDial[]): Edit => ({
  name: 'Dials of a jig',
  apply: (draft) => {
    const jig = draft.jigs.find((item) => item.id === id) as Draft<DialledJig> | undefined;
    if (jig) jig.dials = [...dials] as Draft<DialledJig>['dials'];
  },
});

const titleOf = ({ kind, name }: Jig): string => `${kind === 'grade' ? 'grade' : 'jig'} ${name}`;
export const addJig = (jig: Jig): Edit => ({
  name: `Save ${titleOf(jig)}`,
  apply: (draft) => void draft.jigs.push(jig as Draft<Jig>),
});

export const renameJig = (id: string, name: string): Edit => ({
  name: `Rename jig to ${name}`,
  apply: (draft) => {
    const jig = draft.jigs.find((item) => item.id === id);
    if (jig && 'kind' in jig) jig.name = name;
  },
});

export const removeJig = (project: Project, id: string): Edit => ({
  name: `Delete ${project.jigs.flatMap((jig) => (jig.id === id && 'kind' in jig ? titleOf(jig as Jig) : []))[0] ?? ''}`,
  apply: (draft) => {
    draft.jigs = draft.jigs.filter((jig) => jig.id !== id);
  },
});

/** Gives copies of passes to a layer, after its others before Place. @param passes with ids of their own */
export function addGrade(project: Project, at: At, layer: Layer, passes: readonly Pass[], name: string): Edit {
  const begin = layer.passes.filter((pass) => pass.space === 'layer').length;
  return together(
    project,
    name,
    passes.map((pass, i) => () => addPass(at, { ...pass, space: 'layer' }, begin + i)),
  );
}

/** Copies with new ids. */
export const copiesOf = (passes: readonly Pass[], fresh: () => string): Pass[] =>
  passes.map((pass) => ({ ...pass, id: fresh() as PassId }));
