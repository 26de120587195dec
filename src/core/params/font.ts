import { z } from 'zod';
import type { Moment } from '../time/moment';
import { FONTS, type FontName, type OwnFont } from '../text/fonts';
import { defineKind, type Declared, type ParamBase } from './define';

/** A font that ships with it by its name, or one of the project's stock by its id. */
export type FontValue = FontName | { stock: string };

export interface FontParam extends ParamBase<FontName | OwnFont> {
  kind: 'font';
  default: FontName;
}
export const font = (p: Declared<FontParam>): FontParam => ({ kind: 'font', ...p });

function planFont({ project }: Moment, value: FontValue): FontName | OwnFont {
  if (typeof value === 'string') return value;
  const item = project.stock.find(({ id }) => id === value.stock);
  return { stock: value.stock, name: item?.name ?? 'font', file: item ? `${item.file} ${item.facts.bytes}` : '' };
}

export const fontKind = defineKind<FontParam>({
  kind: 'font',
  schema: () =>
    z.union([
      z.enum(FONTS.map(({ value }) => value) as [FontName, ...FontName[]]),
      z.object({ stock: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/) }).strict(),
    ]),
  resolve: (_, value, { moment }) => planFont(moment, value as FontValue),
  range: () => `${FONTS.map(({ label }) => label).join(', ')}, or a font of the project’s stock`,
});
