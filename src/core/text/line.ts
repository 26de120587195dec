import { parse, type Font, type Glyph } from 'opentype.js';
import { flattenCubics, type Command } from '../masks/cubics';
import type { Ring } from '../masks/path';
import type { TextLine } from './fonts';

/** @param data a TTF, OTF or WOFF file */
export const readFont = (data: ArrayBuffer): Font => parse(data);

/**
 * One line of text as outlines. @param fonts the first one that has a letter gives it @param tracking added between letters, in heights of a capital
 */
export function lineOf(fonts: readonly Font[], text: string, tracking = 0): TextLine {
  const [main] = fonts;
  if (!main) throw new Error('a line needs a font');
  const tall = capitalsOf(main);
  const rings: Ring[] = [];
  const ends: number[] = [];
  const starts: number[] = [];
  let [x, missing] = [0, ''];
  let before: { font: Font; glyph: Glyph } | undefined;
  for (const letter of text) {
    const font = fonts.find((one) => one.charToGlyphIndex(letter) > 0) ?? main;
    const glyph = font.charToGlyph(letter);
    if (!font.charToGlyphIndex(letter) && letter.trim() && !missing.includes(letter)) missing += letter;
    const size = tall / capitalsOf(font);
    if (before?.font === font) x += (font.getKerningValue(before.glyph, glyph) * size) / tall;
    if (before) x += tracking;
    starts.push(x);
    for (const ring of outlinesOf(font, glyph)) rings.push(ring.map((v, i) => (v * size) / tall + (i % 2 ? 0 : x)));
    ends.push(rings.length);
    x += ((glyph.advanceWidth ?? 0) * size) / tall;
    before = { font, glyph };
  }
  return { rings, width: x, ends, starts, missing };
}

/** Height of a font's capitals in its units. */
function capitalsOf(font: Font): number {
  const { y1, y2 } = font.charToGlyph('H').getBoundingBox();
  return y2 - y1 || font.unitsPerEm;
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
