// `npm test`: everything the tests need, then all of them.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { CHROMIUM } from './chromium';

const run = (command: string, args: string[], env: NodeJS.ProcessEnv = {}) =>
  execFileSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });

/** Chromium from Debian's packages, when it is missing and can be installed. */
function ensureChromium(): void {
  if (existsSync(CHROMIUM.executablePath)) return;
  console.log('Chromium is missing; installing it with apt-get.');
  try {
    run('apt-get', ['update', '-qq']);
    run('apt-get', ['install', '-y', '-qq', 'chromium'], { DEBIAN_FRONTEND: 'noninteractive' });
  } catch {
    // said below, whatever the reason was
  }
  if (existsSync(CHROMIUM.executablePath)) return;
  console.error(
    `The browser tests need Chromium at ${CHROMIUM.executablePath}. Install it as root: apt-get update && apt-get install chromium`,
  );
  process.exit(1);
}

try {
  ensureChromium();
  run('npm', ['run', '--silent', 'build']);
  run('npx', ['tsx', 'scripts/budget.ts']);
  run('npx', ['jest'], { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' });
  run('npx', ['playwright', 'test']);
} catch {
  process.exit(1);
}
