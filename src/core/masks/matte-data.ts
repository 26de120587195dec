import { deflateSync, inflateSync } from 'fflate';
import { z } from 'zod';
import { hash } from '../base/hash';

/** Most letters of a drawn matte's data. */
export const MOST_MATTE_DATA = 8_000_000;
/** A matte as 8-bit values, deflated and written in base64. */
export const drawnMatteSchema = z
  .object({ w: z.int().min(1).max(8192), h: z.int().min(1).max(8192), data: z.string().max(MOST_MATTE_DATA) })
  .strict();
export type DrawnMatte = z.infer<typeof drawnMatteSchema>;

/** 8-bit coverage as it is kept in a document. */
export function packMatte(values: Uint8Array, w: number, h: number): DrawnMatte {
  const bytes = deflateSync(values, { level: 6 });
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return { w, h, data: btoa(text) };
}

/** @returns w×h values; a damaged matte covers nothing */
export function unpackMatte({ w, h, data }: DrawnMatte): Uint8Array {
  const values = new Uint8Array(w * h);
  if (!data) return values;
  try {
    inflateSync(
      Uint8Array.from(atob(data), (c) => c.charCodeAt(0)),
      { out: values },
    );
  } catch {
    values.fill(0);
  }
  return values;
}

const ids = new WeakMap<DrawnMatte, string>();
const byId = new Map<string, WeakRef<DrawnMatte>>();

/** Names a matte by its content; plans carry only the name. What was named can be found again as long as its document lives. */
export function matteId(matte: DrawnMatte): string {
  const known = ids.get(matte);
  if (known) return known;
  const id = hash(`${matte.w} ${matte.h} ${matte.data}`);
  ids.set(matte, id);
  byId.set(id, new WeakRef(matte));
  return id;
}
export const matteById = (id: string): DrawnMatte | undefined => byId.get(id)?.deref();
