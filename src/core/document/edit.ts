import { produce, type Draft } from 'immer';
import { changesBetween, reversed, withChanges, type Change } from './patch';
import type { Project } from './schema';

/** A named change of the document. Names are what a person reads in the history: "Move captain". */
export interface Edit {
  name: string;
  apply(project: Draft<Project>): void;
}

/** One step of history: a name, what it changed, and whose step it is. */
export interface Step {
  /** counts up through the life of a project */
  id: number;
  name: string;
  /** the shot that it changed alone, or the project */
  scope: string;
  changes: readonly Change[];
  /** where the work was: shot, chosen layer, frame */
  where?: { shot: string; layer: string | null; frame: number };
}
export const PROJECT_SCOPE = 'project';

/** @returns the new document and what changed, or null when the edit changes nothing */
export function perform(project: Project, edit: Edit): { project: Project; changes: readonly Change[] } | null {
  const next = produce(project, (draft) => {
    edit.apply(draft);
  });
  const changes = changesBetween(project, next);
  return changes.length ? { project: next, changes } : null;
}

/** Several edits as one step: each is made on the document as the ones before it leave it. */
export function together(project: Project, name: string, makers: readonly ((now: Project) => Edit)[]): Edit {
  let now = project;
  for (const make of makers) now = perform(now, make(now))?.project ?? now;
  return { name, apply: (draft) => void Object.assign(draft, now) };
}

/** Whose changes these are: one shot's, or the project's. */
export function scopeOf(changes: readonly Change[]): string {
  const shots = new Set(
    changes.map(({ path: [first, second] }) =>
      first === 'shots' && typeof second === 'object' && 'id' in second ? second.id : PROJECT_SCOPE,
    ),
  );
  return shots.size === 1 ? [...shots][0]! : PROJECT_SCOPE;
}

/** @throws JackplaneError conflict when the step does not fit */
export const redoStep = (project: Project, step: Step): Project => withChanges(project, step.changes);
export const undoStep = (project: Project, step: Step): Project => withChanges(project, reversed(step.changes));
