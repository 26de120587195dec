import { describe, expect, test } from '@jest/globals';
import * as hb from 'harfbuzzjs';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { plainFont } from '../formats/font-file';
import { placedRings } from '../masks/outline';
import { fillRings } from '../masks/raster';
import { setLines, setRows } from './layout';
import { centred } from './fonts';
import { bareLineOf, lineOf, readFont } from './line';

const fontIn = async (path: string) =>
  readFont(
    await plainFont(readFileSync(join(import.meta.dirname, '../../../node_modules/@fontsource', path)), path),
    path,
  );
const font = await fontIn('archivo/files/archivo-latin-700-normal.woff');
const further = await fontIn('archivo/files/archivo-latin-ext-700-normal.woff');
const drawn = (text: string) =>
  fillRings(placedRings(centred(lineOf([font], text)), { centre: [0, 0], rotation: 0 }, 40, [100, 40]), 200, 80);

test('capitals are as tall as asked and stand in the middle', () => {
  const plane = drawn('H');
  const rows = Array.from({ length: 80 }, (_, y) => Math.max(...plane.subarray(y * 200, y * 200 + 200)));
  expect(rows.findIndex((v) => v > 0.5)).toBe(20);
  expect(rows.findLastIndex((v) => v > 0.5)).toBe(59);
  const mean = plane.reduce((sum, v, i) => sum + v * ((i % 200) + 0.5), 0) / plane.reduce((sum, v) => sum + v, 0);
  expect(Math.abs(mean - 100)).toBeLessThan(1);
});

test('a letter with a hole has a hole; three strokes are three', () => {
  const ring = drawn('O');
  expect(ring[40 * 200 + 100]).toBe(0);
  const row = drawn('III').subarray(40 * 200, 41 * 200);
  let strokes = 0;
  for (let x = 1; x < 200; x++) if (row[x]! > 0.5 && row[x - 1]! <= 0.5) strokes++;
  expect(strokes).toBe(3);
  expect(lineOf([font], '').rings).toEqual([]);
});

describe('a line of text', () => {
  test('is as wide as its letters, less where a pair stands closer', () => {
    expect(lineOf([font], 'HHH').width).toBeCloseTo(3 * lineOf([font], 'H').width, 9);
    expect(lineOf([font], 'AV').width).toBeLessThan(lineOf([font], 'A').width + lineOf([font], 'V').width);
  });
  test('tracking adds its share between letters, not after the last', () => {
    expect(lineOf([font], 'boat', 0.5).width - lineOf([font], 'boat').width).toBeCloseTo(1.5, 9);
  });
  test('a letter comes from the next font when the first has none, as large; one that none has is told', () => {
    expect(lineOf([font], 'ł').missing).toBe('ł');
    const both = lineOf([font, further], 'ł');
    expect([both.missing, both.rings.length > 0]).toEqual(['', true]);
    expect(lineOf([font, further], '船 a').missing).toBe('船');
  });
});

test('a bare line stands where its outlines begin', () => {
  const [bare, whole] = [bareLineOf, lineOf].map((set) => set([font, further], 'Wałbrzych AV', 0.1));
  expect(bare!.rings).toEqual([]);
  expect(bare!.ends).toHaveLength(whole!.ends.length);
  expect([bare!.starts, bare!.width]).toEqual([whole!.starts, whole!.width]);
  // a letter's outline begins close to where the letter does
  whole!.starts.forEach((start, l) => {
    const own = whole!.rings
      .slice(l ? whole!.ends[l - 1] : 0, whole!.ends[l])
      .flatMap((ring) => [...ring.filter((_, i) => i % 2 === 0)]);
    if (own.length) expect(Math.abs(Math.min(...own) - start)).toBeLessThan(0.25);
  });
});

