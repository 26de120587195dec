import { z } from 'zod';
import type { Moment } from '../time/moment';
import { STAMP_ROUNDING } from '../time/rate';
import { defineKind, type Declared, type ParamBase } from './define';

export const plateSchema = z
  .object({
    stock: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
    seconds: z.number().min(0).max(1e6),
    median: z.boolean(),
  })
  .strict()
  .nullable();
export type Plate = z.infer<typeof plateSchema>;
/** The moments whose median the plate is; one for a single frame. Null when none is chosen. */
export type PlatePlan = { stock: string; name: string; file: string; seconds: readonly number[] } | null;

/** A picture of the scene without its subject: a moment of stock, or the median over a whole clip. */
export interface PlateParam extends ParamBase<PlatePlan> {
  kind: 'plate';
  default: null;
}
export const plate = (p: Omit<Declared<PlateParam>, 'default'>): PlateParam => ({ kind: 'plate', default: null, ...p });

/** Moments that a median is taken of. */
const MEDIAN_OF = 11;

function planPlate({ project }: Moment, chosen: Plate): PlatePlan {
  const item = chosen && project.stock.find((entry) => entry.id === chosen.stock);
  if (!chosen || !item) return null;
  const long = item.facts.seconds ?? 0;
  const seconds = chosen.median
    ? Array.from({ length: MEDIAN_OF }, (_, i) => ((i + 0.5) / MEDIAN_OF) * long)
    : [chosen.seconds];
  return {
    stock: item.id,
    name: item.name,
    file: `${item.file} ${item.facts.bytes}`,
    seconds: item.kind === 'image' ? [STAMP_ROUNDING] : seconds.map((at) => at + STAMP_ROUNDING),
  };
}

export const plateKind = defineKind<PlateParam>({
  kind: 'plate',
  schema: () => plateSchema,
  resolve: (_, value, { moment }) => planPlate(moment, value as Plate),
  range: () => 'a frame, a median over a clip, or none',
});
