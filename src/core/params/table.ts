import { z } from 'zod';
import type { ColourTable } from '../formats/cube';
import { drawnMatteSchema, matteId, packMatte, unpackMatte, type DrawnMatte } from '../masks/matte-data';
import { defineKind, type Declared, type ParamBase } from './define';

const triple = z.tuple([z.number(), z.number(), z.number()]);
const tableSchema = z
  .object({
    title: z.string().max(200),
    dimensions: z.union([z.literal(1), z.literal(3)]),
    size: z.int().min(2).max(1024),
    from: triple,
    to: triple,
    /** what the least and the greatest of its 16-bit values stand for */
    low: z.number(),
    high: z.number(),
    /** its values, 16 bits each, the high byte first */
    data: drawnMatteSchema,
  })
  .strict()
  .nullable();
/** A table as a document keeps it. */
export type KeptTable = NonNullable<z.infer<typeof tableSchema>>;
/** A table as plans carry it: its values are found by their name. */
export type TablePlan = (Omit<KeptTable, 'data'> & { id: string }) | null;

export interface TableParam extends ParamBase<TablePlan> {
  kind: 'table';
  default: null;
}
export const table = (p: Omit<Declared<TableParam>, 'default'>): TableParam => ({ kind: 'table', default: null, ...p });

export const tableKind = defineKind<TableParam>({
  kind: 'table',
  fixed: true,
  schema: () => tableSchema,
  resolve(_, value): TablePlan {
    const kept = value as KeptTable | null;
    if (!kept) return null;
    const { data, ...rest } = kept;
    return { ...rest, id: matteId(data) };
  },
  range: () => 'a colour table, or none',
});

/** Entries of a one-dimensional table that are kept; longer ones are thinned out. */
const MOST_ENTRIES = 1024;
/** A table as it is kept, its values to a 65535th of their range. */
export function keepTable(whole: ColourTable): KeptTable {
  const own = whole.dimensions === 1 && whole.size > MOST_ENTRIES ? thinned(whole) : whole;
  const { title, dimensions, size, from, to, values } = own;
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) [low, high] = [Math.min(low, v), Math.max(high, v)];
  if (high - low < 1e-6) high = low + 1e-6;
  const bytes = new Uint8Array(values.length * 2);
  values.forEach((v, i) => {
    const level = Math.round(((v - low) / (high - low)) * 65535);
    bytes[i * 2] = level >> 8;
    bytes[i * 2 + 1] = level & 255;
  });
  const w = dimensions === 1 ? 6 : 6 * size;
  return {
    title,
    dimensions,
    size,
    from: [...from],
    to: [...to],
    low,
    high,
    data: packMatte(bytes, w, bytes.length / w),
  };
}
function thinned(own: ColourTable): ColourTable {
  const values = new Float32Array(MOST_ENTRIES * 3);
  for (let i = 0; i < MOST_ENTRIES; i++) {
    const at = (i / (MOST_ENTRIES - 1)) * (own.size - 1);
    const k = Math.min(own.size - 2, Math.floor(at));
    for (let c = 0; c < 3; c++) {
      const [a, b] = [own.values[k * 3 + c]!, own.values[k * 3 + 3 + c]!];
      values[i * 3 + c] = a + (b - a) * (at - k);
    }
  }
  return { ...own, size: MOST_ENTRIES, values };
}

/** A table's values, four floats an entry, the last one nothing. */
export function tableValues({ low, high }: Pick<KeptTable, 'low' | 'high'>, data: DrawnMatte): Float32Array {
  const bytes = unpackMatte(data);
  const out = new Float32Array((bytes.length / 6) * 4);
  for (let i = 0, to = 0; i < bytes.length; i += 6, to += 4)
    for (let c = 0; c < 3; c++)
      out[to + c] = low + ((high - low) * (bytes[i + c * 2]! * 256 + bytes[i + c * 2 + 1]!)) / 65535;
  return out;
}
