import { z } from 'zod';
import { maskSchema, type Mask } from '../document/mask';
import { layerJigSchema, passSchema, problemsOf, type LayerJig, type Pass } from '../document/schema';
import { JackplaneError } from '../base/errors';

/** Ending of a jig: masks, the passes of a grade, or made layers on their own, to be used again. JSON. */
export const JIG_ENDING = '.jig.json';
const name = z.string().trim().min(1).max(200);
const jigSchema = z.union([
  z.object({ jig: z.literal(1), name, masks: z.array(maskSchema).min(1).max(200) }).strict(),
  z.object({ jig: z.literal(1), name, passes: z.array(passSchema).min(1).max(60) }).strict(),
  layerJigSchema.omit({ id: true, kind: true }).extend({ jig: z.literal(1) }),
]);

export const writeJig = (name: string, masks: readonly Mask[]): string =>
  JSON.stringify({ jig: 1, name, masks }, null, 1);
export const writeGradeJig = (name: string, passes: readonly Pass[]): string =>
  JSON.stringify({ jig: 1, name, passes }, null, 1);

export const writeLayerJig = ({ name, width, height, layers, dials }: LayerJig): string =>
  JSON.stringify({ jig: 1, name, width, height, layers, dials }, null, 1);

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
  const option = jigSchema.options[has('passes') ? 1 : has('layers') ? 2 : 0];
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
/** @param file name for messages @throws JackplaneError bad-project */
export function readLayerJig(text: string, file: string): Omit<LayerJig, 'id' | 'kind'> {
  const jig = read(text, file);
  if (!('layers' in jig)) throw bad(file, 'it holds no layers');
  const { name: called, width, height, layers, dials } = jig;
  return { name: called, width, height, layers, ...(dials && { dials }) };
}
