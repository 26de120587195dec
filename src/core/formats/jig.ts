import { z } from 'zod';
import { maskSchema, type Mask } from '../document/mask';
import { problemsOf } from '../document/schema';
import { JackplaneError } from '../base/errors';

/** Ending of a jig: masks on their own, to be used again. JSON. */
export const JIG_ENDING = '.jig.json';
const jigSchema = z
  .object({ jig: z.literal(1), name: z.string().trim().min(1).max(200), masks: z.array(maskSchema).min(1).max(200) })
  .strict();

export const writeJig = (name: string, masks: readonly Mask[]): string =>
  JSON.stringify({ jig: 1, name, masks }, null, 1);

/** @param file name for messages @throws JackplaneError bad-project */
export function readJig(text: string, file: string): { name: string; masks: Mask[] } {
  const bad = (why: string) =>
    new JackplaneError(
      'bad-project',
      `“${file}” is not a jig that can be used: ${why}.`,
      'Choose a file that Jackplane saved as a jig.',
    );
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw bad('it is not JSON');
  }
  const jig = jigSchema.safeParse(raw);
  if (!jig.success) throw bad(problemsOf(jig.error));
  return jig.data;
}
