import { z } from 'zod';
import { defineKind, type Declared, type ParamBase, type PictureOf } from './define';

/** Pictures of other layers of the shot, after their own passes; resolved to the keys by which they are found: an empty one for what has no picture. */
export interface PicturesParam extends ParamBase<readonly string[]> {
  kind: 'pictures';
  default: readonly string[];
  /** how many layers may be chosen */
  most: number;
  /** what is shown while none is */
  none: string;
  /** as they lie in the shot; otherwise before their Place */
  placed?: true;
  /** when they are seen: at the moment when left out */
  at?: 'middle';
  /** the switch beside it that lets them stand still, as they are on their first frame */
  stands?: string;
}
export const pictures = (p: Omit<Declared<PicturesParam>, 'default'>): PicturesParam => ({
  kind: 'pictures',
  default: [],
  ...p,
});

export const picturesKind = defineKind<PicturesParam>({
  kind: 'pictures',
  fixed: true,
  schema: ({ most }) => z.array(z.string().regex(/^[A-Za-z0-9_-]{1,64}$/)).max(most),
  resolve: ({ placed = false, at, stands }, value, { picture }, now) => {
    const how: PictureOf = { placed, at: stands && now(stands) === true ? 'first' : (at ?? 'now') };
    return (value as string[]).map((id) => picture(id, how) ?? '');
  },
  range: ({ most }) => (most > 1 ? `up to ${most} layers of the shot` : 'a layer of the shot'),
});
