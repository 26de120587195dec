// Writes docs/passes.md from the declarations; with --check, says whether it is up to date.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { shown } from '../src/core/params/define';
import { rangeOf, type Param } from '../src/core/params/registry';
import { PASSES } from '../src/core/passes/registry';
import { TRANSITIONS } from '../src/core/transitions/registry';

const FILE = join(import.meta.dirname, '../docs/passes.md');
const isNone = (value: unknown): boolean => value === null || (Array.isArray(value) && !value.length);

function row(name: string, declared: Param): string {
  const param = { ...declared, default: declared.begins ?? declared.default } as Param;
  const initial =
    param.kind === 'number'
      ? shown(param.default, param.unit)
      : param.kind === 'choice'
        ? param.options.find((option) => option.value === param.default)!.label
        : param.kind === 'masks' && param.empty === 'all'
          ? 'all of them'
          : isNone(param.default)
            ? 'none'
            : JSON.stringify(param.default);
  return `| ${param.label} | \`${name}\` | ${rangeOf(param)} | ${initial} | ${param.help} |`;
}

const table = (params: object): string[] => [
  '| dial | name in files | range | begins with | what it does |',
  '|---|---|---|---|---|',
  ...Object.entries(params).map(([name, param]) => row(name, param as Param)),
];
const text = [
  '# Passes',
  '',
  'Made from the declarations in `src/core/passes` by `npm run docs:passes`. Pixel values are in the source’s full size.',
  'Each as it begins on a picture, made by `npm run docs:pictures`; those that need a mask, a plate or a track show the picture as it is.',
  ...[...new Set(PASSES.map(({ group }) => group))].flatMap((group) => [
    '',
    `![Passes for ${group}](passes/${group.replaceAll(' ', '-')}.webp)`,
  ]),
  ...PASSES.flatMap((pass) => [
    '',
    `## ${pass.title}`,
    '',
    `${pass.help} Kind: ${'run' in pass ? 'area (reads around each pixel)' : 'point'}. Group: ${pass.group}. Found by: ${pass.words.join(', ')}.${pass.uses ? ` Also put in as ${pass.uses.map(({ title }) => title).join(', ')}.` : ''}`,
    '',
    ...table(pass.params),
  ]),
  '',
  '# Transitions',
  '',
  'What a layer begins or ends with, beside a plain fade; declared in `src/core/transitions`. They work in the shot’s pixels, after all passes.',
  ...TRANSITIONS.flatMap(({ title, help, words, params }) => [
    '',
    `## ${title}`,
    '',
    `${help} Found by: ${words.join(', ')}.`,
    '',
    ...table(params),
  ]),
  '',
].join('\n');

if (!process.argv.includes('--check')) writeFileSync(FILE, text);
else if (readFileSync(FILE, 'utf8') !== text) {
  console.error('docs/passes.md is out of date. Run: npm run docs:passes');
  process.exit(1);
}
