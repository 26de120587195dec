// Journals of format 1 held patches by index. They are read once, turned into entries of today, and never written again.
import { applyPatches, enablePatches, type Patch } from 'immer';
import { scopeOf, type Step } from '../edit';
import { changesBetween } from '../patch';
import type { Project } from '../schema';

interface OldStep {
  name: string;
  forward: Patch[];
  back: Patch[];
  where?: Step['where'];
}
/** An entry of the second form, on a document of format 1. */
export interface SecondEntry {
  version: 2;
  kind: 'edit' | 'undo' | 'redo';
  step: Step;
}
export type OldEntry = { kind: 'edit'; step: OldStep } | { kind: 'undo' } | { kind: 'redo' };

export const isOld = (entry: unknown): entry is OldEntry =>
  typeof entry === 'object' && entry !== null && !('version' in entry);

/** @returns the same journal as entries of today, as far as it can be read, and how many at its end cannot */
export function upgradedJournal(snapshot: Project, old: readonly OldEntry[]): { entries: SecondEntry[]; lost: number } {
  enablePatches();
  const entries: SecondEntry[] = [];
  const done: { old: OldStep; step: Step }[] = [];
  let undone: typeof done = [];
  let project = snapshot;
  const take = (entry: OldEntry): void => {
    if (entry.kind === 'edit') {
      const next = applyPatches(project, entry.step.forward);
      const changes = changesBetween(project, next);
      const step: Step = {
        id: entries.length + 1,
        name: entry.step.name,
        scope: scopeOf(changes),
        changes,
        ...(entry.step.where ? { where: entry.step.where } : {}),
      };
      done.push({ old: entry.step, step });
      undone = [];
      entries.push({ version: 2, kind: 'edit', step });
      project = next;
      return;
    }
    const back = entry.kind === 'undo';
    const moved = back ? done.pop() : undone.shift();
    if (!moved) return;
    project = applyPatches(project, back ? moved.old.back : moved.old.forward);
    if (back) undone.unshift(moved);
    else done.push(moved);
    entries.push({ version: 2, kind: entry.kind, step: moved.step });
  };
  for (const [i, entry] of old.entries()) {
    try {
      take(entry);
    } catch {
      return { entries, lost: old.length - i };
    }
  }
  return { entries, lost: 0 };
}
