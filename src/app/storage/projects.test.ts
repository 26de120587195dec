import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { enablePatches, produceWithPatches } from 'immer';
import { removeLayer, renameLayer } from '../../core/document/edits/layers';
import { freshHistory, undone, withEdit, type History, type JournalEntry } from '../../core/document/history';
import type { LayerId, Project } from '../../core/document/schema';
import { colourSource, layerOf, projectOf, SHOT } from '../../core/testing/documents';
import { closeDb, db } from './db';
import { strayMedia, removeMedia } from './media';
import {
  createProject,
  deleteProject,
  fold,
  keepUpgraded,
  loadProject,
  storedOriginal,
  writeEntries,
} from './projects';

const NOW = '2026-01-12T19:00:00.000Z';
const layers = () => ['a', 'b', 'c'].map((id) => layerOf(id, colourSource([0, 0, 0])));
const at = (layer: string) => ({ shot: SHOT, layer: layer as LayerId });
const names = (project: Project) => project.shots[0]!.layers.map((layer) => `${layer.id} ${layer.name}`);
const busy = new Set<string>();

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
  busy.clear();
  // locks as browsers have them: a name that is held is not given
  const locks = {
    request: async (name: string, _: unknown, work: (lock: object | null) => unknown) =>
      work(busy.has(name) ? null : {}),
    query: () => Promise.resolve({ held: [...busy].map((name) => ({ name })), pending: [] }),
  };
  Object.defineProperty(globalThis, 'navigator', { value: { locks }, configurable: true });
});
afterEach(closeDb);

/** Makes edits as the bench does, each written when it is made. */
async function work(
  start: Project,
  ...moves: ((history: History) => { history: History; entry: JournalEntry } | null)[]
): Promise<History> {
  let history = freshHistory(start);
  for (const [i, move] of moves.entries()) {
    const next = move(history)!;
    history = next.history;
    await writeEntries(start, [{ seq: i + 1, entry: next.entry }], NOW);
  }
  return history;
}