describe('lines set together', () => {
  const texts = ['Paper', 'Harbour lights'];
  const lines = texts.map((text) => lineOf([font], text));
  const rings = (...args: Parameters<typeof setLines>) => setLines(...args).flatMap((letter) => letter.rings);
  const set = (align: 'left' | 'centre' | 'right', shown = 1) =>
    rings(lines, texts, { height: 40, leading: 2, align, shown });
  const reach = (rings: readonly Float64Array[], axis: 0 | 1): [number, number] => {
    const all = rings.flatMap((ring) => [...ring].filter((_, i) => i % 2 === axis));
    return [Math.min(...all), Math.max(...all)];
  };
  const [first, second] = [lines[0]!.rings.length, lines[1]!.rings.length];
  test.each([
    ['left', 0],
    ['right', 1],
  ] as const)('at the %s they meet', (align, end) => {
    const all = set(align);
    expect(all).toHaveLength(first + second);
    const [a, b] = [reach(all.slice(0, first), 0), reach(all.slice(first), 0)];
    // both begin or end where their outer letters do, a little inside
    expect(Math.abs(a[end] - b[end])).toBeLessThan(4);
  });
  test('baselines are as far apart as asked, and the block is centred', () => {
    const all = set('centre');
    const h = lineOf([font], 'H').rings.length;
    expect(h).toBeGreaterThan(0);
    const two = rings(
      ['H', 'H'].map((text) => lineOf([font], text)),
      ['H', 'H'],
      { height: 40, leading: 2, align: 'centre', shown: 1 },
    );
    const [top, bottom] = [reach(two.slice(0, h), 1), reach(two.slice(h), 1)];
    expect(bottom[1] - top[1]).toBeCloseTo(80, 6);
    expect(top[0] + bottom[1]).toBeCloseTo(0, 6);
    const [left, right] = reach(all, 0);
    expect(Math.abs(left + right)).toBeLessThan(6);
  });
  test('lines that are too long go on in the next row, broken at spaces; one word is never broken', () => {
    const text = 'a lantern at sea tonight';
    const line = lineOf([font], text);
    const rowsAt = (wrap: number) => {
      const letters = setLines([line], [text], { height: 40, leading: 2, align: 'centre', shown: 1, wrap });
      const rows = new Map<number, number[]>();
      for (const { rings: own, line: row } of letters)
        for (const ring of own) rows.set(row, [...(rows.get(row) ?? []), ...[...ring].filter((_, i) => i % 2 === 0)]);
      return [...rows.values()].map((xs) => [Math.min(...xs), Math.max(...xs)] as const);
    };
    expect(rowsAt(0)).toHaveLength(1);
    const half = rowsAt(line.width * 40 * 0.6);
    expect(half.length).toBeGreaterThan(1);
    for (const [left, right] of half) {
      expect(right - left).toBeLessThanOrEqual(line.width * 40 * 0.6);
      expect(Math.abs(left + right)).toBeLessThan(8);
    }
    expect(rowsAt(1)).toHaveLength(5);
  });
  test('every letter knows its word and its line', () => {
    const letters = setLines(lines, texts, { height: 40, leading: 2, align: 'centre', shown: 1 });
    const words = new Map<number, string>();
    const all = [...texts.join('')];
    letters.forEach(({ word }, i) => words.set(word, (words.get(word) ?? '') + all[i]!));
    expect([...words.values()].map((word) => word.trim())).toEqual(['Paper', 'Harbour', 'lights']);
    expect([letters[4]!.line, letters[5]!.line]).toEqual([0, 1]);
  });
  test('letters that come one by one do not move those that are there', () => {
    const whole = set('centre');
    for (const shown of [0, 0.1, 0.3, 0.6, 0.95]) {
      const some = set('centre', shown);
      expect(some.length).toBeLessThan(whole.length);
      some.forEach((ring, i) => expect([...ring]).toEqual([...whole[i]!]));
    }
  });
});

