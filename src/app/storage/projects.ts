import { JackplaneError } from '../../core/errors';
import { replay, type History, type JournalEntry } from '../../core/document/history';
import { problemsOf, projectSchema, type Project, type ProjectId } from '../../core/document/schema';
import { db, ofProject, storageError, type ProjectRecord } from './db';

/** Journal entries after which they are folded into the snapshot. */
const FOLD_AFTER = 300;

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

export async function createProject(project: Project): Promise<void> {
  const record: ProjectRecord = { id: project.id, name: project.name, modified: project.modified, snapshot: project, seq: 0, poster: null };
  try {
    await (await db()).add('projects', record);
  } catch (error) {
    throw storageError(`“${project.name}” could not be stored`, error);
  }
}

export async function hasProject(id: string): Promise<boolean> {
  return (await (await db()).count('projects', id)) > 0;
}

export async function deleteProject(id: string): Promise<void> {
  const tx = (await db()).transaction(['projects', 'journal', 'media'], 'readwrite');
  await Promise.all([
    tx.objectStore('projects').delete(id),
    tx.objectStore('journal').delete(ofProject(id)),
    tx.objectStore('media').delete(ofProject(id)),
    tx.done,
  ]);
}

export interface LoadedProject {
  history: History;
  seq: number;
  /** said when part of the journal could not be read */
  warning: string | null;
}

/** Snapshot plus journal. @throws JackplaneError not-found or bad-project */
export async function loadProject(id: string): Promise<LoadedProject> {
  const store = await db();
  const record = await store.get('projects', id);
  if (!record) throw new JackplaneError('not-found', 'There is no such project in this browser.', 'Choose one from the list, or open its file.');
  const parsed = projectSchema.safeParse(record.snapshot);
  if (!parsed.success) {
    throw new JackplaneError('bad-project', `The stored project “${record.name}” cannot be read (${problemsOf(parsed.error)}).`, 'Open it from its project file instead; what is stored stays as it is.');
  }
  const journal = (await store.getAll('journal', ofProject(id))).filter((row) => row.seq > record.seq);
  const seq = journal.at(-1)?.seq ?? record.seq;
  const { history, lost } = replayAll(parsed.data, journal.map((row) => row.entry));
  return { history, seq, warning: lost ? `The last ${lost} steps of “${record.name}” could not be read and are missing.` : null };
}

function replayAll(snapshot: Project, entries: JournalEntry[]): { history: History; lost: number } {
  for (let count = entries.length; ; count--) {
    try {
      return { history: replay(snapshot, entries.slice(0, count)), lost: entries.length - count };
    } catch (error) {
      if (count === 0) throw error;
    }
  }
}

/** Writes one journal entry; replaces the entry of the same number, as a drag does while it goes on. */
export async function writeEntry(project: ProjectId, seq: number, entry: JournalEntry): Promise<void> {
  try {
    const tx = (await db()).transaction('journal', 'readwrite', { durability: 'strict' });
    await Promise.all([tx.store.put({ project, seq, entry: structuredClone(entry) }), tx.done]);
  } catch (error) {
    throw storageError('The last edit could not be kept', error);
  }
}

/** Folds the journal into the snapshot when it has grown long, or when asked. */
export async function fold(project: Project, seq: number, poster: Blob | null, always = false): Promise<void> {
  const tx = (await db()).transaction(['projects', 'journal'], 'readwrite');
  const projects = tx.objectStore('projects');
  const record = await projects.get(project.id);
  if (record && (always || seq - record.seq >= FOLD_AFTER)) {
    await projects.put({ ...record, name: project.name, modified: project.modified, snapshot: project, seq, poster: poster ?? record.poster });
    await tx.objectStore('journal').delete(IDBKeyRange.bound([project.id, 0], [project.id, seq]));
  } else if (record) {
    await projects.put({ ...record, name: project.name, modified: project.modified, poster: poster ?? record.poster });
  }
  await tx.done;
}
