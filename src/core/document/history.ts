import { z } from 'zod';
import { JackplaneError, sentenceOf } from '../base/errors';
import { perform, PROJECT_SCOPE, redoStep, scopeOf, undoStep, type Edit, type Step } from './edit';
import type { Change } from './patch';
import type { Project } from './schema';

/** The form of entries; those of documents of another format have another number. */
export const ENTRY_VERSION = 3;

/** What is written down for every change, in order. It holds the whole step, so that it can be replayed without those before it. */
export interface JournalEntry {
  version: typeof ENTRY_VERSION;
  kind: 'edit' | 'undo' | 'redo';
  step: Step;
}

const pathSchema = z.array(
  z.union([z.string(), z.object({ id: z.string() }).strict(), z.object({ at: z.number() }).strict()]),
);
const members = z.array(z.record(z.string(), z.unknown()));
const ids = z.array(z.string());
const changeSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('set'), path: pathSchema, from: z.unknown().optional(), to: z.unknown().optional() })
    .strict(),
  z
    .object({
      kind: z.literal('members'),
      path: pathSchema,
      removed: members,
      added: members,
      order: z.object({ from: ids, to: ids }).strict().optional(),
    })
    .strict(),
]);
const whereSchema = z.object({ shot: z.string(), layer: z.string().nullable(), frame: z.number() }).strict();
export const entrySchema = z
  .object({
    version: z.literal(ENTRY_VERSION),
    kind: z.enum(['edit', 'undo', 'redo']),
    step: z
      .object({
        id: z.int().min(0),
        name: z.string(),
        scope: z.string(),
        changes: z.array(changeSchema),
        where: whereSchema.optional(),
      })
      .strict(),
  })
  .strict();

export interface History {
  readonly project: Project;
  /** oldest first */
  readonly done: readonly Step[];
  /** the next to redo first */
  readonly undone: readonly Step[];
  /** id of the newest step there ever was */
  readonly last: number;
}

export const freshHistory = (project: Project): History => ({ project, done: [], undone: [], last: 0 });

/** Most steps that are kept for undoing. */
export const MOST_STEPS = 500;

/** Steps that belong to a shot: its own and the project's. Without a shot, all. */
const belongs = (step: Step, scope: string | null): boolean =>
  scope === null || step.scope === scope || step.scope === PROJECT_SCOPE;

/** @param where shot, layer and frame of the work, to come back to */
export function withEdit(
  history: History,
  edit: Edit,
  where?: Step['where'],
): { history: History; entry: JournalEntry; changes: readonly Change[] } | null {
  const result = perform(history.project, edit);
  if (!result) return null;
  const { changes } = result;
  const step: Step = {
    id: history.last + 1,
    name: edit.name,
    scope: scopeOf(changes),
    changes,
    ...(where ? { where } : {}),
  };
  return {
    history: withStep(history, result.project, step),
    entry: { version: ENTRY_VERSION, kind: 'edit', step },
    changes,
  };
}

/** A new step ends what could be redone in its shot; a step of the project ends it everywhere. */
function withStep(history: History, project: Project, step: Step): History {
  const undone = step.scope === PROJECT_SCOPE ? [] : history.undone.filter((other) => !belongs(other, step.scope));
  return {
    project,
    done: [...history.done.slice(1 - MOST_STEPS), step],
    undone,
    last: Math.max(history.last, step.id),
  };
}

/** The step that an undo or redo would take in a shot. */
export const nextUndo = (history: History, scope: string | null): Step | null =>
  history.done.findLast((step) => belongs(step, scope)) ?? null;
export const nextRedo = (history: History, scope: string | null): Step | null =>
  history.undone.find((step) => belongs(step, scope)) ?? null;

interface Moved {
  history: History;
  entry: JournalEntry;
}

/** Takes back the newest step of a shot (or of the project). @throws JackplaneError conflict when another shot's work stands on it */
export function undone(history: History, scope: string | null = null): Moved | null {
  const step = nextUndo(history, scope);
  return (
    step && {
      history: withoutStep(
        history,
        fitting(() => undoStep(history.project, step), step, 'undone'),
        step,
      ),
      entry: { version: ENTRY_VERSION, kind: 'undo', step },
    }
  );
}

export function redone(history: History, scope: string | null = null): Moved | null {
  const step = nextRedo(history, scope);
  return (
    step && {
      history: withStepAgain(
        history,
        fitting(() => redoStep(history.project, step), step, 'done again'),
        step,
      ),
      entry: { version: ENTRY_VERSION, kind: 'redo', step },
    }
  );
}

function fitting(move: () => Project, step: Step, what: string): Project {
  try {
    return move();
  } catch (error) {
    if (!(error instanceof JackplaneError) || error.code !== 'conflict') throw error;
    throw new JackplaneError(
      'conflict',
      `“${step.name}” cannot be ${what}: another shot has changed what it stands on.`,
      'Undo the newer work in that shot first.',
    );
  }
}

const others = (steps: readonly Step[], step: Step) => steps.filter((other) => other.id !== step.id);
const withoutStep = (history: History, project: Project, step: Step): History => ({
  ...history,
  project,
  done: others(history.done, step),
  undone: [step, ...others(history.undone, step)],
});
const withStepAgain = (history: History, project: Project, step: Step): History => ({
  ...history,
  project,
  done: [...others(history.done, step), step],
  undone: others(history.undone, step),
});

export interface Replayed {
  history: History;
  /** entries that could not be read or do not fit; they were skipped */
  skipped: { name: string; reason: string }[];
}

/**
 * The history after a journal.
 * @param past entries that are in the snapshot already; they only say what can be undone @param journal those after it
 */
export function replay(snapshot: Project, past: readonly unknown[], journal: readonly unknown[]): Replayed {
  const skipped: Replayed['skipped'] = [];
  let history = freshHistory(snapshot);
  const read = (raw: unknown): JournalEntry | null => {
    const parsed = entrySchema.safeParse(raw);
    if (!parsed.success) skipped.push({ name: 'a step', reason: parsed.error.issues[0]?.message ?? 'unreadable' });
    return parsed.success ? (parsed.data as JournalEntry) : null;
  };
  const take = ({ kind, step }: JournalEntry, project: Project): History =>
    kind === 'edit'
      ? withStep(history, project, step)
      : kind === 'undo'
        ? withoutStep(history, project, step)
        : withStepAgain(history, project, step);
  // a drag that came back to where it began has left an entry without changes: there is nothing in it to undo
  const does = (entry: JournalEntry | null): entry is JournalEntry => !!entry?.step.changes.length;
  for (const raw of past) {
    const entry = read(raw);
    if (does(entry)) history = take(entry, snapshot);
  }
  for (const raw of journal) {
    const entry = read(raw);
    if (!does(entry)) continue;
    try {
      history = take(
        entry,
        entry.kind === 'undo' ? undoStep(history.project, entry.step) : redoStep(history.project, entry.step),
      );
    } catch (error) {
      skipped.push({ name: entry.step.name, reason: sentenceOf(error) });
    }
  }
  return { history, skipped };
}
