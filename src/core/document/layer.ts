import { z } from 'zod';
import { easeSchema, framesSchema, valueOf, type Value } from '../base/value';
import { valuesSchema, type Params } from '../params/registry';
import { passOf } from '../passes/registry';
import { BLEND_MODES } from '../picture/blend';
import { sourceOf } from '../sources/registry';
import { transitionOf } from '../transitions/registry';
import { layerIdSchema, nameSchema as name, passIdSchema, type ShotId, type StockId } from './ids';
import { maskIdSchema, maskSchema, MOST_MASKS } from './mask';

const finite = z.number().min(-1e6).max(1e6);
export const pairSchema = z.tuple([finite, finite]);
const pair = pairSchema;

/** Declared things name their type; one that this version does not know is kept as it is. */
const type = z.string().regex(/^[a-z][a-z0-9-]{0,63}$/);
const values = z.record(z.string(), z.unknown());
type Values = Record<string, Value<unknown>>;
/** Values checked against what is declared for their type. */
function checkedValues(
  declared: { params: Params } | undefined,
  raw: Record<string, unknown>,
  context: z.RefinementCtx,
): Values {
  if (!declared) return raw as Values;
  const parsed = valuesSchema(declared.params).safeParse(raw);
  if (parsed.success) return parsed.data as Values;
  for (const issue of parsed.error.issues)
    context.addIssue({ code: 'custom', path: ['values', ...issue.path], message: issue.message });
  return z.NEVER;
}

export const passSchema = z
  .object({
    id: passIdSchema,
    type,
    on: z.boolean(),
    /** whether it works before Place, in the source's pixels, or after it, in the shot's */
    space: z.enum(['layer', 'shot']),
    values,
    /** groups of its dials that are left out: their values are those of a new one */
    out: z.array(z.string().max(60)).max(20).optional(),
    /** works only inside or outside of these masks of its layer */
    area: z
      .object({ masks: z.array(maskIdSchema).max(64), side: z.enum(['inside', 'outside']) })
      .strict()
      .optional(),
  })
  .strict()
  .transform((pass, context) => ({ ...pass, values: checkedValues(passOf(pass.type), pass.values, context) }));
export type Pass = z.infer<typeof passSchema>;

/** Where a layer's picture comes from. */
export const sourceSchema = z
  .object({ type, values })
  .strict()
  .transform((source, context) => ({
    ...source,
    values: checkedValues(sourceOf(source.type), source.values, context),
  }));

/** Things that are declared by name and values, and kept as they are. */
const declared = z.object({ type, values }).strict();
const transition = declared.transform((own, context) => ({
  ...own,
  values: checkedValues(transitionOf(own.type), own.values, context),
}));

const stopSchema = z
  .object({ at: framesSchema, x: finite, y: finite, width: z.number().min(1).max(1e6), ease: easeSchema })
  .strict();
const ascending = (list: readonly { at: number }[]): boolean =>
  list.every((entry, i) => i === 0 || list[i - 1]!.at < entry.at);

export const SIDES = ['both', 'front', 'back'] as const;
export const placeSchema = z
  .object({
    /** what of the source fills the shot, and when; where it is set, position and scale follow from it */
    framing: z.array(stopSchema).min(1).max(24).refine(ascending, 'stops must be in ascending order').optional(),
    /** of the anchor, in shot pixels from the shot's centre, y down */
    position: valueOf(pair),
    /** 1 = 100 %; negative values are written as flips instead */
    scale: valueOf(z.tuple([z.number().min(0).max(1000), z.number().min(0).max(1000)])),
    /** degrees clockwise */
    rotation: valueOf(finite),
    /** in source pixels from the source's centre */
    anchor: valueOf(pair),
    /** degrees about the horizontal and the vertical axis through the anchor */
    tilt: valueOf(z.tuple([z.number().min(-3600).max(3600), z.number().min(-3600).max(3600)])),
    /** how strongly a tilted layer narrows with distance, 0…1 */
    perspective: valueOf(z.number().min(0).max(1)),
    /** shot pixels that the anchor lies behind the picture plane; negative before it, 0 when left out */
    depth: valueOf(finite).optional(),
    /** from which side it is seen; both when left out */
    side: z.enum(SIDES).optional(),
    flipX: z.boolean(),
    flipY: z.boolean(),
  })
  .strict();
export type Place = z.infer<typeof placeSchema>;

/** Fastest a layer can run, either way. */
export const MOST_SPEED = 100;

export const layerSchema = z
  .object({
    id: layerIdSchema,
    name,
    source: sourceSchema,
    /** shot frames */
    span: z.object({ start: framesSchema, length: z.int().min(1).max(10_000_000) }).strict(),
    /** source time at layer frame 0, in frames at the shot's rate, and how fast it runs from there */
    time: z
      .object({
        offset: z.number().min(-1e7).max(1e7),
        /** 1 = as recorded, 0 = standing still, negative = backwards */
        speed: valueOf(z.number().min(-MOST_SPEED).max(MOST_SPEED)),
        /** what is shown between two frames of the source */
        between: z.enum(['nearest', 'blend', 'flow']),
        keepPitch: z.boolean(),
      })
      .strict(),
    /** first one first; each works on what those before it cover */
    masks: z.array(maskSchema).max(MOST_MASKS).default([]),
    passes: z.array(passSchema).max(200),
    place: placeSchema,
    opacity: valueOf(z.number().min(0).max(1)),
    blend: z.enum(BLEND_MODES),
    sound: z
      .object({ gain: valueOf(z.number().min(0).max(8)), muted: z.boolean(), effects: z.array(declared).max(50) })
      .strict(),
    /** what its start and its end are gone through with */
    ends: z.object({ start: transition.optional(), end: transition.optional() }).strict(),
    shown: z.boolean(),
    /** goes along with another layer's place */
    parent: z.object({ layer: layerIdSchema, rotation: z.boolean(), scale: z.boolean() }).strict().nullable(),
    /** smear of the layer's own movement: how long the shutter is open as a share of a frame, and how many samples it takes */
    motionBlur: z
      .object({ shutter: z.number().min(0).max(2), samples: z.int().min(2).max(64) })
      .strict()
      .nullable(),
    /** takes its coverage from another layer of the shot, hidden or not */
    matte: z
      .object({ layer: layerIdSchema, by: z.enum(['alpha', 'brightness']), invert: z.boolean() })
      .strict()
      .nullable()
      .default(null),
    solo: z.boolean(),
    locked: z.boolean(),
  })
  .strict();
export type Layer = z.infer<typeof layerSchema>;
export type Source = Layer['source'];

/** The stock that a layer shows, if it is made of stock. */
export const stockOf = ({ source }: Pick<Layer, 'source'>): StockId | null =>
  source.type === 'stock' ? (source.values['stock'] as { still: StockId }).still : null;

/** The shot that a layer shows, if it is a group. */
export const groupOf = ({ source }: Pick<Layer, 'source'>): ShotId | null =>
  source.type === 'group' ? (source.values['shot'] as { still: ShotId }).still : null;
