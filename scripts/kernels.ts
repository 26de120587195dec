// Compiles the kernels to WebAssembly, unless what was compiled is newer than all of them.
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

const [SOURCES, COMPILED] = ['src/kernels', 'build/kernels.wasm'];
const newest = Math.max(...readdirSync(SOURCES).map((name) => statSync(join(SOURCES, name)).mtimeMs));
if (!existsSync(COMPILED) || statSync(COMPILED).mtimeMs < newest) {
  mkdirSync('build', { recursive: true });
  const settings = ['-O3', '--noAssert', '--enable', 'simd', '--runtime', 'stub', '--importMemory'];
  execFileSync('npx', ['asc', join(SOURCES, 'index.ts'), '-o', COMPILED, ...settings], { stdio: 'inherit' });
}
