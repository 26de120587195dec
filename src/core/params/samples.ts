import { z } from 'zod';
import { colourSchema } from './colour';
import { defineKind, type Colour, type Declared, type ParamBase } from './define';

/** What is said of picking, and what a pick does besides. */
export interface Picking {
  says: string;
  /** said while nothing is picked */
  empty?: string;
  /** why a colour cannot tell what is asked of it, or null */
  warns?(colour: Colour): string | null;
  /** other values that a pick sets, by name */
  sets?(colour: Colour): Record<string, unknown>;
}

/** A list of picked colours. */
export interface SamplesParam extends ParamBase<readonly Colour[]> {
  kind: 'samples';
  /** what is picked from: what comes into the pass, or the shot without the layer */
  from?: 'layer' | 'shot';
  /** it can be proposed from the picture: the colours of its screen */
  finds?: boolean;
  /** the parameter that keeps what is read from the plate for them */
  reads?: string;
  /** how picking goes */
  picks?: Picking;
  default: readonly Colour[];
  most: number;
}
export const samples = (p: Declared<SamplesParam>): SamplesParam => ({ kind: 'samples', ...p });

export const samplesKind = defineKind<SamplesParam>({
  kind: 'samples',
  schema: ({ most }) => z.array(colourSchema).max(most),
  range: ({ most }) => (most === 1 ? 'a picked colour' : `up to ${most} picked colours`),
});