describe('shaping', () => {
  const slab = () => fontIn('zilla-slab/files/zilla-slab-latin-400-normal.woff');
  const arabic = () => fontIn('noto-naskh-arabic/files/noto-naskh-arabic-arabic-400-normal.woff');

  test('sets the same glyphs at the same places as the shaper does by itself', async () => {
    for (const [own, text] of [
      [font, 'Wave AVATAR To.'],
      [await slab(), 'office flag fjord'],
      [await arabic(), 'ميناء الورق'],
    ] as const) {
      const buffer = new hb.Buffer();
      buffer.addText(text);
      buffer.guessSegmentProperties();
      hb.shape(own.hb, buffer);
      const glyphs = buffer.getGlyphInfosAndPositions();
      const width = glyphs.reduce((sum, { xAdvance = 0 }) => sum + xAdvance, 0) / own.capitals;
      expect(lineOf([own], text).width).toBeCloseTo(width, 9);
      const rings = glyphs.reduce(
        (sum, { codepoint }) => sum + (own.hb.glyphToPath(codepoint).match(/M/g) ?? []).length,
        0,
      );
      expect(lineOf([own], text).rings).toHaveLength(rings);
    }
  });

  test('makes one glyph of f and i, whose width they share; not of letters that are moved apart', async () => {
    const own = await slab();
    const [f, i] = ['f', 'i'].map((letter) => lineOf([own], letter));
    const both = lineOf([own], 'fi');
    // the ligature belongs to the first letter
    expect([both.ends[0], both.ends[1]]).toEqual([both.rings.length, both.rings.length]);
    expect(both.starts[1]).toBeCloseTo(both.width / 2, 9);
    const apart = lineOf([own], 'fi', 0.2);
    expect(apart.rings).toHaveLength(f!.rings.length + i!.rings.length);
    expect(apart.ends[0]).toBe(f!.rings.length);
  });

  test('runs to the left where a script does, and joins its letters', async () => {
    const own = await arabic();
    const line = lineOf([own], 'سلام');
    // each letter ends where the next one begins, further left
    line.starts.forEach((start, i) => expect(line.stops[i]).toBeLessThan(start));
    expect(line.starts[0]).toBeCloseTo(line.width, 9);
    expect(line.stops.at(-1)).toBeCloseTo(0, 9);
    // joined, they are narrower than each by itself
    const alone = [...'سلام'].reduce((sum, letter) => sum + lineOf([own], letter).width, 0);
    expect(line.width).toBeLessThan(0.95 * alone);
  });

  test('puts Latin words into a line that runs to the left where they belong', async () => {
    const line = lineOf([font, await arabic()], 'ميناء AB');
    // the line begins at its right with Arabic; the Latin word stands left of that, and itself runs to the right
    const [a, b] = [line.starts[6]!, line.starts[7]!];
    expect(a).toBeCloseTo(0, 9);
    expect(b).toBeGreaterThan(a);
    expect(line.starts[0]).toBeCloseTo(line.width, 9);
    const rows = setRows([line], [[...'ميناء AB']], { height: 10, leading: 1, align: 'left' });
    expect(rows[0]!.x).toBeCloseTo((-line.width / 2) * 10, 6);
  });

  test('wraps a line that runs to the left into rows that are no wider than said', async () => {
    const text = 'ميناء الورق في الليل';
    const line = lineOf([await arabic()], text);
    const wrap = line.width * 10 * 0.5;
    const rows = setRows([line], [[...text]], { height: 10, leading: 1, align: 'right', wrap });
    expect(rows.length).toBeGreaterThan(1);
    for (const row of rows) {
      const xs = [...row.line.starts.slice(row.from, row.to), ...row.line.stops.slice(row.from, row.to)].map(
        (v) => row.x + v * 10,
      );
      expect(Math.max(...xs) - Math.min(...xs)).toBeLessThanOrEqual(wrap + 1e-6);
      expect(Math.max(...xs)).toBeCloseTo(wrap / 2, 6);
    }
  });
});
