import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { strToU8, zipSync, type Zippable } from 'fflate';
import sharp from 'sharp';
import { freshHistory, withEdit } from '../document/history';
import type { Project } from '../document/schema';
import { anyEdit, colourSource, layerOf, projectOf } from '../testing/documents';
import { safeName, stockName, withEnding } from './names';
import { encodePng } from './png';
import { LIMITS, readProjectFile, writeProjectFile } from './project-file';

const project = projectOf([layerOf('deck', colourSource([0, 0, 1]))]);
const zipOf = (entries: Zippable) => zipSync(entries);
const blob = (data: Uint8Array) => new Blob([data as Uint8Array<ArrayBuffer>]);
const withProject = (change: (raw: Record<string, unknown>) => void) => {
  const raw = structuredClone(project) as unknown as Record<string, unknown>;
  change(raw);
  return zipOf({ 'project.json': strToU8(JSON.stringify(raw)) });
};

describe('project files', () => {
  test('reading what was written gives the document and the media back', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(anyEdit, { maxLength: 10 }),
        fc.uint8Array({ minLength: 1, maxLength: 5000 }),
        async (makers, bytes) => {
          let history = freshHistory(project);
          for (const make of makers) history = withEdit(history, make(history.project))?.history ?? history;
          const file = await writeProjectFile(
            history.project,
            new Map([['plate', new Blob([bytes as Uint8Array<ArrayBuffer>])]]),
          );
          const read = await readProjectFile(file, 'a.jackplane');
          expect(read.project).toEqual(history.project);
          expect(new Uint8Array(await read.media.get('plate')!.arrayBuffer())).toEqual(bytes);
        },
      ),
      { numRuns: 20 },
    );
  });

  test('a project without its media opens all the same', async () => {
    const read = await readProjectFile(await writeProjectFile(project, new Map()), 'a.jackplane');
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
  ])('%s is refused in a sentence that names the file', async (_, make, reason) => {
    await expect(readProjectFile(blob(make()), 'harbour.jackplane')).rejects.toThrow(reason);
    await expect(readProjectFile(blob(make()), 'harbour.jackplane')).rejects.toThrow(/harbour\.jackplane/);
  });

  test('a bomb is stopped at the limit instead of unpacked', async () => {
    const bomb = zipOf({ 'project.json': [new Uint8Array(30e6), { level: 9 }] });
    expect(bomb.length).toBeLessThan(100_000);
    await expect(readProjectFile(blob(bomb), 'bomb.jackplane', { ...LIMITS, json: 1e6 })).rejects.toThrow(
      /more than 1 MB/,
    );
    // and by how much it grows, whatever its size
    await expect(readProjectFile(blob(bomb), 'bomb.jackplane', { ...LIMITS, ratio: 100 })).rejects.toThrow(
      /unpacks to more than/,
    );
  });

  test('media that no stock names is not unpacked, however large', async () => {
    const file = zipOf({
      'project.json': strToU8(JSON.stringify(project)),
      'media/nobody/bomb.bin': [new Uint8Array(30e6), { level: 9 }],
    });
    const { media } = await readProjectFile(blob(file), 'a.jackplane', { ...LIMITS, media: 1e6 });
    expect(media.size).toBe(0);
  });

  test('media whose checksum is wrong is refused', async () => {
    const file = new Uint8Array(
      await (
        await writeProjectFile(project, new Map([['plate', new Blob([new Uint8Array(3000).fill(7)])]]))
      ).arrayBuffer(),
    );
    const at = file.findIndex((_, i) => file.subarray(i, i + 50).every((byte) => byte === 7));
    file[at + 20] = 8;
    await expect(readProjectFile(blob(file), 'a.jackplane')).rejects.toThrow(
      /damaged at “media\/plate\/plate\.webm”: its checksum is wrong/,
    );
  });

  test('a part that cannot be read is left out and named, the rest opens', async () => {
    const { project: read, left } = await readProjectFile(
      blob(
        withProject((raw) => {
          const [shot] = raw['shots'] as Project['shots'];
          shot!.layers.push(
            { ...structuredClone(shot!.layers[0]!), id: 'bad' as never, name: ' ' },
            { ...structuredClone(shot!.layers[0]!), id: 'kite' as never, name: 'kite', passes: [] },
          );
        }),
      ),
      'a.jackplane',
    );
    expect(read.shots[0]!.layers.map((layer) => layer.name)).toEqual(['deck', 'kite']);
    expect(left).toEqual([expect.stringMatching(/^layer “ ” \(name: /)]);
  });

  test('more entries than there may be are refused', async () => {
    const many = Object.fromEntries(Array.from({ length: 60 }, (_, i) => [`media/x/${i}`, new Uint8Array(1)]));
    await expect(readProjectFile(blob(zipOf(many)), 'many.jackplane', { ...LIMITS, entries: 50 })).rejects.toThrow(
      /more than 50/,
    );
  });

  test('whatever is cut off or changed, there is an answer and never a crash of another kind', async () => {
    const file = new Uint8Array(
      await (
        await writeProjectFile(project, new Map([['plate', new Blob([new Uint8Array(500).map((_, i) => i)])]]))
      ).arrayBuffer(),
    );
    await fc.assert(
      fc.asyncProperty(fc.nat(file.length - 1), fc.nat(255), fc.boolean(), async (at, value, cut) => {
        const bent = cut ? file.slice(0, at) : file.slice();
        if (!cut) bent[at] = value;
        const outcome = await readProjectFile(blob(bent), 'bent.jackplane').then(
          ({ project: read }): Project | string => read,
          (error: Error) => error.name,
        );
        if (typeof outcome === 'string') expect(outcome).toBe('JackplaneError');
      }),
      { numRuns: 300 },
    );
  });
});

describe('PNG', () => {
  test('an independent decoder reads every colour and alpha back, also where alpha is 0', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 20 }),
        fc.nat(),
        async (w, h, seed) => {
          const pixels = Uint8ClampedArray.from({ length: w * h * 4 }, (_, i) => ((i + seed) * 2654435761) >>> 24);
          const { data, info } = await sharp(encodePng(pixels, w, h))
            .raw()
            .toBuffer({ resolveWithObject: true });
          expect(info).toMatchObject({ width: w, height: h, channels: 4 });
          expect([...data]).toEqual([...pixels]);
        },
      ),
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

  test('what a file is called in stock is a name that the document accepts, whatever the file is called', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (name) => {
        const stock = stockName(name);
        expect(stock).toBe(stock.trim());
        expect(stock.length).toBeGreaterThan(0);
        expect(stock.length).toBeLessThanOrEqual(200);
      }),
    );
    expect([stockName('_.png'), stockName('paper-kite_2.PNG')]).toEqual(['untitled', 'paper kite 2']);
  });
});
