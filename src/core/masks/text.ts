import { parse, type Font } from 'opentype.js';
import { flattenCubics, type Command } from './cubics';
import type { Ring } from './path';

/** @param data a TTF, OTF or WOFF file */
export const readFont = (data: ArrayBuffer): Font => parse(data);

/** Outlines of one line of text, its capitals 1 tall and all of it centred on the origin. */
export function textOutlines(font: Font, text: string): Ring[] {
  const commands: Command[] = [];
  let x = 0;
  // letter by letter: substitutions that the font asks for are not needed for plain capitals and small letters
  const glyphs = [...text].map((letter) => font.charToGlyph(letter));
  glyphs.forEach((glyph, i) => {
    for (const c of glyph.getPath(x, 0, font.unitsPerEm).commands) {
      commands.push(
        c.type === 'Z'
          ? ['Z']
          : c.type === 'C'
            ? ['C', c.x1, c.y1, c.x2, c.y2, c.x, c.y]
            : c.type === 'Q'
              ? ['Q', c.x1, c.y1, c.x, c.y]
              : [c.type, c.x, c.y],
      );
    }
    x += (glyph.advanceWidth ?? 0) + (glyphs[i + 1] ? font.getKerningValue(glyph, glyphs[i + 1]!) : 0);
  });
  const { y1, y2 } = font.charToGlyph('H').getBoundingBox();
  const tall = y2 - y1 || font.unitsPerEm;
  return flattenCubics(commands).map((ring) => ring.map((v, i) => (i % 2 ? v / tall + 0.5 : (v - x / 2) / tall)));
}
