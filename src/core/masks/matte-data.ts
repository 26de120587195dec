import { deflateSync, inflateSync } from 'fflate';
import type { DrawnMatte } from '../document/mask';

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
    inflateSync(Uint8Array.from(atob(data), (c) => c.charCodeAt(0)), { out: values });
  } catch {
    values.fill(0);
  }
  return values;
}
