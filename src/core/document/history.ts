import { perform, redoStep, undoStep, type Edit, type Step } from './edit';
import type { Project } from './schema';

/** What is written down for every change, in order; replaying it from a snapshot gives the document and its history. */
export type JournalEntry = { kind: 'edit'; step: Step } | { kind: 'undo' } | { kind: 'redo' };

export interface History {
  readonly project: Project;
  /** oldest first */
  readonly done: readonly Step[];
  /** the next to redo first */
  readonly undone: readonly Step[];
}

export const freshHistory = (project: Project): History => ({ project, done: [], undone: [] });

/** Most steps that are kept for undoing. */
const MOST_STEPS = 500;

/** @param where shot, layer and frame of the work, to come back to */
export function withEdit(history: History, edit: Edit, where?: Step['where']): { history: History; entry: JournalEntry } | null {
  const result = perform(history.project, edit);
  if (!result) return null;
  const step = where ? { ...result.step, where } : result.step;
  return { history: withStep(history, result.project, step), entry: { kind: 'edit', step } };
}

function withStep(history: History, project: Project, step: Step): History {
  return { project, done: [...history.done.slice(1 - MOST_STEPS), step], undone: [] };
}

export function undone(history: History): History | null {
  const step = history.done.at(-1);
  if (!step) return null;
  return { project: undoStep(history.project, step), done: history.done.slice(0, -1), undone: [step, ...history.undone] };
}

export function redone(history: History): History | null {
  const [step, ...rest] = history.undone;
  if (!step) return null;
  return { project: redoStep(history.project, step), done: [...history.done, step], undone: rest };
}

/** The history after a journal, from the snapshot it was begun on. */
export function replay(snapshot: Project, journal: readonly JournalEntry[]): History {
  let history = freshHistory(snapshot);
  for (const entry of journal) {
    if (entry.kind === 'edit') history = withStep(history, redoStep(history.project, entry.step), entry.step);
    else history = (entry.kind === 'undo' ? undone(history) : redone(history)) ?? history;
  }
  return history;
}
