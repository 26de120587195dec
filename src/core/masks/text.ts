import { parse, type Font } from 'opentype.js';
import { flattenCubics } from './cubics';
import type { Ring } from './path';

/** @param data a TTF, OTF or WOFF file */
export const readFont = (data: ArrayBuffer): Font => parse(data);

/** Outlines of a text, its capitals 1 tall and all of it centred on the origin. */
export function textOutlines(font: Font, text: string): Ring[] {
  const size = 1000;
  const path = font.getPath(text, 0, 0, size, { kerning: true });
  const rings = flattenCubics(path.commands.map((c) => (c.type === 'Z' ? ['Z'] : c.type === 'C' ? ['C', c.x1, c.y1, c.x2, c.y2, c.x, c.y] : c.type === 'Q' ? ['Q', c.x1, c.y1, c.x, c.y] : [c.type, c.x, c.y])));
  const capital = font.charToGlyph('H').getBoundingBox();
  const tall = ((capital.y2 - capital.y1) / font.unitsPerEm) * size || size;
  const wide = font.getAdvanceWidth(text, size);
  return rings.map((ring) => ring.map((v, i) => (i % 2 ? (v + tall / 2) / tall : (v - wide / 2) / tall)));
}
