import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { JackplaneError } from '../../core/base/errors';
import type { RenderResult } from '../../engine/types';

/** What the list of projects shows; small, so that it can be written with every edit. */
export interface ProjectRecord {
  id: string;
  name: string;
  modified: string;
  poster: Blob | null;
}
export interface SnapshotRecord {
  id: string;
  /** the document as of this journal entry */
  seq: number;
  snapshot: unknown;
}
export interface JournalRecord {
  project: string;
  seq: number;
  entry: unknown;
}
export interface MediaRecord {
  project: string;
  stock: string;
  file: Blob;
  poster: Blob | null;
  peaks: number[] | null;
}
export interface RenderRecord {
  id: string;
  project: string;
  name: string;
  made: string;
  result: RenderResult;
}
/** A stored document that could not be opened whole, as it was. */
export interface AsideRecord {
  id: string;
  project: string;
  made: string;
  snapshot: unknown;
  left: string[];
}

interface Schema extends DBSchema {
  projects: { key: string; value: ProjectRecord };
  snapshots: { key: string; value: SnapshotRecord };
  journal: { key: [string, number]; value: JournalRecord };
  media: { key: [string, string]; value: MediaRecord };
  renders: { key: string; value: RenderRecord };
  asides: { key: string; value: AsideRecord };
}
export type Database = IDBPDatabase<Schema>;

let database: Promise<Database> | null = null;

/** @throws JackplaneError storage */
export function db(): Promise<Database> {
  database ??= openDB<Schema>('jackplane', 2, {
    async upgrade(store, from, _to, tx) {
      if (from < 1) {
        store.createObjectStore('projects', { keyPath: 'id' });
        store.createObjectStore('journal', { keyPath: ['project', 'seq'] });
        store.createObjectStore('media', { keyPath: ['project', 'stock'] });
        store.createObjectStore('renders', { keyPath: 'id' });
      }
      store.createObjectStore('snapshots', { keyPath: 'id' });
      store.createObjectStore('asides', { keyPath: 'id' });
      // the snapshot stood in the project's own record
      for (let cursor = await tx.objectStore('projects').openCursor(); cursor; cursor = await cursor.continue()) {
        const { id, name, modified, poster, snapshot, seq } = cursor.value as ProjectRecord & SnapshotRecord;
        await tx.objectStore('snapshots').put({ id, seq, snapshot });
        await cursor.update({ id, name, modified, poster });
      }
    },
    blocking: () => void closeDb(),
    // the browser took the storage away: the next use opens it anew
    terminated: () => (database = null),
  }).catch((error: unknown) => {
    database = null;
    throw storageError('The browser did not open its storage', error);
  });
  return database;
}

export async function closeDb(): Promise<void> {
  const open = database;
  database = null;
  (await open)?.close();
}

/** Every key that belongs to a project, in a store keyed by project and something else. */
export const ofProject = (project: string): IDBKeyRange => IDBKeyRange.bound([project], [project, []]);

/** An error of the browser's storage, as a sentence. */
export function storageError(what: string, error: unknown): JackplaneError {
  if (error instanceof JackplaneError) return error;
  const full = error instanceof DOMException && error.name === 'QuotaExceededError';
  const remedy = full
    ? 'Delete finished renders or projects you no longer need, then try again.'
    : 'Allow this site to store data (not in a private window), then try again.';
  return new JackplaneError(
    'storage',
    `${what}: ${full ? 'the storage is full' : `the browser answered “${(error as Error).message}”`}.`,
    remedy,
  );
}
