import { z } from 'zod';
import { driverSchema, type AnyDriver } from '../time/drivers/registry';

const handle = z.number().min(-20).max(20);
/**
 * How a value goes from one keyframe to the next. `smooth` is a curve through the neighbours that never overshoots them;
 * `cubic` has the handles of CSS Easing 1; `bounce` lands that many times more.
 */
export const easeSchema = z.union([
  z.enum(['hold', 'linear', 'smooth']),
  z.object({ cubic: z.tuple([z.number().min(0).max(1), handle, z.number().min(0).max(1), handle]) }).strict(),
  z.object({ bounce: z.int().min(1).max(6) }).strict(),
]);
export type Ease = z.infer<typeof easeSchema>;

/** Whole frames at the shot's rate. */
export const framesSchema = z.int().min(-10_000_000).max(10_000_000);

const offset = z.tuple([z.number().min(-1e6).max(1e6), z.number().min(-1e6).max(1e6)]);

export interface Key<T> {
  /** frames of layer time; may lie outside the layer */
  at: number;
  value: T;
  ease: Ease;
  /** handles of a motion path, from the point, into it and out of it */
  bend?: { in: [number, number]; out: [number, number] } | undefined;
}

/** An animatable value: still, or keyed with at least one keyframe in ascending order. */
export type Value<T> = (
  | { still: T }
  | {
      keys: Key<T>[];
      /** along the path at one speed from the first keyframe to the last */ even?: boolean | undefined;
    }
) & {
  /** what changes it beside its keyframes, in order */
  drivers?: AnyDriver[] | undefined;
};

/** The schema of a value of T. Keyframes must ascend and be unique. */
export function valueOf<T extends z.ZodType>(schema: T) {
  const more = { drivers: z.array(driverSchema).max(8).optional() };
  const key = z
    .object({
      at: framesSchema,
      value: schema,
      ease: easeSchema,
      bend: z.object({ in: offset, out: offset }).strict().optional(),
    })
    .strict();
  const keys = z
    .array(key)
    .min(1)
    .max(100_000)
    .refine(
      (list) => list.every((entry, i) => i === 0 || list[i - 1]!.at < entry.at),
      'keyframes must be in ascending order',
    );
  return z.union([
    z.object({ still: schema, ...more }).strict(),
    z.object({ keys, even: z.boolean().optional(), ...more }).strict(),
  ]);
}

export const still = <T>(value: T): Value<T> => ({ still: value });

/** The keyframes of a value; none of a still one. */
export const keysOf = <T>(value: Value<T>): readonly Key<T>[] => ('keys' in value ? value.keys : []);
