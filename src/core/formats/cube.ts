// Colour tables as .cube files: one-dimensional and three-dimensional ones.
import { JackplaneError } from '../base/errors';

/** Values of a table: red changes fastest, three numbers an entry. */
export interface ColourTable {
  title: string;
  /** 1: a curve for each channel; 3: a lattice */
  dimensions: 1 | 3;
  /** entries, or points along each side of the lattice */
  size: number;
  /** the inputs that its first and last entries stand for */
  from: readonly [number, number, number];
  to: readonly [number, number, number];
  values: Float32Array;
}

export const MOST_SIZE = { 1: 65_536, 3: 129 } as const;
const NAMED = /^([A-Z_0-9]+)\s*(.*)$/;

/** @throws JackplaneError bad-media with the line */
export function readCube(text: string, file: string): ColourTable {
  const bad = (line: number | null, what: string): JackplaneError =>
    new JackplaneError(
      'bad-media',
      `“${file}”${line === null ? '' : `, line ${line}`}: ${what}.`,
      'Export the table again as .cube, or choose another one.',
    );
  let title = '';
  let dimensions: 1 | 3 | null = null;
  let size = 0;
  let from: [number, number, number] = [0, 0, 0];
  let to: [number, number, number] = [1, 1, 1];
  let values: Float32Array | null = null;
  let count = 0;
  const triple = (words: string[], line: number): [number, number, number] => {
    const parts = words.map(Number);
    if (parts.length !== 3 || words.includes(''))
      throw bad(line, `three numbers are wanted, and there are ${words.filter(Boolean).length}`);
    const odd = parts.findIndex((v) => !Number.isFinite(v));
    if (odd >= 0) throw bad(line, `“${words[odd]!.slice(0, 40)}” is not a number`);
    if (parts.some((v) => Math.abs(v) > 1e4)) throw bad(line, 'a value is beyond ±10 000');
    return parts as [number, number, number];
  };
  const lines = text.split(/\r\n|\r|\n/);
  for (const [i, raw] of lines.entries()) {
    const line = raw.trim();
    if (!line || line.startsWith('#')) continue;
    if (/^[-+.\d]/.test(line) || /^(nan|inf)/i.test(line)) {
      if (!dimensions || !values) throw bad(i + 1, 'values come before LUT_1D_SIZE or LUT_3D_SIZE');
      if (count >= values.length / 3)
        throw bad(i + 1, `there are more values than the ${values.length / 3} that its size asks for`);
      values.set(triple(line.split(/\s+/), i + 1), count++ * 3);
      continue;
    }
    const [, name, rest] = NAMED.exec(line) ?? [];
    if (name === 'TITLE') title = rest!.replace(/^"|"$/g, '').slice(0, 200);
    else if (name === 'DOMAIN_MIN') from = triple(rest!.split(/\s+/), i + 1);
    else if (name === 'DOMAIN_MAX') to = triple(rest!.split(/\s+/), i + 1);
    else if (name === 'LUT_1D_INPUT_RANGE' || name === 'LUT_3D_INPUT_RANGE') {
      const [low, high] = rest!.split(/\s+/).map(Number);
      if (!Number.isFinite(low) || !Number.isFinite(high)) throw bad(i + 1, 'its range is not two numbers');
      from = [low!, low!, low!];
      to = [high!, high!, high!];
    } else if (name === 'LUT_1D_SIZE' || name === 'LUT_3D_SIZE') {
      if (dimensions) throw bad(i + 1, 'a size is given twice');
      dimensions = name === 'LUT_1D_SIZE' ? 1 : 3;
      size = Number(rest);
      const most = MOST_SIZE[dimensions];
      if (!Number.isInteger(size) || size < 2 || size > most)
        throw bad(i + 1, `its size “${rest!.slice(0, 20)}” is not a whole number of 2 to ${most}`);
      values = new Float32Array(3 * (dimensions === 1 ? size : size ** 3));
    } else throw bad(i + 1, `“${line.slice(0, 40)}” is neither a known word nor values`);
  }
  if (!dimensions || !values) throw bad(null, 'it gives no LUT_1D_SIZE or LUT_3D_SIZE, so it is no table');
  if (count !== values.length / 3)
    throw bad(lines.length, `there are ${count} values, and its size asks for ${values.length / 3}`);
  if (from.some((low, c) => !(low < to[c]!)))
    throw bad(null, 'its domain is empty: DOMAIN_MIN is not below DOMAIN_MAX');
  return { title, dimensions, size, from, to, values };
}

export function writeCube({ title, dimensions, size, from, to, values }: ColourTable): string {
  const number = (v: number): string => (Math.round(v * 1e6) / 1e6 + 0).toString();
  const head = [
    `TITLE "${title.replaceAll(/["\r\n]/g, ' ')}"`,
    `LUT_${dimensions}D_SIZE ${size}`,
    ...(from.some((v) => v !== 0) || to.some((v) => v !== 1)
      ? [`DOMAIN_MIN ${from.map(number).join(' ')}`, `DOMAIN_MAX ${to.map(number).join(' ')}`]
      : []),
  ];
  const rows: string[] = [];
  for (let i = 0; i < values.length; i += 3)
    rows.push(`${number(values[i]!)} ${number(values[i + 1]!)} ${number(values[i + 2]!)}`);
  return `${[...head, ...rows].join('\n')}\n`;
}

/** The inputs of a lattice, display-encoded 0…1, in the order of a file. */
export function latticeOf(size: number): Float32Array {
  const out = new Float32Array(3 * size ** 3);
  for (let i = 0; i < size ** 3; i++)
    [i % size, Math.floor(i / size) % size, Math.floor(i / size ** 2)].forEach(
      (k, c) => (out[i * 3 + c] = k / (size - 1)),
    );
  return out;
}
