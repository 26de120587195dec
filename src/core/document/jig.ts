// What is kept to be used again.
import { z } from 'zod';
import { layerIdSchema, nameSchema as name, passIdSchema } from './ids';
import { layerSchema, passSchema } from './layer';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/);
/** A grade to be used again: passes that grade, without masks of any layer. */
export const gradeJigSchema = z
  .object({ id, kind: z.literal('grade'), name, passes: z.array(passSchema).min(1).max(60) })
  .strict();
export type GradeJig = z.infer<typeof gradeJigSchema>;

/** Most layers of a jig. */
export const MOST_IN_JIG = 200;
/** Most dials that a jig is turned by before it is put in. */
export const MOST_JIG_DIALS = 12;
const value = z.string().min(1).max(60);
const side = z.int().min(1).max(16384);

/** Made layers to be used again, that begin together on frame 0 of a shot of some size. */
export const layerJigSchema = z
  .object({
    id,
    kind: z.literal('layers'),
    name,
    width: side,
    height: side,
    layers: z.array(layerSchema).min(1).max(MOST_IN_JIG),
    /** of the sources of its layers; left out for the usual ones */
    dials: z
      .array(z.object({ layer: layerIdSchema, value }).strict())
      .max(MOST_JIG_DIALS)
      .optional(),
  })
  .strict();
export type LayerJig = z.infer<typeof layerJigSchema>;

/** What of a layer can be given to others. */
export const LAYER_PARTS = [
  { name: 'place', label: 'place' },
  { name: 'passes', label: 'passes' },
  { name: 'masks', label: 'masks' },
  { name: 'ends', label: 'transitions' },
] as const;
const partSchema = z.enum(LAYER_PARTS.map(({ name: part }) => part));
export type LayerPart = z.infer<typeof partSchema>;

/** What was done to a layer, to be done to others, in a shot of some size. */
export const partJigSchema = z
  .object({
    id,
    kind: z.literal('parts'),
    name,
    width: side,
    height: side,
    parts: z.array(partSchema).min(1).max(LAYER_PARTS.length),
    /** has these parts, and is bare otherwise */
    layer: layerSchema,
    /** of its passes and its transitions; left out for the usual ones */
    dials: z
      .array(
        z.union([
          z.object({ pass: passIdSchema, value }).strict(),
          z.object({ end: z.enum(['start', 'end']), value }).strict(),
        ]),
      )
      .max(MOST_JIG_DIALS)
      .optional(),
  })
  .strict();
export type PartJig = z.infer<typeof partJigSchema>;

export type Jig = GradeJig | LayerJig | PartJig;
/** What is chosen by its picture, has its dials turned, and is put in. */
export type DialledJig = LayerJig | PartJig;
export type JigDial = NonNullable<DialledJig['dials']>[number];

/** Things that another version reads; here they only have to have an id. */
export const keptSchema = z.looseObject({ id });
const CHECKED: readonly unknown[] = ['layers', 'parts'];
export const jigSchema = z.union([
  gradeJigSchema,
  layerJigSchema,
  partJigSchema,
  keptSchema.refine(({ kind }) => !CHECKED.includes(kind), 'is no jig of its kind'),
]);
