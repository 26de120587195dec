// Everything that was ever stored opens: documents go through one migration after the other, and what is undone on them with them.
import type { Step } from '../edit';
import { isOld, upgradedJournal, type OldEntry } from './first-journal';
import { entrySchema, ENTRY_VERSION, type JournalEntry } from '../history';
import { changesBetween, reversed, withChanges } from '../patch';
import { FORMAT_VERSION, type Project } from '../schema';
import { from1To2 } from './1-to-2';

const MIGRATIONS: Record<number, (raw: Record<string, unknown>) => Record<string, unknown>> = { 1: from1To2 };

/** @returns a stored document in today's format; what is of no known format comes back as it is */
export function migrated(raw: unknown): unknown {
  let document = raw as Record<string, unknown> | null;
  while (typeof document?.['format'] === 'number' && MIGRATIONS[document['format']])
    document = MIGRATIONS[document['format']]!(document);
  return document;
}

export interface Stored {
  snapshot: unknown;
  /** entries that are in the snapshot already, oldest first */
  past: readonly unknown[];
  /** those after it */
  entries: readonly unknown[];
}
export interface Upgraded extends Stored {
  /** steps at the end that could not be read */
  lost: number;
  /** whether what is stored is older than this */
  older: boolean;
}

/** A stored document with its journal in today's format. Entries that cannot be carried over stay as they are, for the replay to name. */
export function upgraded({ snapshot, past, entries }: Stored): Upgraded {
  if ((snapshot as { format?: unknown } | null)?.format === FORMAT_VERSION)
    return { snapshot, past, entries, lost: 0, older: false };
  const first = entries.filter(isOld);
  const { entries: second, lost } = upgradedJournal(snapshot as Project, first as OldEntry[]);
  const carrier = {
    past: past.filter((entry) => !isOld(entry)),
    entries: [...second, ...entries.filter((entry) => !isOld(entry))],
  };
  return {
    snapshot: migrated(snapshot),
    past: carriedBack(snapshot, carrier.past),
    entries: carriedOn(snapshot, carrier.entries),
    lost,
    older: true,
  };
}

/** An entry of the format before, or null when it is none. */
function readable(raw: unknown): JournalEntry | null {
  const entry = raw as { version?: unknown };
  const parsed =
    entry?.version === ENTRY_VERSION - 1 ? entrySchema.safeParse({ ...entry, version: ENTRY_VERSION }) : null;
  return parsed?.success ? (parsed.data as JournalEntry) : null;
}

/** The step that does to the new document what this one did to the old. */
const stepBetween = (step: Step, before: unknown, after: unknown): Step => ({
  ...step,
  changes: changesBetween(migrated(before), migrated(after)),
});

function carriedOn(snapshot: unknown, entries: readonly unknown[]): unknown[] {
  let document = snapshot;
  return entries.map((raw) => {
    const entry = readable(raw);
    if (!entry) return raw;
    const { step, kind } = entry;
    try {
      const back = kind === 'undo';
      const next = withChanges(document, back ? reversed(step.changes) : step.changes);
      const carried = back ? stepBetween(step, next, document) : stepBetween(step, document, next);
      document = next;
      return { ...entry, step: carried };
    } catch {
      return raw;
    }
  });
}

/** What led to the snapshot is gone back along, from its end. What does not fit any more cannot be undone, nor what came before it. */
function carriedBack(snapshot: unknown, past: readonly unknown[]): unknown[] {
  let document = snapshot;
  const out: unknown[] = [];
  for (const raw of past.toReversed()) {
    const entry = readable(raw);
    if (!entry) break;
    const { step, kind } = entry;
    try {
      const back = kind === 'undo';
      const before = withChanges(document, back ? step.changes : reversed(step.changes));
      out.unshift({ ...entry, step: back ? stepBetween(step, document, before) : stepBetween(step, before, document) });
      document = before;
    } catch {
      break;
    }
  }
  return out;
}
