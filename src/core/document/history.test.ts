import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyEdit, colourSource, layerOf, projectOf } from '../testing/documents';
import { freshHistory, redone, replay, undone, withEdit, type History, type JournalEntry } from './history';
import { projectSchema } from './schema';

const start = () => projectOf([layerOf('deck', colourSource([0.1, 0.2, 0.4]))]);
const steps = fc.array(anyEdit, { minLength: 1, maxLength: 25 });

function edited(history: History, makers: readonly (typeof anyEdit extends fc.Arbitrary<infer T> ? T : never)[], journal: JournalEntry[] = []): History {
  for (const make of makers) {
    const result = withEdit(history, make(history.project));
    if (!result) continue;
    history = result.history;
    journal.push(result.entry);
  }
  return history;
}

describe('history', () => {
  test('undoing everything gives back the very document that was begun with', () => {
    fc.assert(
      fc.property(steps, (makers) => {
        const first = start();
        let history = edited(freshHistory(first), makers);
        for (let back = undone(history); back; back = undone(history)) history = back;
        expect(history.project).toEqual(first);
      }),
    );
  });

  test('redo after undo gives the same document again', () => {
    fc.assert(
      fc.property(steps, (makers) => {
        const history = edited(freshHistory(start()), makers);
        const back = undone(history);
        fc.pre(back !== null);
        expect(redone(back!)!.project).toEqual(history.project);
      }),
    );
  });

  test('every document that edits can make follows the schema', () => {
    fc.assert(
      fc.property(steps, (makers) => {
        const { project } = edited(freshHistory(start()), makers);
        expect(projectSchema.parse(JSON.parse(JSON.stringify(project)))).toEqual(project);
      }),
    );
  });

  test('replaying the journal gives the document and its undo steps, after JSON too', () => {
    fc.assert(
      fc.property(steps, fc.array(fc.boolean(), { maxLength: 8 }), (makers, moves) => {
        const first = start();
        const journal: JournalEntry[] = [];
        let history = edited(freshHistory(first), makers, journal);
        for (const back of moves) {
          const next = back ? undone(history) : redone(history);
          if (!next) continue;
          history = next;
          journal.push({ kind: back ? 'undo' : 'redo' });
        }
        const again = replay(first, JSON.parse(JSON.stringify(journal)) as JournalEntry[]);
        expect(again.project).toEqual(history.project);
        expect(again.done.map((step) => step.name)).toEqual(history.done.map((step) => step.name));
        expect(again.undone.length).toBe(history.undone.length);
      }),
    );
  });

  test('a new edit ends what could be redone', () => {
    const first = edited(freshHistory(start()), [(project) => ({ name: 'Rename', apply: (draft) => void (draft.name = `${project.name}!`) })]);
    const back = undone(first)!;
    const other = withEdit(back, { name: 'Other', apply: (draft) => void (draft.name = 'other') })!.history;
    expect(redone(other)).toBeNull();
    expect(other.done.at(-1)!.name).toBe('Other');
  });

  test('an edit that changes nothing is no step', () => {
    expect(withEdit(freshHistory(start()), { name: 'Nothing', apply: (draft) => void (draft.name = 'Paper Harbour') })).toBeNull();
  });
});

test('a step remembers where the work was, through undo, redo and a replay of the journal', () => {
  const where = { shot: 'shot-1', layer: 'deck', frame: 17 };
  const first = start();
  const { history, entry } = withEdit(freshHistory(first), { name: 'Rename', apply: (draft) => void (draft.name = 'Other') }, where)!;
  expect(history.done.at(-1)!.where).toEqual(where);
  expect(undone(history)!.undone[0]!.where).toEqual(where);
  expect(replay(first, JSON.parse(JSON.stringify([entry])) as JournalEntry[]).done.at(-1)!.where).toEqual(where);
});
