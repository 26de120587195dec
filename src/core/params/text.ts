import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

export interface TextParam extends ParamBase<string> {
  kind: 'text';
  default: string;
  /** most letters */
  most: number;
}
export const text = (p: Declared<TextParam>): TextParam => ({ kind: 'text', ...p });

export const textKind = defineKind<TextParam>({
  kind: 'text',
  schema: ({ most }) => z.string().max(most),
  range: ({ most }) => `up to ${most} letters, lines by line breaks`,
});
