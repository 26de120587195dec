import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { JackplaneError } from '../../core/errors';
import type { JournalEntry } from '../../core/document/history';
import type { RenderResult } from '../../engine/types';

export interface ProjectRecord {
  id: string;
  name: string;
  modified: string;
  /** the document as of journal entry `seq` */
  snapshot: unknown;
  seq: number;
  poster: Blob | null;
}
export interface JournalRecord {
  project: string;
  seq: number;
  entry: JournalEntry;
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

interface Schema extends DBSchema {
  projects: { key: string; value: ProjectRecord };
  journal: { key: [string, number]; value: JournalRecord };
  media: { key: [string, string]; value: MediaRecord };
  renders: { key: string; value: RenderRecord };
}

let database: Promise<IDBPDatabase<Schema>> | null = null;

/** @throws JackplaneError storage */
export function db(): Promise<IDBPDatabase<Schema>> {
  database ??= openDB<Schema>('jackplane', 1, {
    upgrade(store) {
      store.createObjectStore('projects', { keyPath: 'id' });
      store.createObjectStore('journal', { keyPath: ['project', 'seq'] });
      store.createObjectStore('media', { keyPath: ['project', 'stock'] });
      store.createObjectStore('renders', { keyPath: 'id' });
    },
  }).catch((error: unknown) => {
    database = null;
    throw storageError('The browser did not open its storage', error);
  });
  return database;
}

/** Every key that belongs to a project, in a store keyed by project and something else. */
export const ofProject = (project: string): IDBKeyRange => IDBKeyRange.bound([project], [project, []]);

/** An error of the browser's storage, as a sentence. */
export function storageError(what: string, error: unknown): JackplaneError {
  const full = error instanceof DOMException && error.name === 'QuotaExceededError';
  const remedy = full ? 'Delete finished renders or projects you no longer need, then try again.' : 'Allow this site to store data (not in a private window), then try again.';
  return new JackplaneError('storage', `${what}: ${full ? 'the storage is full' : (error as Error).message}.`, remedy);
}
