// Says which folders of src import each other both ways, and fails when any do. A folder and one inside it count as one.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve, sep } from 'node:path';

const ROOT = join(import.meta.dirname, '../src');
const isCode = (name: string): boolean => /\.(ts|vue)$/.test(name) && !name.endsWith('.test.ts');
const within = (folder: string, other: string): boolean => `${other}${sep}`.startsWith(`${folder}${sep}`);

/** Imports from folder to folder, each with a file that has one. */
const imports = new Map<string, Map<string, string>>();
for (const name of readdirSync(ROOT, { recursive: true, encoding: 'utf8' }).filter(isCode)) {
  const from = dirname(name);
  for (const [, specifier] of readFileSync(join(ROOT, name), 'utf8').matchAll(/(?:from|import\()\s*'(\.[^']+)'/g)) {
    const to = relative(ROOT, dirname(resolve(ROOT, from, specifier!)));
    if (to === from || to.startsWith('..') || within(from, to) || within(to, from)) continue;
    const known = imports.get(from) ?? new Map<string, string>();
    imports.set(from, known.set(to, name));
  }
}
const pairs = [...imports].flatMap(([from, known]) =>
  [...known].flatMap(([to, file]) => {
    const back = from < to ? imports.get(to)?.get(from) : undefined;
    return back ? [`${from} and ${to} import each other: ${file}, ${back}`] : [];
  }),
);
pairs.forEach((pair) => console.error(pair));
process.exit(pairs.length ? 1 : 0);
