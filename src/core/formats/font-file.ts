// Font files: TTF, OTF and their collections as they are, WOFF and WOFF2 unpacked.
import { unzlibSync } from 'fflate';
import { JackplaneError } from '../base/errors';

/** Largest font file, and largest font unpacked, in bytes. */
export const MOST_FONT_BYTES = 40e6;
const MOST_TABLES = 256;

const KINDS: Readonly<Record<string, 'TTF' | 'OTF' | 'TTC' | 'WOFF' | 'WOFF2'>> = {
  '\x00\x01\x00\x00': 'TTF',
  true: 'TTF',
  OTTO: 'OTF',
  ttcf: 'TTC',
  wOFF: 'WOFF',
  wOF2: 'WOFF2',
};
/** What kind of font a file begins like; undefined for none. */
export const fontKind = (start: Uint8Array): (typeof KINDS)[string] | undefined =>
  KINDS[String.fromCharCode(...start.subarray(0, 4))];

const broken = (name: string, why: string): JackplaneError =>
  new JackplaneError('bad-media', `“${name}” is no font that can be read: ${why}.`, 'Choose another font file.');

/**
 * The tables of a font file as a plain OpenType font. Source: WOFF File Format 1.0.
 * @param name of the file, for messages @throws JackplaneError bad-media
 */
export async function plainFont(data: Uint8Array, name: string): Promise<Uint8Array> {
  const kind = fontKind(data);
  if (!kind) throw broken(name, 'it begins like something else');
  if (data.length > MOST_FONT_BYTES) throw broken(name, `it is larger than ${MOST_FONT_BYTES / 1e6} MB`);
  if (kind === 'WOFF') return unwrapped(data, name);
  if (kind !== 'WOFF2') return data;
  const { woff2Tables } = await import('./woff2');
  try {
    const { flavor, tables } = woff2Tables(data, MOST_FONT_BYTES);
    return joined(flavor, tables);
  } catch (error) {
    throw broken(name, error instanceof RangeError ? error.message : 'it cannot be unpacked');
  }
}
const view = (data: Uint8Array): DataView => new DataView(data.buffer, data.byteOffset, data.byteLength);

const [WOFF_HEADER, WOFF_ENTRY, SFNT_HEADER, SFNT_ENTRY] = [44, 20, 12, 16];
const padded = (length: number): number => 4 * Math.ceil(length / 4);

function unwrapped(data: Uint8Array, name: string): Uint8Array {
  const from = view(data);
  if (data.length < WOFF_HEADER) throw broken(name, 'it is cut off');
  const count = from.getUint16(12);
  if (!count || count > MOST_TABLES || data.length < WOFF_HEADER + count * WOFF_ENTRY)
    throw broken(name, 'its list of tables is cut off');
  let whole = 0;
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF_HEADER + i * WOFF_ENTRY;
    const [start, packed, length] = [4, 8, 12].map((k) => from.getUint32(at + k)) as [number, number, number];
    whole += length;
    if (whole > MOST_FONT_BYTES) throw broken(name, `unpacked it is larger than ${MOST_FONT_BYTES / 1e6} MB`);
    if (start + packed > data.length || packed > length) throw broken(name, 'one of its tables is cut off');
    const own = data.subarray(start, start + packed);
    try {
      const table = packed < length ? unzlibSync(own, { out: new Uint8Array(length) }) : own;
      return [String.fromCharCode(...data.subarray(at, at + 4)), table] as const;
    } catch {
      throw broken(name, 'one of its tables cannot be unpacked');
    }
  });
  return joined(from.getUint32(4), tables);
}

/** A plain font of its tables. Source: OpenType, “Organization of an OpenType font”. */
function joined(flavor: number, tables: readonly (readonly [tag: string, data: Uint8Array])[]): Uint8Array {
  const count = tables.length;
  let at = SFNT_HEADER + count * SFNT_ENTRY;
  const out = new Uint8Array(tables.reduce((sum, [, { length }]) => sum + padded(length), at));
  const to = view(out);
  const steps = Math.floor(Math.log2(count));
  to.setUint32(0, flavor);
  [count, 16 * 2 ** steps, steps, 16 * (count - 2 ** steps)].forEach((v, i) => to.setUint16(4 + 2 * i, v));
  tables.forEach(([tag, data], i) => {
    const entry = SFNT_HEADER + i * SFNT_ENTRY;
    out.set(data, at);
    [...tag].forEach((letter, k) => (out[entry + k] = letter.charCodeAt(0)));
    let sum = 0;
    for (let k = at; k < at + padded(data.length); k += 4) sum = (sum + to.getUint32(k)) >>> 0;
    [sum, at, data.length].forEach((v, k) => to.setUint32(entry + 4 + 4 * k, v));
    at += padded(data.length);
  });
  return out;
}
