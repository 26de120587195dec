import { z } from 'zod';
import { defineKind, type Colour, type Declared, type ParamBase } from './define';

/** One colour, display-encoded RGB 0…1. */
export interface ColourParam extends ParamBase<Colour> {
  kind: 'colour';
  default: Colour;
}
export const colour = (p: Declared<ColourParam>): ColourParam => ({ kind: 'colour', ...p });

const channel = z.number().min(0).max(1);
export const colourSchema = z.tuple([channel, channel, channel]);

export const colourKind = defineKind<ColourParam>({
  kind: 'colour',
  schema: () => colourSchema,
  numbers: () => ({ names: ['red', 'green', 'blue'], unit: '', min: 0, max: 1 }),
  resolve: (_, value) => (value as Colour).map((part) => Math.min(1, Math.max(0, part))),
  range: () => 'a colour',
});
