import { z } from 'zod';
import { defineDriver } from './define';
import type { Moment } from '../moment';

export const fadeSchema = z
  .object({
    type: z.literal('fade'),
    /** frames from the layer's beginning until all of it is there */
    in: z.int().min(0).max(1_000_000),
    /** frames from where it begins to go until the layer's end */
    out: z.int().min(0).max(1_000_000),
  })
  .strict();
export type Fade = z.infer<typeof fadeSchema>;

/** How much of something there is at a frame of a layer that fades. @param frame of layer time, fractions too @param length of the layer in frames @returns 0…1: nothing on the first frame of a fade in and on the last of a fade out */
export function fadedAt({ in: rise, out: fall }: Pick<Fade, 'in' | 'out'>, frame: number, length: number): number {
  const share = (frames: number, over: number): number => (over > 0 ? Math.min(1, Math.max(0, frames / over)) : 1);
  return Math.min(share(frame, rise), share(length - 1 - frame, fall));
}
const here = (driver: Fade, { frame, layer }: Moment): number => fadedAt(driver, frame, layer.span.length);

/** Brings a number up from nothing at a layer's beginning and down to nothing at its end, wherever those are. */
export const fade = defineDriver<Fade>({
  type: 'fade',
  title: 'Fade',
  schema: fadeSchema,
  drive: (plain, driver, moment) => (typeof plain === 'number' ? plain * here(driver, moment) : plain),
  undo: (wanted, driver, moment) => {
    const share = here(driver, moment);
    return typeof wanted === 'number' && share > 0 ? wanted / share : wanted;
  },
});
