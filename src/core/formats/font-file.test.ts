import { describe, expect, test } from '@jest/globals';
import * as hb from 'harfbuzzjs';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import decompress from 'woff2-encoder/decompress';
import { fontKind, plainFont } from './font-file';

const fontOf = (name: string) =>
  new Uint8Array(readFileSync(join(import.meta.dirname, '../../../node_modules/@fontsource', name)));
const file = (ending: string) => fontOf(`lora/files/lora-latin-400-normal.${ending}`);

/** Every outline and width of a font, as the shaper sees them. */
const seen = (font: Uint8Array): string[] => {
  const own = new hb.Font(new hb.Face(new hb.Blob(font)));
  return [...own.face.collectUnicodes()].map((letter) => {
    const glyph = own.nominalGlyph(letter)!;
    return `${letter} ${own.glyphHAdvance(glyph)} ${own.glyphToPath(glyph)}`;
  });
};

describe('a font file', () => {
  test.each([
    'lora/files/lora-latin-400-normal',
    'caveat/files/caveat-latin-700-normal',
    'archivo/files/archivo-latin-ext-400-normal',
  ])('%s: packed as WOFF2, its letters come out as another unpacker finds them', async (name) => {
    const packed = fontOf(`${name}.woff2`);
    const letters = seen(await plainFont(packed, 'ours'));
    expect(letters.length).toBeGreaterThan(100);
    expect(letters).toEqual(seen(await decompress(packed)));
  });

  test('packed as WOFF it has the letters and checksums that it had', async () => {
    const packed = file('woff');
    const plain = await plainFont(packed, 'ours');
    // the directory of the packed file tells each table's checksum
    const sums = (data: Uint8Array, at: number, size: number, place: number) => {
      const view = new DataView(data.buffer, data.byteOffset);
      return Array.from({ length: packed[13]! }, (_, i) => at + size * i).flatMap((entry) => {
        const tag = String.fromCharCode(...data.subarray(entry, entry + 4));
        // the one of “head” counts without a number that stands in it
        return tag === 'head' ? [] : `${tag} ${view.getUint32(entry + place)}`;
      });
    };
    expect(sums(plain, 12, 16, 4)).toEqual(sums(packed, 44, 20, 16));
    expect(fontKind(plain)).toBe('TTF');
    expect(seen(plain).length).toBeGreaterThan(100);
  });

  test('that is none, or cut off, is refused by its name', async () => {
    await expect(plainFont(new TextEncoder().encode('hello'), 'hello.ttf')).rejects.toThrow('“hello.ttf” is no font');
    for (const ending of ['woff', 'woff2'])
      for (const share of [0.02, 0.5, 0.9]) {
        const whole = file(ending);
        const cut = whole.subarray(0, Math.floor(whole.length * share));
        await expect(plainFont(cut, 'cut')).rejects.toThrow('“cut” is no font that can be read');
      }
  });

  test('that says that it is huge is refused before room is made for it', async () => {
    const whole = file('woff');
    new DataView(whole.buffer).setUint32(44 + 12, 2 ** 31);
    await expect(plainFont(whole, 'huge')).rejects.toThrow('larger than');
    const packed = file('woff2');
    // the first table's length, as a number of up to five bytes
    packed.set([0x8f, 0xff, 0xff, 0xff], 49);
    await expect(plainFont(packed, 'huge')).rejects.toThrow('“huge” is no font that can be read');
  });
});
