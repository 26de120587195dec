// Lines of text as outlines: shaped by HarfBuzz, in the order in which they are seen.
import bidiFactory from 'bidi-js';
import * as hb from 'harfbuzzjs';
import { JackplaneError } from '../base/errors';
import { flattenCubics, type Command } from '../masks/cubics';
import { boundsOf, type Ring } from '../masks/path';
import type { TextLine } from './fonts';

/** A font that letters are shaped with. */
export interface Font {
  hb: hb.Font;
  /** height of its capitals, in its units */
  capitals: number;
  /** outlines of its glyphs in its units, y down, as they were asked for */
  glyphs: Map<number, Ring[]>;
}

/**
 * @param data tables of an OpenType font @param name of the file, for messages @param weight that a variable font takes, 400 regular
 * @throws JackplaneError bad-media when there are no letters in it
 */
export function readFont(data: Uint8Array, name = 'The font', weight = 400): Font {
  const face = new hb.Face(new hb.Blob(data));
  const own = new hb.Font(face);
  if (!face.collectUnicodes().length)
    throw new JackplaneError('bad-media', `“${name}” has no letters.`, 'Choose another font file.');
  own.setScale(face.upem, face.upem);
  if ('wght' in face.getAxisInfos()) own.setVariations([new hb.Variation('wght', weight)]);
  const font: Font = { hb: own, capitals: face.upem, glyphs: new Map() };
  const [, top, , bottom] = boundsOf(outlinesOf(font, own.nominalGlyph(72 /* H */) ?? 0));
  const height = bottom - top;
  return { ...font, capitals: height > 0 ? height : 0.7 * face.upem };
}

/** A glyph as it was set. */
interface SetGlyph {
  font: Font;
  id: number;
  x: number;
  y: number;
}
interface SetLine {
  /** by the letters that they come from */
  glyphs: Map<number, SetGlyph[]>;
  starts: number[];
  stops: number[];
  width: number;
  missing: string;
}

/** Letters that go with the one before them: marks, joiners, variation selectors. */
const GOES_ALONG = /[\p{M}\u200c\u200d]/u;
const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;
const bidi = bidiFactory();

/** Letters of one font and one direction that stand together. */
interface Run {
  font: Font;
  from: number;
  to: number;
  level: number;
}
/** The runs of a line from left to right. @param levels of its letters, odd where they run to the left */
function runsOf(fonts: readonly Font[], levels: readonly number[]): Run[] {
  const runs: Run[] = [];
  fonts.forEach((font, i) => {
    const last = runs.at(-1);
    if (last && last.font === font && last.level === levels[i]) last.to = i + 1;
    else runs.push({ font, from: i, to: i + 1, level: levels[i]! });
  });
  // rule L2 of the Unicode bidirectional algorithm
  for (let level = Math.max(0, ...levels); level > 0; level--)
    for (let i = 0; i < runs.length; i++) {
      let end = i;
      while (end < runs.length && runs[end]!.level >= level) end++;
      if (end > i + 1) runs.splice(i, end - i, ...runs.slice(i, end).reverse());
      i = Math.max(i, end);
    }
  return runs;
}

/** Which way each letter runs. */
function levelsOf(text: string, letters: readonly string[]): number[] {
  if (!RIGHT_TO_LEFT.test(text)) return letters.map(() => 0);
  const { levels } = bidi.getEmbeddingLevels(text);
  let unit = 0;
  return letters.map((letter) => {
    const level = levels[unit]!;
    unit += letter.length;
    return level;
  });
}

/** Where the letters of a line stand. @param fonts the first one that has a letter gives it @param tracking added between letters, in heights of a capital; letters that are moved apart form no ligatures */
function setLine(fonts: readonly Font[], text: string, tracking: number): SetLine {
  if (!fonts[0]) throw new Error('a line needs a font');
  const letters = [...text];
  const has = (font: Font, letter: string) => font.hb.nominalGlyph(letter.codePointAt(0)!) !== undefined;
  const chosen: Font[] = [];
  let missing = '';
  letters.forEach((letter, i) => {
    const along = i > 0 && GOES_ALONG.test(letter);
    const font = along ? chosen[i - 1]! : fonts.find((one) => has(one, letter));
    if (!font && letter.trim() && !missing.includes(letter)) missing += letter;
    chosen.push(font ?? chosen[i - 1] ?? fonts[0]!);
  });
  const set: SetLine = { glyphs: new Map(), starts: [], stops: [], width: 0, missing };
  for (const run of runsOf(chosen, levelsOf(text, letters))) shapeRun(run, letters, tracking, set);
  return set;
}

