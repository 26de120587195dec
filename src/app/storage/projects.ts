import { problemsOf } from '../../core/base/problems';
import { JackplaneError } from '../../core/base/errors';
import { freshHistory, MOST_STEPS, replay, type History, type JournalEntry } from '../../core/document/history';
import { upgraded, type Upgraded } from '../../core/document/migrations';
import { leftOut, salvaged, type Salvaged } from '../../core/document/salvage';
import { projectSchema, type Project } from '../../core/document/schema';
import { db, ofProject, storageError } from './db';

/** Journal rows that are kept after they were folded, so that what they did can still be undone. */
const KEPT_ROWS = 2 * MOST_STEPS;

export interface ProjectCard {
  id: string;
  name: string;
  modified: string;
  poster: Blob | null;
  bytes: number;
}

/** All projects, the last changed first. */
export async function listProjects(): Promise<ProjectCard[]> {
  const store = await db();
  const records = await store.getAll('projects');
  const cards = await Promise.all(
    records.map(async ({ id, name, modified, poster }) => {
      const media = await store.getAll('media', ofProject(id));
      return { id, name, modified, poster, bytes: media.reduce((sum, item) => sum + item.file.size, 0) };
    }),
  );
  return cards.sort((a, b) => b.modified.localeCompare(a.modified));
}

export async function createProject(project: Project, poster: Blob | null = null): Promise<void> {
  try {
    const tx = (await db()).transaction(['projects', 'snapshots'], 'readwrite', { durability: 'strict' });
    void tx.objectStore('projects').add({ id: project.id, name: project.name, modified: project.modified, poster });
    void tx.objectStore('snapshots').put({ id: project.id, seq: 0, snapshot: project });
    await tx.done;
  } catch (error) {
    throw storageError(`“${project.name}” could not be stored`, error);
  }
}

export async function hasProject(id: string): Promise<boolean> {
  return (await (await db()).count('projects', id)) > 0;
}

/** The lock that the tab holds which has a project open. */
export const lockName = (id: string): string => `jackplane project ${id}`;

/** @throws JackplaneError conflict when it is open in a tab */
export async function deleteProject(id: string, name: string): Promise<void> {
  await navigator.locks.request(lockName(id), { ifAvailable: true }, async (lock) => {
    if (!lock)
      throw new JackplaneError('conflict', `“${name}” is open in another tab.`, 'Close it there, then delete it.');
    const tx = (await db()).transaction(['projects', 'snapshots', 'journal', 'media', 'asides'], 'readwrite');
    void tx.objectStore('projects').delete(id);
    void tx.objectStore('snapshots').delete(id);
    void tx.objectStore('asides').delete(id);
    void tx.objectStore('journal').delete(ofProject(id));
    void tx.objectStore('media').delete(ofProject(id));
    await tx.done;
  });
}

export interface LoadedProject {
  history: History;
  seq: number;
  /** journal entry up to which the snapshot goes */
  folded: number;
  /** what is stored is of an older format; this is the same in today's */
  older: Upgraded | null;
  /** said when something of it could not be read */
  warning: string | null;
}

/** Snapshot plus journal. Parts that cannot be read are left out and said; the stored original is put aside. @throws JackplaneError not-found or bad-project */
export async function loadProject(id: string): Promise<LoadedProject> {
  const store = await db();
  const [card, record, rows] = await Promise.all([
    store.get('projects', id),
    store.get('snapshots', id),
    store.getAll('journal', ofProject(id)),
  ]);
  if (!card || !record)
    throw new JackplaneError(
      'not-found',
      'There is no such project in this browser.',
      'Choose one from the list, or open its file.',
    );
  const stored = upgraded({
    snapshot: record.snapshot,
    past: rows.filter((row) => row.seq <= record.seq).map((row) => row.entry),
    entries: rows.filter((row) => row.seq > record.seq).map((row) => row.entry),
  });
  const snapshot = readable(stored.snapshot, card.name);
  const warnings: string[] = [];
  if (stored.lost) warnings.push(`The last ${stored.lost} of its older steps could not be read and are missing.`);
  const seq = stored.older ? record.seq + stored.entries.length : Math.max(record.seq, rows.at(-1)?.seq ?? 0);
  const replayed = replay(snapshot.project, stored.past, stored.entries);
  const whole = projectSchema.safeParse(replayed.history.project);
  const now: Salvaged = whole.success
    ? { project: replayed.history.project, left: [] }
    : readable(replayed.history.project, card.name);
  const left = [...snapshot.left, ...now.left];
  if (replayed.skipped.length)
    warnings.push(
      `${replayed.skipped.length === 1 ? 'One step' : `${replayed.skipped.length} steps`} of “${card.name}” could not be done again and are missing (${replayed.skipped[0]!.name}: ${replayed.skipped[0]!.reason}).`,
    );
  if (left.length) {
    await store.put('asides', {
      id,
      project: card.name,
      made: new Date().toISOString(),
      snapshot: { ...record, rows },
      left,
    });
    warnings.push(
      `“${card.name}” was opened without what could not be read: ${leftOut(left)}. The original is kept aside; it can be saved from the projects page.`,
    );
  }
  // steps that were undone and done on what had to be left out would not fit
  const history = now.left.length ? { ...freshHistory(now.project), last: replayed.history.last } : replayed.history;
  return { history, seq, folded: record.seq, older: stored.older ? stored : null, warning: warnings.join(' ') || null };
}

