import { z } from 'zod';
import type { CoveragePlan } from '../masks/coverage';
import { defineKind, type Declared, type ParamBase } from './define';

/** Masks of the layer, by id. */
export interface MasksParam extends ParamBase<CoveragePlan> {
  kind: 'masks';
  /** what no choice means */
  empty: 'all' | 'none';
  /** paths that are not closed count too */
  open?: true;
  default: readonly string[];
}
export const masks = (p: Omit<Declared<MasksParam>, 'default'>): MasksParam => ({ kind: 'masks', default: [], ...p });

const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/);

export const masksKind = defineKind<MasksParam>({
  kind: 'masks',
  schema: () => z.array(id).max(64),
  resolve: ({ empty, open }, value, { coverage }) => coverage(value as string[], empty, open),
  range: () => 'masks of the layer',
});
