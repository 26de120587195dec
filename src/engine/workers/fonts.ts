import type { Font } from 'opentype.js';
import type { LineStyle } from '../../core/text/fonts';

/** The files of the shipped fonts: Latin letters, and further ones of European languages. */
const FILES = import.meta.glob<string>(
  [
    '../../../node_modules/@fontsource/{archivo,archivo-narrow,lora,zilla-slab,jetbrains-mono,caveat}/files/*-latin-{400,700}-normal.woff',
    '../../../node_modules/@fontsource/{archivo,archivo-narrow,lora,zilla-slab,jetbrains-mono,caveat}/files/*-latin-ext-{400,700}-normal.woff',
    '../../../node_modules/@fontsource/{permanent-marker,special-elite}/files/*-latin-400-normal.woff',
    '../../../node_modules/@fontsource/special-elite/files/*-latin-ext-400-normal.woff',
  ],
  { query: '?url', import: 'default' },
);
const read = new Map<string, Promise<Font[]>>();

/** The fonts that a style's letters are looked for in, one after the other. A font with one weight has it for both. */
export function fontsFor({ font, weight }: LineStyle): Promise<Font[]> {
  const key = `${font} ${weight}`;
  const known = read.get(key) ?? load(font, weight === 'bold' ? [700, 400] : [400]);
  read.set(key, known);
  return known;
}
async function load(font: string, weights: readonly number[]): Promise<Font[]> {
  const { readFont } = await import('../../core/text/line');
  const found = ['latin', 'latin-ext'].flatMap((part) => {
    const [file] = weights.flatMap(
      (weight) => FILES[`../../../node_modules/@fontsource/${font}/files/${font}-${part}-${weight}-normal.woff`] ?? [],
    );
    return file ? [file] : [];
  });
  return Promise.all(found.map(async (file) => readFont(await (await fetch(await file())).arrayBuffer())));
}
