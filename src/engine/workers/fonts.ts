import { plainFont } from '../../core/formats/font-file';
import type { LineStyle, OwnFont } from '../../core/text/fonts';
import type { Font } from '../../core/text/line';

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
/** The file of a font of the project's stock. */
export type FileOf = (stock: string, name: string) => Promise<Blob>;

/** The usual font, in which letters are set that the chosen one does not have. */
const USUAL = 'archivo';

/** The fonts that a style's letters are looked for in, one after the other. A font with one weight has it for both. */
export async function fontsFor({ font, weight }: LineStyle, fileOf: FileOf): Promise<Font[]> {
  const first = once(`${JSON.stringify(font)} ${weight}`, () =>
    typeof font === 'string' ? shipped(font, weight) : own(font, weight, fileOf),
  );
  const usual = once(`"${USUAL}" ${weight}`, () => shipped(USUAL, weight));
  return font === USUAL ? first : [...(await first), ...(await usual)];
}
function once(key: string, load: () => Promise<Font[]>): Promise<Font[]> {
  const known = read.get(key) ?? load();
  read.set(key, known);
  // a file that is not there now may come
  known.catch(() => read.delete(key));
  return known;
}
async function shipped(font: string, weight: LineStyle['weight']): Promise<Font[]> {
  const { readFont } = await import('../../core/text/line');
  const found = ['latin', 'latin-ext'].flatMap((part) => {
    const [file] = (weight === 'bold' ? [700, 400] : [400]).flatMap(
      (own) => FILES[`../../../node_modules/@fontsource/${font}/files/${font}-${part}-${own}-normal.woff`] ?? [],
    );
    return file ? [file] : [];
  });
  return Promise.all(
    found.map(async (file) => {
      const data = await (await fetch(await file())).arrayBuffer();
      return readFont(await plainFont(new Uint8Array(data), font));
    }),
  );
}
async function own({ stock, name }: OwnFont, weight: LineStyle['weight'], fileOf: FileOf): Promise<Font[]> {
  const { readFont } = await import('../../core/text/line');
  const data = await (await fileOf(stock, name)).arrayBuffer();
  return [readFont(await plainFont(new Uint8Array(data), name), name, weight === 'bold' ? 700 : 400)];
}
