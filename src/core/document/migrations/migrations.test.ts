import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { framesOf } from '../../testing/stand-in';
import { SHOT } from '../../testing/documents';
import { redone, replay, undone, type History } from '../history';
import { projectSchema, type Project } from '../schema';
import { migrated, upgraded } from '.';

// stored by the version that wrote format 1, with the pictures that it computed
const fixture = (name: string): string => new URL(`fixtures/${name}`, import.meta.url).pathname;
const json = (name: string) => JSON.parse(readFileSync(fixture(name), 'utf8')) as unknown;
interface Walk {
  snapshot: unknown;
  past: unknown[];
  entries: unknown[];
  end: unknown;
}
const walks = json('walks-1.json') as Walk[];
const opened = (raw: unknown): Project => projectSchema.parse(migrated(raw));

/** Small pictures of 64×36 that stand in a row of a sheet. */
async function pictures(sheet: string, row: number, count: number): Promise<Buffer[]> {
  const cut = (i: number) =>
    sharp(fixture(sheet))
      .ensureAlpha()
      .extract({ left: 64 * i, top: 36 * row, width: 64, height: 36 })
      .raw()
      .toBuffer();
  return Promise.all(Array.from({ length: count }, (_, i) => cut(i)));
}
/** The greatest difference of a part of a pixel; where both are clear, colours do not count. */
const apart = (a: Uint8Array, b: Uint8Array): number =>
  a.reduce((most, v, i) => (a[i | 3] || b[i | 3] ? Math.max(most, Math.abs(v - b[i]!)) : most), 0);

describe('documents of format 1', () => {
  const harbour = opened(json('harbour-1.json'));

  test.each(harbour.shots.map((shot, row) => ({ name: shot.name, id: shot.id, row })))(
    'the shot $name opens and shows the same picture on every frame looked at',
    async ({ id, row }) => {
      // of the twenty that are stored every third
      const stored = [0, 3, 6, 9, 12, 15, 18];
      const [then, now] = [
        await pictures('harbour-1.png', row, 20),
        await framesOf(
          harbour,
          id,
          stored.map((i) => i * 6 + (i % 5)),
          4,
          5,
        ),
      ];
      expect(now.map((picture, i) => apart(picture, then[stored[i]!]!)).filter((most) => most > 1)).toEqual([]);
    },
  );

  test.each(walks.map((walk, row) => ({ walk, row })))(
    'what random edits made opens and shows the same, $row',
    async ({ walk, row }) => {
      const frames = Array.from({ length: 24 }, (_, i) => i * 2);
      const [then, now] = [
        await pictures('walks-1.png', row, 24),
        await framesOf(opened(walk.end), SHOT, frames, 1, 1),
      ];
      expect(now.map((picture, i) => apart(picture, then[i]!)).filter((most) => most > 1)).toEqual([]);
    },
  );

  test('what is in today’s format stays the same object', () => expect(migrated(harbour)).toBe(harbour));
});

describe('journals of format 1', () => {
  test.each(walks.map((walk, row) => ({ walk, row })))(
    'are replayed to the document that they led to, and undone to the one that they began with, $row',
    ({ walk }) => {
      const stored = upgraded(walk);
      expect([stored.older, stored.lost, stored.past.length]).toEqual([true, 0, walk.past.length]);
      const { history, skipped } = replay(projectSchema.parse(stored.snapshot), stored.past, stored.entries);
      expect(skipped).toEqual([]);
      // as it is read: what came later has its default
      expect(projectSchema.parse(history.project)).toEqual(opened(walk.end));
      let back: History = history;
      for (let next = undone(back); next; next = undone(back)) back = next.history;
      expect(projectSchema.safeParse(back.project).success).toBe(true);
      for (let next = redone(back); next; next = redone(back)) back = next.history;
      expect(projectSchema.safeParse(back.project).success).toBe(true);
      // what is stored then is read as it is
      expect(upgraded({ ...stored })).toMatchObject({ older: false, entries: stored.entries });
    },
  );

  test('a bad entry is named and skipped, and those after it are done', () => {
    const { snapshot, past, entries } = walks[0]!;
    const stored = upgraded({ snapshot, past, entries: [{ version: 2, kind: 'edit', step: 7 }, ...entries] });
    const { history, skipped } = replay(projectSchema.parse(stored.snapshot), stored.past, stored.entries);
    expect(skipped).toHaveLength(1);
    expect(projectSchema.parse(history.project)).toEqual(opened(walks[0]!.end));
  });
});
