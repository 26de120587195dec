// Writes docs/passes.md from the declarations; with --check, says whether it is up to date.
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Param } from '../src/core/passes/define';
import { PASSES } from '../src/core/passes/registry';

const FILE = join(import.meta.dirname, '../docs/passes.md');
const shown = (param: Param, value: number) =>
  param.kind === 'number' && param.unit === '%'
    ? `${Math.round(value * 1000) / 10} %`
    : `${value}${param.kind === 'number' && param.unit ? ` ${param.unit}` : ''}`;

function row(name: string, param: Param): string {
  const range =
    param.kind === 'number'
      ? `${shown(param, param.min)} … ${shown(param, param.max)}`
      : param.kind === 'choice'
        ? param.options.map((option) => option.label).join(', ')
        : param.kind === 'masks'
          ? 'masks of the layer'
          : param.kind === 'plate'
            ? 'a picture in stock'
            : `up to ${param.most} colours`;
  const initial =
    param.kind === 'number'
      ? shown(param, param.default)
      : param.kind === 'choice'
        ? param.options.find((option) => option.value === param.default)!.label
        : param.kind === 'masks' && param.empty === 'all'
          ? 'all of them'
          : 'none';
  return `| ${param.label} | \`${name}\` | ${range} | ${initial} | ${param.help} |`;
}

const text = [
  '# Passes',
  '',
  'Made from the declarations in `src/core/passes` by `npm run docs:passes`. Pixel values are in the source’s full size.',
  ...PASSES.flatMap((pass) => [
    '',
    `## ${pass.title}`,
    '',
    `${pass.help} Kind: ${'run' in pass ? 'area (reads around each pixel)' : 'point'}. Group: ${pass.group}. Found by: ${pass.words.join(', ')}.`,
    '',
    '| dial | name in files | range | default | what it does |',
    '|---|---|---|---|---|',
    ...Object.entries(pass.params).map(([name, param]) => row(name, param)),
  ]),
  '',
].join('\n');

if (!process.argv.includes('--check')) writeFileSync(FILE, text);
else if (readFileSync(FILE, 'utf8') !== text) {
  console.error('docs/passes.md is out of date. Run: npm run docs:passes');
  process.exit(1);
}
