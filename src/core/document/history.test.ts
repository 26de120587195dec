import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyEdit, clipStock, colourSource, layerOf, projectOf, SHOT, shotOf } from '../testing/documents';
import { perform } from './edit';
import { removeLayer, renameLayer } from './edits/layers';
import { newPass, removePass, setPassValue } from './edits/passes';
import { addShot, addStock, removeStock } from './edits/project';
import {
  freshHistory,
  nextRedo,
  nextUndo,
  redone,
  replay,
  undone,
  withEdit,
  type History,
  type JournalEntry,
} from './history';
import {
  projectSchema,
  type Layer,
  type LayerId,
  type Pass,
  type PassId,
  type Project,
  type ShotId,
  type StockId,
} from './schema';

const start = () => projectOf([layerOf('deck', colourSource([0.1, 0.2, 0.4]))]);
const steps = fc.array(anyEdit, { minLength: 1, maxLength: 25 });

function edited(
  history: History,
  makers: readonly (typeof anyEdit extends fc.Arbitrary<infer T> ? T : never)[],
  journal: JournalEntry[] = [],
): History {
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
        for (let back = undone(history); back; back = undone(history)) history = back.history;
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
        expect(redone(back!.history)!.history.project).toEqual(history.project);
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

  test('replaying the journal gives the document and its undo steps, after JSON too, wherever it was folded', () => {
    fc.assert(
      fc.property(
        steps,
        fc.array(fc.boolean(), { maxLength: 8 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (makers, moves, share) => {
          const first = start();
          const journal: JournalEntry[] = [];
          let history = edited(freshHistory(first), makers, journal);
          for (const back of moves) {
            const next = back ? undone(history) : redone(history);
            if (!next) continue;
            history = next.history;
            journal.push(next.entry);
          }
          const stored = JSON.parse(JSON.stringify(journal)) as JournalEntry[];
          // folded here: what lies before is in the snapshot already
          const cut = Math.floor(share * stored.length);
          const snapshot = replay(first, [], stored.slice(0, cut)).history.project;
          const again = replay(
            JSON.parse(JSON.stringify(snapshot)) as Project,
            stored.slice(0, cut),
            stored.slice(cut),
          );
          expect(again.skipped).toEqual([]);
          expect(JSON.parse(JSON.stringify(again.history.project))).toEqual(
            JSON.parse(JSON.stringify(history.project)),
          );
          expect(again.history.done.map((step) => step.name)).toEqual(history.done.map((step) => step.name));
          expect(again.history.undone.map((step) => step.id)).toEqual(history.undone.map((step) => step.id));
          // and what was done before the fold can still be undone
          for (let back = undone(again.history); back; back = undone(again.history))
            (again as { history: History }).history = back.history;
          expect(JSON.parse(JSON.stringify(again.history.project))).toEqual(JSON.parse(JSON.stringify(first)));
        },
      ),
    );
  });

  test('an undone deletion is followed by an edit of what came back, and no other layer is touched', () => {
    const [a, b, c] = ['a', 'b', 'c'].map((id) => layerOf(id, colourSource([0, 0, 0]))) as [Layer, Layer, Layer];
    const first = projectOf([a, b, c]);
    const removed = withEdit(freshHistory(first), removeLayer(first, { shot: SHOT, layer: a.id }))!;
    const back = undone(removed.history)!;
    const named = withEdit(back.history, renameLayer(back.history.project, { shot: SHOT, layer: b.id }, 'bridge'))!;
    const entries = [removed.entry, back.entry, named.entry];
    // the deletion lies before the fold
    const again = replay(removed.history.project, entries.slice(0, 1), entries.slice(1)).history.project;
    expect(again.shots[0]!.layers.map((layer) => [layer.id, layer.name])).toEqual([
      ['a', 'a'],
      ['b', 'bridge'],
      ['c', 'c'],
    ]);
  });

  test('a deletion that was written down before a pass had all of its present dials is replayed, and undone', () => {
    const wheels = newPass('w' as PassId, 'wheels');
    const { saturation: _, ...fewer } = wheels.values;
    const at = { shot: SHOT, layer: 'deck' as LayerId };
    const old = projectOf([
      layerOf('deck', colourSource([0.1, 0.2, 0.4]), { passes: [{ ...wheels, values: fewer } as Pass] }),
    ]);
    const { entry } = withEdit(freshHistory(old), removePass(old, at, wheels.id))!;
    // what is stored is read with the dials that came since
    const { history, skipped } = replay(projectSchema.parse(old), [], [JSON.parse(JSON.stringify(entry))]);
    expect(skipped).toEqual([]);
    expect(history.project.shots[0]!.layers[0]!.passes).toEqual([]);
    const back = undone(history)!.history.project;
    expect(projectSchema.parse(back)).toEqual(projectSchema.parse(old));
    // but not when something else has changed
    const other = perform(projectSchema.parse(old), setPassValue(old, at, wheels.id, 'liftTo', 0.5))!.project;
    expect(replay(other, [], [entry]).skipped).toHaveLength(1);
  });

  test('a damaged entry is skipped by name, the others are done', () => {
    const first = start();
    const one = withEdit(freshHistory(first), { name: 'One', apply: (draft) => void (draft.name = 'one') })!;
    const lost = withEdit(one.history, { name: 'Lost', apply: (draft) => void (draft.name = 'lost') })!;
    const two = withEdit(lost.history, { name: 'Two', apply: (draft) => void (draft.shots[0]!.length = 77) })!;
    const { history, skipped } = replay(
      first,
      [],
      [
        one.entry,
        {
          ...lost.entry,
          step: { ...lost.entry.step, changes: [{ kind: 'set', path: ['name'], from: 'other', to: 'x' }] },
        },
        { nonsense: true },
        two.entry,
      ],
    );
    expect(skipped.map((entry) => entry.name)).toEqual(['Lost', 'a step']);
    expect([history.project.name, history.project.shots[0]!.length]).toEqual(['one', 77]);
  });

  test('an undo takes the open shot’s own step and leaves another shot’s alone', () => {
    const first = perform(start(), addShot(shotOf({ id: 'shot-2' as ShotId, name: 'Other' })))!.project;
    const rename = (id: string, name: string) => ({
      name,
      apply: (draft: Project) => void (draft.shots.find((shot) => shot.id === id)!.name = name),
    });
    const here = withEdit(freshHistory(first), rename('shot-1', 'here'))!.history;
    const there = withEdit(here, rename('shot-2', 'there'))!.history;
    const back = undone(there, 'shot-1')!;
    expect(back.history.project.shots.map((shot) => shot.name)).toEqual(['Night ferry', 'there']);
    expect(nextUndo(back.history, 'shot-1')).toBeNull();
    expect(nextRedo(back.history, 'shot-2')).toBeNull();
    expect(redone(back.history, 'shot-1')!.history.project.shots[0]!.name).toBe('here');
  });

  test('a step of the project that a shot has built on since is refused in words, with nothing changed', () => {
    const deleted = withEdit(freshHistory(start()), removeStock(start(), ['plate' as StockId]))!.history;
    const stock = withEdit(deleted, addStock(clipStock('newer')))!.history;
    const out = { ...stock, done: stock.done.slice(0, 1) };
    expect(() => undone(out, SHOT)).toThrow(/cannot be undone: another shot has changed/);
  });

  test('a new edit ends what could be redone', () => {
    const first = edited(freshHistory(start()), [
      (project) => ({ name: 'Rename', apply: (draft) => void (draft.name = `${project.name}!`) }),
    ]);
    const back = undone(first)!;
    const other = withEdit(back.history, { name: 'Other', apply: (draft) => void (draft.name = 'other') })!.history;
    expect(redone(other)).toBeNull();
    expect(other.done.at(-1)!.name).toBe('Other');
  });

  test('an edit that changes nothing is no step', () => {
    expect(
      withEdit(freshHistory(start()), { name: 'Nothing', apply: (draft) => void (draft.name = 'Paper Harbour') }),
    ).toBeNull();
  });
});

test('a step remembers where the work was, through undo, redo and a replay of the journal', () => {
  const where = { shot: 'shot-1', layer: 'deck', frame: 17 };
  const first = start();
  const { history, entry } = withEdit(
    freshHistory(first),
    { name: 'Rename', apply: (draft) => void (draft.name = 'Other') },
    where,
  )!;
  expect(history.done.at(-1)!.where).toEqual(where);
  expect(undone(history)!.history.undone[0]!.where).toEqual(where);
  expect(replay(first, [], JSON.parse(JSON.stringify([entry])) as JournalEntry[]).history.done.at(-1)!.where).toEqual(
    where,
  );
});

test('an entry of a drag that came back to where it began is no step to undo', () => {
  const first = start();
  const step = { id: 1, name: 'Nothing', scope: 'project', changes: [] };
  const nothing: JournalEntry = { version: 3, kind: 'edit', step };
  for (const { history } of [replay(first, [nothing], []), replay(first, [], [nothing])]) {
    expect(history.done).toEqual([]);
    expect(history.project).toEqual(first);
  }
});
