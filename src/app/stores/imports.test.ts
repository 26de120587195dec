import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import type { Edit } from '../../core/document/edit';
import { newProject } from '../../core/document/edits/project';
import type { Project, ProjectId } from '../../core/document/schema';
import { JackplaneError } from '../../core/base/errors';

const FACTS = { width: 4, height: 2, codec: 'PNG', alpha: false, bytes: 9 };
let project: Project;
const store = {
  readOnly: false,
  current: () => project,
  addMedia: jest.fn(),
  edit: (edit: Edit) => {
    const draft = structuredClone(project);
    edit.apply(draft);
    project = draft;
  },
};
const stored: string[] = [];
const engine = {
  cache: { clear: () => undefined },
  replaceStock: jest.fn(() => Promise.resolve()),
  probe: jest.fn((file: File) => {
    if (file.name.includes('bad'))
      return Promise.reject(new JackplaneError('bad-media', `“${file.name}” is damaged.`, 'Export it again.'));
    if (file.name.includes('odd')) return Promise.reject(new TypeError('x is undefined'));
    return Promise.resolve({ kind: 'image' as const, facts: FACTS, poster: null, peaks: null });
  }),
};
jest.unstable_mockModule('./project', () => ({ useProject: () => store }));
jest.unstable_mockModule('../../engine/client', () => ({ useEngine: () => Promise.resolve(engine) }));
jest.unstable_mockModule('../storage/media', () => ({
  storeMedia: (_: unknown, name: string) =>
    name.includes('full')
      ? Promise.reject(
          new JackplaneError('storage', `“${name}” could not be stored: the storage is full.`, 'Delete something.'),
        )
      : (stored.push(name), Promise.resolve()),
}));
jest.unstable_mockModule('./grades', () => ({ isGradeFile: () => false, useGrades: () => ({}) }));
jest.unstable_mockModule('./drawings', () => ({ isDrawing: () => false, openDrawing: () => Promise.resolve() }));
const { useImports } = await import('./imports');

const file = (name: string, size = 9) => Object.defineProperty(new File(['picture'], name), 'size', { value: size });

beforeEach(() => {
  setActivePinia(createPinia());
  project = newProject('p' as ProjectId, 'P', '2026-01-12T18:30:00.000Z');
  store.readOnly = false;
  stored.length = 0;
});

describe('imports', () => {
  test('each wrong file is said and the others go on; what is taken in has a name that the document accepts', async () => {
    const imports = useImports();
    const taken = await imports.take([
      file('one.png'),
      file('bad.png'),
      file('odd.png'),
      file('full.png'),
      file('huge.mp4', 5e9),
      file('_.png'),
      file('../../up_here.png'),
    ]);
    expect(taken.map((item) => item.name)).toEqual(['one', 'untitled', 'up here']);
    expect(project.stock.map((item) => item.file)).toEqual(['one.png', '_.png', 'up_here.png']);
    expect(imports.jobs.map((job) => job.problem)).toEqual([
      expect.stringContaining('“bad.png” is damaged.'),
      expect.stringContaining('does not know'),
      expect.stringContaining('“full.png” could not be stored'),
      expect.stringContaining('“huge.mp4” is 5.0 GB'),
    ]);
    expect(stored).toEqual(['one.png', '_.png', '../../up_here.png']);
  });

  test('one that is cancelled becomes no stock', async () => {
    const imports = useImports();
    const taking = imports.take([file('one.png'), file('two.png')]);
    imports.dismiss(imports.jobs[1]!.id);
    expect((await taking).map((item) => item.name)).toEqual(['one']);
  });

  test('in a tab that only looks on nothing is taken in or stored', async () => {
    store.readOnly = true;
    expect(await useImports().take([file('one.png')])).toEqual([]);
    expect(stored).toEqual([]);
  });

  test('missing media that is linked again keeps its place in stock', async () => {
    const imports = useImports();
    const [item] = await imports.take([file('one.png')]);
    await imports.relink(item!.id, file('other.png'));
    expect(project.stock).toHaveLength(1);
    expect(project.stock[0]).toMatchObject({ id: item!.id, name: 'one', file: 'other.png' });
  });
});
