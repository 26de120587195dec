import { applyPatches, enablePatches, produceWithPatches, type Draft, type Patch } from 'immer';
import type { Project } from './schema';

enablePatches();

/** A named change of the document. Names are what a person reads in the history: "Move captain". */
export interface Edit {
  name: string;
  apply(project: Draft<Project>): void;
}

/** One step of history: a name, and the patches both ways. */
export interface Step {
  name: string;
  forward: Patch[];
  back: Patch[];
  /** where the work was: shot, chosen layer, frame */
  where?: { shot: string; layer: string | null; frame: number };
}

/** @returns the new document and the step, or null when the edit changes nothing */
export function perform(project: Project, edit: Edit): { project: Project; step: Step } | null {
  const [next, forward, back] = produceWithPatches(project, (draft) => {
    edit.apply(draft);
  });
  return forward.length ? { project: next, step: { name: edit.name, forward, back } } : null;
}

export const redoStep = (project: Project, step: Step): Project => applyPatches(project, step.forward);
export const undoStep = (project: Project, step: Step): Project => applyPatches(project, step.back);
