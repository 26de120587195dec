import { z } from 'zod';
import type { Driver } from './define';
import { fade } from './fade';
import { follow } from './follow';
import { jitter } from './jitter';

const DRIVERS: readonly Driver[] = [jitter, follow, fade];
const byType = new Map(DRIVERS.map((driver) => [driver.type, driver]));

/** @returns the declaration, or undefined for a type that this version does not know */
export const driverOf = (type: string): Driver | undefined => byType.get(type);

/** A driver of a value. One of a type that this version does not know is kept as it is, and drives nothing. */
export const driverSchema = z.looseObject({ type: z.string().max(64) }).superRefine((driver, context) => {
  const result = driverOf(driver.type)?.schema.safeParse(driver);
  for (const issue of result?.error?.issues ?? [])
    context.addIssue({ code: 'custom', path: [...issue.path], message: issue.message });
});
export type AnyDriver = z.infer<typeof driverSchema>;
