import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

const share = z.number().min(0).max(1);
/** What was read from the plate of a key. */
export const readingSchema = z
  .object({
    /** likeness to the subject, 0…1, up to which the screen strays, and from which the subject is what it is */
    clear: share,
    solid: share,
    /** standard deviation of the luma on the screen, display-encoded */
    noise: share,
    /** how far the screen's light goes up and down from its middle, as a share of that */
    uneven: share,
    /** how much the insides of the subject look like the screen */
    spill: share,
    /** width of the edges in pixels of the source */
    edge: z.number().min(0).max(1e4),
  })
  .strict();
export type Reading = z.infer<typeof readingSchema>;

/** Keeps what was read from the picture, and which other values follow it. */
export interface ReadingParam extends ParamBase<Reading | null> {
  kind: 'reading';
  default: null;
  /** the parameters with the colours that it is read for, and with the balance of the other two channels */
  of: string;
  balance: string;
  /** the numbers that take its clear and its solid */
  clear: string;
  solid: string;
  /** the number with the frames to both sides that are taken together, the more the noisier the plate is */
  calm: string;
  /** the numbers with the beginning and the width of the ramp that both are counted on */
  ramp: readonly [from: string, width: string];
  /** values with which those are meant */
  along: Readonly<Record<string, unknown>>;
}
export const reading = (p: Declared<ReadingParam>): ReadingParam => ({ kind: 'reading', ...p });

export const readingKind = defineKind<ReadingParam>({
  kind: 'reading',
  schema: () => readingSchema.nullable(),
  fixed: true,
  // what follows it counts, not what it was
  resolve: () => null,
  range: () => 'what is read from the plate',
});

/** From so much noise on frames are taken together, and how many to each side. */
const NOISY = [
  { noise: 0.022, frames: 3 },
  { noise: 0.015, frames: 2 },
] as const;

/** What goes into a document when a plate has been read. */
export const readValues = (name: string, param: ReadingParam, read: Reading): Record<string, unknown> => ({
  ...param.along,
  [param.clear]: read.clear,
  [param.solid]: read.solid,
  [param.calm]: NOISY.find(({ noise }) => read.noise >= noise)?.frames ?? 0,
  [name]: read,
});

const percent = (v: number) => `${(v * 100).toFixed(v < 0.1 ? 1 : 0)} %`;
/** What kind of plate it is, in one sentence. */
export function plateInWords({ noise, uneven, spill, edge }: Reading): string {
  const grain = noise < 0.006 ? 'hardly any noise' : noise < 0.018 ? 'some noise' : 'strong noise';
  const screen = uneven < 0.06 ? 'an even screen' : uneven < 0.18 ? 'a slightly uneven screen' : 'an uneven screen';
  const light =
    spill < 0.01
      ? 'none of its light on the subject'
      : spill < 0.12
        ? 'some of its light on the subject'
        : 'much of its light on the subject';
  const soft = edge < 3 ? 'sharp edges' : edge < 8 ? 'soft edges' : 'very soft edges';
  return `This plate has ${grain} (${percent(noise)}), ${screen} (±${percent(uneven)}), ${light} (${percent(spill)}) and ${soft} (${edge.toFixed(1)} px).`;
}