const SEPARATE = ['liga', 'clig', 'dlig'].map((tag) => new hb.Feature(tag, 0));
/** Sets a run after what has been set already. */
function shapeRun({ font, from, to, level }: Run, letters: readonly string[], tracking: number, set: SetLine): void {
  const buffer = new hb.Buffer();
  buffer.addText(letters.slice(from, to).join(''));
  buffer.setDirection(level % 2 ? hb.Direction.RTL : hb.Direction.LTR);
  buffer.guessSegmentProperties();
  hb.shape(font.hb, buffer, tracking ? SEPARATE : []);
  const size = 1 / font.capitals;
  // letters by the units of text that they begin with
  const letterAt = new Map<number, number>();
  for (let i = from, unit = 0; i < to; unit += letters[i++]!.length) letterAt.set(unit, i);
  const clusters = new Map<number, { left: number; right: number }>();
  let before: number | null = null;
  for (const { codepoint, cluster, xAdvance = 0, xOffset = 0, yOffset = 0 } of buffer.getGlyphInfosAndPositions()) {
    const letter = letterAt.get(cluster)!;
    if (before !== letter && (before !== null || set.starts.length)) set.width += tracking;
    before = letter;
    const glyph = { font, id: codepoint, x: set.width + xOffset * size, y: -yOffset * size };
    set.glyphs.set(letter, [...(set.glyphs.get(letter) ?? []), glyph]);
    const left = clusters.get(letter)?.left ?? set.width;
    set.width += xAdvance * size;
    clusters.set(letter, { left, right: set.width });
  }
  // letters that share a glyph share its width
  const heads = [...clusters.keys()].sort((a, b) => a - b);
  heads.forEach((head, k) => {
    const { left, right } = clusters.get(head)!;
    const count = (heads[k + 1] ?? to) - head;
    for (let i = 0; i < count; i++) {
      const [a, b] = [i / count, (i + 1) / count];
      const at = (share: number) => (level % 2 ? right - (right - left) * share : left + (right - left) * share);
      set.starts[head + i] = at(a);
      set.stops[head + i] = at(b);
    }
  });
}

/** One line of text as outlines. */
export function lineOf(fonts: readonly Font[], text: string, tracking = 0): TextLine {
  const { glyphs, ...line } = setLine(fonts, text, tracking);
  const rings: Ring[] = [];
  const ends = line.starts.map((_, letter) => {
    for (const { font, id, x, y } of glyphs.get(letter) ?? [])
      for (const ring of outlinesOf(font, id)) rings.push(ring.map((v, i) => v / font.capitals + (i % 2 ? y : x)));
    return rings.length;
  });
  return { rings, ends, ...line };
}
/** One line of text for carets: its letters have no outlines. */
export function bareLineOf(fonts: readonly Font[], text: string, tracking = 0): TextLine {
  const { starts, stops, width, missing } = setLine(fonts, text, tracking);
  return { rings: [], ends: starts.map(() => 0), starts, stops, width, missing };
}

/** A glyph's outlines in its font's units, y down. */
function outlinesOf({ hb: font, glyphs }: Font, id: number): Ring[] {
  const known = glyphs.get(id);
  if (known) return known;
  const commands = [...font.glyphToPath(id).matchAll(/([MLQCZ])([^MLQCZ]*)/g)].map(([, kind, numbers]): Command => [
    kind!,
    ...(numbers!.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map((v, i) => (i % 2 ? -Number(v) : Number(v))),
  ]);
  const rings = flattenCubics(commands);
  glyphs.set(id, rings);
  return rings;
}
