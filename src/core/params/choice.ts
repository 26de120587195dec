import { z } from 'zod';
import { defineKind, type Declared, type ParamBase } from './define';

export interface ChoiceParam extends ParamBase<string> {
  kind: 'choice';
  default: string;
  options: readonly { value: string; label: string }[];
}
export const choice = (p: Declared<ChoiceParam>): ChoiceParam => ({ kind: 'choice', ...p });

export const choiceKind = defineKind<ChoiceParam>({
  kind: 'choice',
  schema: ({ options }) => z.enum(options.map((option) => option.value) as [string, ...string[]]),
  range: ({ options }) => options.map((option) => option.label).join(', '),
});