function readable(raw: unknown, name: string): Salvaged {
  const found = salvaged(raw);
  if (found) return found;
  const { error } = projectSchema.safeParse(raw);
  throw new JackplaneError(
    'bad-project',
    `The stored project “${name}” cannot be read (${problemsOf(error!)}).`,
    'Save the stored original from the projects page and open a file of it instead; what is stored stays as it is.',
  );
}

/** Writes a project of an older format as it is now, its journal with it. Only for the tab that edits it. */
export async function keepUpgraded(id: string, { snapshot, past, entries }: Upgraded, folded: number): Promise<void> {
  const tx = (await db()).transaction(['snapshots', 'journal'], 'readwrite');
  void tx.objectStore('snapshots').put({ id, seq: folded, snapshot });
  const journal = tx.objectStore('journal');
  void journal.delete(ofProject(id));
  const kept = past.slice(-folded || past.length);
  [...kept, ...entries].forEach(
    (entry, i) => void journal.put({ project: id, seq: folded - kept.length + 1 + i, entry }),
  );
  await tx.done;
}

/** The stored document and journal as JSON, readable or not. */
export async function storedOriginal(id: string): Promise<string> {
  const store = await db();
  const aside = await store.get('asides', id);
  return JSON.stringify(
    aside?.snapshot ?? { ...(await store.get('snapshots', id)), rows: await store.getAll('journal', ofProject(id)) },
    null,
    1,
  );
}
export const listAsides = async (): Promise<string[]> => (await db()).getAllKeys('asides');

/** Writes journal entries in one go. @throws JackplaneError storage; not-found when the project is not in the storage any more */
export async function writeEntries(
  project: Pick<Project, 'id' | 'name'>,
  rows: readonly { seq: number; entry: JournalEntry }[],
  now: string,
): Promise<void> {
  try {
    const tx = (await db()).transaction(['projects', 'journal'], 'readwrite', { durability: 'strict' });
    const projects = tx.objectStore('projects');
    const card = await projects.get(project.id);
    if (!card) {
      tx.abort();
      await tx.done.catch(() => undefined);
      throw new JackplaneError(
        'not-found',
        `“${project.name}” is not in this browser’s storage any more.`,
        'It is complete in this tab: save a copy of it now.',
      );
    }
    for (const { seq, entry } of rows) void tx.objectStore('journal').put({ project: project.id, seq, entry });
    void projects.put({ ...card, name: project.name, modified: now });
    await tx.done;
  } catch (error) {
    throw storageError('The last edit could not be kept', error);
  }
}

/** Makes the snapshot that of a journal entry whose row is written already; older rows than can be undone go. */
export async function fold(project: Project, seq: number): Promise<void> {
  const tx = (await db()).transaction(['projects', 'snapshots', 'journal'], 'readwrite');
  if (!(await tx.objectStore('projects').count(project.id))) return tx.abort();
  void tx.objectStore('snapshots').put({ id: project.id, seq, snapshot: project });
  void tx.objectStore('journal').delete(IDBKeyRange.bound([project.id, 0], [project.id, Math.max(0, seq - KEPT_ROWS)]));
  await tx.done;
}

export async function setPoster(id: string, poster: Blob): Promise<void> {
  const tx = (await db()).transaction('projects', 'readwrite');
  const card = await tx.store.get(id);
  if (card) void tx.store.put({ ...card, poster });
  await tx.done;
}
