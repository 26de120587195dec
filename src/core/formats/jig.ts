import { z } from 'zod';
import { maskSchema, type Mask } from '../document/mask';
import { layerJigSchema, partJigSchema, passSchema, type DialledJig, type Pass } from '../document/schema';
import { JackplaneError } from '../base/errors';
import { problemsOf } from '../base/problems';

/** Ending of a jig: masks, the passes of a grade, made layers, or parts of a layer on their own, to be used again. JSON. */
export const JIG_ENDING = '.jig.json';
const name = z.string().trim().min(1).max(200);
const jigSchema = z.union([
  z.object({ jig: z.literal(1), name, masks: z.array(maskSchema).min(1).max(200) }).strict(),
  z.object({ jig: z.literal(1), name, passes: z.array(passSchema).min(1).max(60) }).strict(),
  layerJigSchema.omit({ id: true, kind: true }).extend({ jig: z.literal(1) }),
  partJigSchema.omit({ id: true, kind: true }).extend({ jig: z.literal(1) }),
]);

export const writeJig = (name: string, masks: readonly Mask[]): string =>
  JSON.stringify({ jig: 1, name, masks }, null, 1);
export const writeGradeJig = (name: string, passes: readonly Pass[]): string =>
  JSON.stringify({ jig: 1, name, passes }, null, 1);

/** A jig of layers, or of parts of a layer. */
export const writeDialledJig = ({ id: _, kind: _k, ...jig }: DialledJig): string =>
  JSON.stringify({ jig: 1, ...jig }, null, 1);

const bad = (file: string, why: string): JackplaneError =>
  new JackplaneError(
    'bad-project',
    `“${file}” is not a jig that can be used: ${why}.`,
    'Choose a file that Jackplane saved as a jig.',
  );
function read(text: string, file: string): z.infer<typeof jigSchema> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw bad(file, 'it is not JSON');
  }
  const has = (what: string) => !!raw && typeof raw === 'object' && what in raw;
  const option = jigSchema.options[has('passes') ? 1 : has('layers') ? 2 : has('parts') ? 3 : 0];
  const jig = option.safeParse(raw);
  if (!jig.success) throw bad(file, problemsOf(jig.error));
  return jig.data;
}

/** @param file name for messages @throws JackplaneError bad-project */
export function readJig(text: string, file: string): { name: string; masks: Mask[] } {
  const jig = read(text, file);
  if (!('masks' in jig)) throw bad(file, 'it holds no masks');
  return jig;
}
/** @param file name for messages @throws JackplaneError bad-project */
export function readGradeJig(text: string, file: string): { name: string; passes: Pass[] } {
  const jig = read(text, file);
  if (!('passes' in jig)) throw bad(file, 'it holds no grade');
  return jig;
}
/** @param file name for messages @param id that it gets @throws JackplaneError bad-project */
export function readDialledJig(text: string, file: string, id: string): DialledJig {
  const { jig: _, ...jig } = read(text, file);
  if ('layers' in jig) return { ...jig, id, kind: 'layers' };
  if ('parts' in jig) return { ...jig, id, kind: 'parts' };
  throw bad(file, 'it holds no layers, and no parts of one');
}
