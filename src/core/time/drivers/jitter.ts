import { z } from 'zod';
import { wanderAt } from '../wander';
import { defineDriver } from './define';

export const jitterSchema = z
  .object({
    type: z.literal('jitter'),
    amount: z.number().min(0).max(1e6),
    every: z.number().min(1).max(10_000),
    smooth: z.number().min(0).max(1),
    seed: z.int().min(0).max(1_000_000),
  })
  .strict();
export type Jitter = z.infer<typeof jitterSchema>;

/** Seeded noise on top of numbers; each part of a value wanders on its own. */
export const jitter = defineDriver<Jitter>({
  type: 'jitter',
  title: 'Jitter',
  schema: jitterSchema,
  drive: (plain, driver, { frame }) => shifted(plain, driver, frame, 1),
  undo: (wanted, driver, { frame }) => shifted(wanted, driver, frame, -1),
});

function shifted(plain: unknown, driver: Jitter, frame: number, way: 1 | -1): unknown {
  if (driver.amount === 0) return plain;
  if (typeof plain === 'number') return plain + way * wanderAt(driver, frame);
  return Array.isArray(plain) && typeof plain[0] === 'number'
    ? plain.map((part: number, i) => part + way * wanderAt(driver, frame, i))
    : plain;
}
