import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { strToU8, zipSync, type Zippable } from 'fflate';
import sharp from 'sharp';
import { freshHistory, withEdit } from '../document/history';
import type { Project } from '../document/schema';
import { anyEdit, colourSource, layerOf, projectOf } from '../testing/documents';
import { safeName, withEnding } from './names';
import { encodePng } from './png';
import { LIMITS, readProjectFile, writeProjectFile } from './project-file';

const project = projectOf([layerOf('deck', colourSource([0, 0, 1]))]);
const zipOf = (entries: Zippable) => zipSync(entries);
const withProject = (change: (raw: Record<string, unknown>) => void) => {
  const raw = structuredClone(project) as unknown as Record<string, unknown>;
  change(raw);
  return zipOf({ 'project.json': strToU8(JSON.stringify(raw)) });
};

describe('project files', () => {
  test('reading what was written gives the document and the media back', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyEdit, { maxLength: 10 }), fc.uint8Array({ minLength: 1, maxLength: 5000 }), async (makers, bytes) => {
        let history = freshHistory(project);
        for (const make of makers) history = withEdit(history, make(history.project))?.history ?? history;
        const file = writeProjectFile(history.project, new Map([['plate', bytes]]));
        const read = readProjectFile(file, 'a.jackplane');
        expect(read.project).toEqual(history.project);
        expect(read.media.get('plate')).toEqual(bytes);
      }),
      { numRuns: 20 },
    );
  });

  test('a project without its media opens all the same', async () => {
    const read = readProjectFile(writeProjectFile(project, new Map()), 'a.jackplane');
    expect(read.project.stock).toHaveLength(1);
    expect(read.media.size).toBe(0);
  });

  test.each<[string, () => Uint8Array, RegExp]>([
    ['a file that is not a zip', () => strToU8('hello'), /not a zip/],
    ['an empty file', () => new Uint8Array(), /not a zip/],
    ['a zip without a project', () => zipOf({ 'readme.txt': strToU8('hi') }), /no project\.json/],
    ['broken JSON', () => zipOf({ 'project.json': strToU8('{"format":1') }), /not valid JSON/],
    ['wrong types', () => withProject((raw) => (raw['shots'] = 'none')), /shots/],
    ['a newer format', () => withProject((raw) => (raw['format'] = 99)), /newer Jackplane/],
    ['a path that climbs out', () => zipOf({ '../../evil': strToU8('x'), 'project.json': strToU8('{}') }), /leads out/],
    ['an absolute path', () => zipOf({ '/etc/passwd': strToU8('x') }), /leads out/],
    ['a backslash path', () => zipOf({ 'media\\..\\x': strToU8('x') }), /leads out/],
  ])('%s is refused in a sentence that names the file', (_, make, reason) => {
    expect(() => readProjectFile(make(), 'harbour.jackplane')).toThrow(reason);
    expect(() => readProjectFile(make(), 'harbour.jackplane')).toThrow(/harbour\.jackplane/);
  });

  test('a bomb is stopped at the limit instead of unpacked', () => {
    const bomb = zipOf({ 'project.json': [new Uint8Array(30e6), { level: 9 }] });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => readProjectFile(bomb, 'bomb.jackplane', { ...LIMITS, json: 1e6 })).toThrow(/more than 1 MB/);
  });

  test('more entries than there may be are refused', () => {
    const many = Object.fromEntries(Array.from({ length: 60 }, (_, i) => [`media/x/${i}`, new Uint8Array(1)]));
    expect(() => readProjectFile(zipOf(many), 'many.jackplane', { ...LIMITS, entries: 50 })).toThrow(/more than 50/);
  });

  test('whatever is cut off or changed, there is an answer and never a crash of another kind', async () => {
    const file = writeProjectFile(project, new Map([['plate', new Uint8Array(500).map((_, i) => i)]]));
    fc.assert(
      fc.property(fc.nat(file.length - 1), fc.nat(255), fc.boolean(), (at, value, cut) => {
        const bent = cut ? file.slice(0, at) : file.slice();
        if (!cut) bent[at] = value;
        let outcome: Project | string;
        try {
          outcome = readProjectFile(bent, 'bent.jackplane').project;
        } catch (error) {
          outcome = (error as Error).name;
        }
        if (typeof outcome === 'string') expect(outcome).toBe('JackplaneError');
      }),
      { numRuns: 300 },
    );
  });
});

describe('PNG', () => {
  test('an independent decoder reads every colour and alpha back, also where alpha is 0', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 }), fc.nat(), async (w, h, seed) => {
        const pixels = Uint8ClampedArray.from({ length: w * h * 4 }, (_, i) => ((i + seed) * 2654435761) >>> 24);
        const { data, info } = await sharp(encodePng(pixels, w, h)).raw().toBuffer({ resolveWithObject: true });
        expect(info).toMatchObject({ width: w, height: h, channels: 4 });
        expect([...data]).toEqual([...pixels]);
      }),
      { numRuns: 20 },
    );
  });
});

describe('names', () => {
  test.each([
    ['shot', 'shot.webm'],
    ['shot.webm', 'shot.webm'],
    ['shot.mp4', 'shot.webm'],
    ['take 2.5', 'take 2.5.webm'],
    ['  ', 'untitled.webm'],
  ])('“%s” is written as “%s”', (name, written) => expect(withEnding(name, 'webm')).toBe(written));

  test('a safe name has no folder, no leading dot and no sign that a system forbids', () => {
    fc.assert(
      fc.property(fc.string(), (name) => {
        const safe = safeName(name);
        expect(safe).not.toMatch(/[\\/<>:"|?*\0]/);
        expect(safe.startsWith('.')).toBe(false);
        expect(safe.length).toBeGreaterThan(0);
      }),
    );
    expect(safeName('../../etc/passwd')).toBe('passwd');
  });
});
