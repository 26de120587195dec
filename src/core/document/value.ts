import { z } from 'zod';

/** How a value goes from one keyframe to the next. */
export const easeSchema = z.union([
  z.literal('hold'),
  z.literal('linear'),
  z.object({ cubic: z.tuple([z.number().min(0).max(1), z.number(), z.number().min(0).max(1), z.number()]) }).strict(),
]);
export type Ease = z.infer<typeof easeSchema>;

/** Whole frames at the shot's rate. */
export const framesSchema = z.int().min(-10_000_000).max(10_000_000);

const jitterSchema = z.object({ amount: z.number(), speed: z.number().min(0), smooth: z.number().min(0).max(1), seed: z.int() }).strict();
const followSchema = z.object({ track: z.string().min(1).max(64), parts: z.array(z.string().max(32)).max(8), offset: z.array(z.number()).max(4) }).strict();

export interface Key<T> {
  /** frames of layer time; may lie outside the layer */
  at: number;
  value: T;
  ease: Ease;
}

/** An animatable value: still, or keyed with at least one keyframe in ascending order. */
export type Value<T> = ({ still: T } | { keys: Key<T>[] }) & {
  jitter?: z.infer<typeof jitterSchema> | undefined;
  follow?: z.infer<typeof followSchema> | undefined;
};

/** The schema of a value of T. Keyframes must ascend and be unique. */
export function valueOf<T extends z.ZodType>(schema: T) {
  const more = { jitter: jitterSchema.optional(), follow: followSchema.optional() };
  const key = z.object({ at: framesSchema, value: schema, ease: easeSchema }).strict();
  const keys = z
    .array(key)
    .min(1)
    .max(100_000)
    .refine((list) => list.every((entry, i) => i === 0 || list[i - 1]!.at < entry.at), 'keyframes must be in ascending order');
  return z.union([z.object({ still: schema, ...more }).strict(), z.object({ keys, ...more }).strict()]);
}

export const still = <T>(value: T): Value<T> => ({ still: value });
