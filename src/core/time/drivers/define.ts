import type { z } from 'zod';
import type { Moment } from '../moment';

/** Something that changes a value beside its keyframes. Several on one value work one after the other. */
export interface Driver<D extends { type: string } = { type: string }> {
  type: D['type'];
  title: string;
  schema: z.ZodType<D>;
  /** @param plain the value without this driver; numbers, lists of numbers, or anything else @returns the value with it */
  drive(plain: unknown, driver: D, moment: Moment): unknown;
  /** what has to be there without it so that this comes of it: the opposite of `drive` */
  undo(wanted: unknown, driver: D, moment: Moment): unknown;
}

export const defineDriver = <D extends { type: string }>(driver: Driver<D>): Driver & Driver<D> =>
  driver as unknown as Driver & Driver<D>;
