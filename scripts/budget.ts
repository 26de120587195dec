// Says when the scripts that the first page loads grow beyond what was set for them. Runs after a build.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const MOST_KB = 450;
const DIST = 'dist';
type Manifest = Record<string, { file: string; imports?: string[] }>;
const manifest = JSON.parse(readFileSync(join(DIST, '.vite/manifest.json'), 'utf8')) as Manifest;

/** A chunk and all that it needs at once. */
function needed(name: string, found = new Set<string>()): Set<string> {
  const { file, imports = [] } = manifest[name]!;
  if (!found.has(file)) {
    found.add(file);
    imports.forEach((other) => needed(other, found));
  }
  return found;
}
const files = new Set(['index.html', 'views/ProjectsView.vue'].flatMap((name) => [...needed(name)]));
const bytes = [...files].reduce((sum, file) => sum + gzipSync(readFileSync(join(DIST, file))).length, 0);
const said = `The first page loads ${Math.round(bytes / 1000)} kB of scripts, compressed, in ${files.size} files; at most ${MOST_KB} kB.`;
console.log(said);
if (bytes > MOST_KB * 1000) process.exit(1);