describe('stored projects', () => {
  test('come back with every edit and can be undone to the beginning', async () => {
    const start = projectOf(layers());
    await createProject(start);
    const history = await work(
      start,
      (now) => withEdit(now, removeLayer(now.project, at('a'))),
      (now) => withEdit(now, renameLayer(now.project, at('b'), 'bridge')),
    );
    let loaded = (await loadProject(start.id)).history;
    expect(loaded.project).toEqual(history.project);
    for (let back = undone(loaded); back; back = undone(loaded)) loaded = back.history;
    expect(names(loaded.project)).toEqual(names(start));
  });

  test('an undo across the fold is not lost, and what follows it finds its layer', async () => {
    const start = projectOf(layers());
    await createProject(start);
    const removed = withEdit(freshHistory(start), removeLayer(start, at('a')))!;
    await writeEntries(start, [{ seq: 1, entry: removed.entry }], NOW);
    await fold(removed.history.project, 1);
    const back = undone((await loadProject(start.id)).history)!;
    await writeEntries(start, [{ seq: 2, entry: back.entry }], NOW);
    const named = withEdit(back.history, renameLayer(back.history.project, at('b'), 'bridge'))!;
    await writeEntries(start, [{ seq: 3, entry: named.entry }], NOW);
    const { history, warning } = await loadProject(start.id);
    expect(warning).toBeNull();
    expect(names(history.project)).toEqual(['a a', 'b bridge', 'c c']);
  });

  test('a drag that goes on after the fold keeps its last value', async () => {
    const start = projectOf(layers());
    await createProject(start);
    const first = withEdit(freshHistory(start), renameLayer(start, at('a'), 'half way'))!;
    await writeEntries(start, [{ seq: 1, entry: first.entry }], NOW);
    // the fold takes what is written as it is; the same entry goes on
    const last = withEdit(freshHistory(start), renameLayer(start, at('a'), 'all the way'))!;
    await writeEntries(start, [{ seq: 1, entry: last.entry }], NOW);
    await fold(last.history.project, 1);
    expect(names((await loadProject(start.id)).history.project)[0]).toBe('a all the way');
  });

  test('entries are refused when the project is not in the storage any more', async () => {
    const start = projectOf(layers());
    const { entry } = withEdit(freshHistory(start), renameLayer(start, at('a'), 'x'))!;
    await expect(writeEntries(start, [{ seq: 1, entry }], NOW)).rejects.toThrow(
      'is not in this browser’s storage any more. It is complete in this tab: save a copy',
    );
    expect(await (await db()).count('journal')).toBe(0);
  });

  test('a storage that refuses to write says so', async () => {
    const start = projectOf(layers());
    await createProject(start);
    const put = jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const { entry } = withEdit(freshHistory(start), renameLayer(start, at('a'), 'x'))!;
    await expect(writeEntries(start, [{ seq: 1, entry }], NOW)).rejects.toThrow(
      'The last edit could not be kept: the storage is full.',
    );
    put.mockRestore();
  });

  test('one that is open in a tab is not deleted under it', async () => {
    const start = projectOf(layers());
    await createProject(start);
    busy.add(`jackplane project ${start.id}`);
    await expect(deleteProject(start.id, start.name)).rejects.toThrow(
      '“Paper Harbour” is open in another tab. Close it there',
    );
    busy.clear();
    await deleteProject(start.id, start.name);
    await expect(loadProject(start.id)).rejects.toThrow('no such project');
  });

  test('a part that cannot be read is left out and named; the original is kept aside', async () => {
    const start = projectOf(layers());
    await createProject(start);
    const store = await db();
    const record = (await store.get('snapshots', start.id))!;
    (record.snapshot as Project).shots[0]!.layers[1]!.opacity = { still: 70 };
    await store.put('snapshots', record);
    const { history, warning } = await loadProject(start.id);
    expect(names(history.project)).toEqual(['a a', 'c c']);
    expect(warning).toMatch(/opened without what could not be read: layer “b” \(opacity/);
    expect(await storedOriginal(start.id)).toContain('"still": 70');
  });

  test('a journal entry that is damaged costs that step only', async () => {
    const start = projectOf(layers());
    await createProject(start);
    await work(
      start,
      (now) => withEdit(now, renameLayer(now.project, at('a'), 'one')),
      (now) => withEdit(now, renameLayer(now.project, at('b'), 'two')),
    );
    await (
      await db()
    ).put('journal', { project: start.id, seq: 1, entry: { version: 3, kind: 'edit', step: 'nonsense' } });
    const { history, warning } = await loadProject(start.id);
    expect(names(history.project)).toEqual(['a a', 'b two', 'c c']);
    expect(warning).toMatch(/One step of “Paper Harbour” could not be done again/);
  });
});

/** The same as the first version stored it. */
const asFormat1 = ({ tracks: _t, stills: _s, jigs: _j, ...project }: Project) => ({
  ...project,
  format: 1,
  stock: project.stock.map(({ line: _, ...item }) => item),
  shots: project.shots.map(({ within: _, ...shot }) => ({
    ...shot,
    layers: shot.layers.map(({ ends: _e, sound: { effects: _s2, ...sound }, ...layer }) => ({
      ...layer,
      sound,
      source: { kind: 'colour', colour: { still: [0, 0, 0] }, width: 64, height: 36 },
    })),
  })),
});

describe('storage of the first version', () => {
  test('opens with its journal of patches by index, its undo included', async () => {
    enablePatches();
    const start = asFormat1(projectOf(layers()));
    const [one, forward, back] = produceWithPatches(start, (draft) => void draft.shots[0]!.layers.splice(0, 1));
    const [, forward2, back2] = produceWithPatches(one, (draft) => void (draft.shots[0]!.layers[1]!.name = 'sea'));
    const old = await openDB('jackplane', 1, {
      upgrade(store) {
        store.createObjectStore('projects', { keyPath: 'id' });
        store.createObjectStore('journal', { keyPath: ['project', 'seq'] });
        store.createObjectStore('media', { keyPath: ['project', 'stock'] });
        store.createObjectStore('renders', { keyPath: 'id' });
      },
    });
    await old.put('projects', {
      id: start.id,
      name: start.name,
      modified: start.modified,
      poster: null,
      seq: 4,
      snapshot: start,
    });
    const entries = [
      { kind: 'edit', step: { name: 'Delete a', forward, back } },
      { kind: 'edit', step: { name: 'Rename c to sea', forward: forward2, back: back2 } },
      { kind: 'undo' },
      { kind: 'redo' },
    ];
    for (const [i, entry] of entries.entries()) await old.put('journal', { project: start.id, seq: 5 + i, entry });
    old.close();
    const { history, seq, folded, older, warning } = await loadProject(start.id);
    expect(warning).toBeNull();
    expect(seq).toBe(8);
    expect(names(history.project)).toEqual(['b b', 'c sea']);
    expect(history.done.map((step) => step.name)).toEqual(['Delete a', 'Rename c to sea']);
    expect(names(undone(undone(history)!.history)!.history.project)).toEqual(['a a', 'b b', 'c c']);
    // kept in today's format it is the same, its undo included
    await keepUpgraded(start.id, older!, folded);
    const again = await loadProject(start.id);
    expect(again.older).toBeNull();
    expect({ ...again.history, last: 0 }).toEqual({ ...history, last: 0 });
  });
});

test('media that no project has is found and removed; what is being opened is left alone', async () => {
  const start = projectOf(layers());
  await createProject(start);
  const store = await db();
  const record = (project: string) => ({
    project,
    stock: 'plate',
    file: new Blob([new Uint8Array(1000)]),
    poster: null,
    peaks: null,
  });
  for (const project of [start.id, 'cut-short', 'opening']) await store.put('media', record(project));
  busy.add('jackplane project opening');
  const { keys } = await strayMedia();
  expect(keys).toEqual([['cut-short', 'plate']]);
  await removeMedia(keys);
  expect(await store.getAllKeys('media')).toEqual(
    [
      ['opening', 'plate'],
      [start.id, 'plate'],
    ].sort(),
  );
});
