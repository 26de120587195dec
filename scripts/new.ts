// `npm run new -- pass vignette`: a file for a new pass, its line in the registry, and a test that fails until the pass does something.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const [kind, type] = process.argv.slice(2);
if (kind !== 'pass' || !/^[a-z][a-z0-9-]{1,40}$/.test(type ?? '')) {
  console.error('Say what to make and its type, in small letters and hyphens: npm run new -- pass vignette');
  process.exit(1);
}
const folder = join(import.meta.dirname, '../src/core/passes');
const file = join(folder, `${type}.ts`);
if (existsSync(file)) {
  console.error(`${file} is there already.`);
  process.exit(1);
}
const name = type!.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase());
const title = type!.charAt(0).toUpperCase() + type!.slice(1).replaceAll('-', ' ');

writeFileSync(
  file,
  `import { number } from '../params/number';
import { definePass } from './define';

/** ${title}: … Source: … */
export const ${name} = definePass({
  type: '${type}',
  title: '${title}',
  group: 'grade',
  words: ['${type!.replaceAll('-', ' ')}'],
  help: 'What it does, in a sentence or two. Relatives: …',
  params: {
    amount: number({
      label: 'Amount',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How strongly it works.',
    }),
  },
  idle: (v) => v.amount === 0,
  // n pixels of 16 bytes from src to dst; x and y say where they lie. What runs once per pixel is a kernel
  prepare:
    (_v, { kernels }) =>
    (src, dst, n) =>
      kernels.copy(src, dst, n),
});
`,
);
writeFileSync(
  join(folder, `${type}.test.ts`),
  `import { beforeAll, expect, test } from '@jest/globals';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';

let bench: TestRig;
beforeAll(async () => {
  bench = await testRig(16e6);
});

test('what the published formula says', () => {
  const picture = pictureOf(bench, { x: 0, y: 0, w: 2, h: 1 }, [0.2, 0.4, 0.6, 1, 0.1, 0.1, 0.1, 0.5]);
  const out = runPass(bench, '${type}', {}, picture.retain());
  // an oracle that is not the pass: put numbers here that you worked out by hand
  expect([...floatsOf(bench, out)]).not.toEqual([...floatsOf(bench, picture)]);
  out.release();
});
`,
);
const registry = join(folder, 'registry.ts');
const text = readFileSync(registry, 'utf8');
writeFileSync(
  registry,
  text
    .replace(/(\nimport type )/, `\nimport { ${name} } from './${type}';$1`)
    .replace(/(PASSES: readonly AnyPass\[\] = \[[^\]]*)\]/, `$1  ${name},\n]`),
);
console.log(
  `src/core/passes/${type}.ts and its test are made, and the registry lists it. Next: CONTRIBUTING.md, “How to add a pass”.`,
);
