import { parse, type Font, type Glyph } from 'opentype.js';
import { flattenCubics, type Command } from '../masks/cubics';
import type { Ring } from '../masks/path';
import type { TextLine } from './fonts';

/** @param data a TTF, OTF or WOFF file */
export const readFont = (data: ArrayBuffer): Font => parse(data);

/** A letter in its font, and how much smaller a unit of that is than one of the first font's capitals. */
interface SetLetter {
  font: Font;
  glyph: Glyph;
  size: number;
}
/** Where the letters of a line begin, without their outlines. @param fonts the first one that has a letter gives it @param tracking added between letters, in heights of a capital */
function setLine(
  fonts: readonly Font[],
  text: string,
  tracking: number,
): { letters: SetLetter[]; starts: number[]; width: number; missing: string } {
  const [main] = fonts;
  if (!main) throw new Error('a line needs a font');
  const letters: SetLetter[] = [];
  const starts: number[] = [];
  let [x, missing] = [0, ''];
  for (const letter of text) {
    const font = fonts.find((one) => one.charToGlyphIndex(letter) > 0) ?? main;
    const glyph = font.charToGlyph(letter);
    if (!font.charToGlyphIndex(letter) && letter.trim() && !missing.includes(letter)) missing += letter;
    const size = 1 / capitalsOf(font);
    const before = letters.at(-1);
    if (before?.font === font) x += font.getKerningValue(before.glyph, glyph) * size;
    if (before) x += tracking;
    starts.push(x);
    letters.push({ font, glyph, size });
    x += (glyph.advanceWidth ?? 0) * size;
  }
  return { letters, starts, width: x, missing };
}
/** One line of text as outlines. */
export function lineOf(fonts: readonly Font[], text: string, tracking = 0): TextLine {
  const { letters, starts, width, missing } = setLine(fonts, text, tracking);
  const rings: Ring[] = [];
  const ends = letters.map(({ font, glyph, size }, l) => {
    for (const ring of outlinesOf(font, glyph)) rings.push(ring.map((v, i) => v * size + (i % 2 ? 0 : starts[l]!)));
    return rings.length;
  });
  return { rings, width, ends, starts, missing };
}
/** One line of text for carets: its letters have no outlines. */
export function bareLineOf(fonts: readonly Font[], text: string, tracking = 0): TextLine {
  const { letters, ...line } = setLine(fonts, text, tracking);
  return { ...line, rings: [], ends: letters.map(() => 0) };
}

const capitals = new WeakMap<Font, number>();
/** Height of a font's capitals in its units. */
function capitalsOf(font: Font): number {
  const known = capitals.get(font);
  if (known) return known;
  const { y1, y2 } = font.charToGlyph('H').getBoundingBox();
  const found = y2 - y1 || font.unitsPerEm;
  capitals.set(font, found);
  return found;
}

/** A glyph's outlines in its font's units, y down. */
function outlinesOf(font: Font, glyph: Glyph): Ring[] {
  const commands = glyph
    .getPath(0, 0, font.unitsPerEm)
    .commands.map((c): Command =>
      c.type === 'Z'
        ? ['Z']
        : c.type === 'C'
          ? ['C', c.x1, c.y1, c.x2, c.y2, c.x, c.y]
          : c.type === 'Q'
            ? ['Q', c.x1, c.y1, c.x, c.y]
            : [c.type, c.x, c.y],
    );
  return flattenCubics(commands);
}
