// `npm run kills [-- 200]`: kills the tab that many times while it works, and opens the project anew each time. Build first.
import { spawn } from 'node:child_process';
import { chromium } from '@playwright/test';
import { openFreshDemo } from '../tests/helpers';
import { killAndReopen } from '../tests/kills';
import { CHROMIUM } from './chromium';

const PORT = 4699;
const kills = Number(process.argv[2] ?? 200);
const seed = Date.now() % 2147483647;
const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
  env: { ...process.env, PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((ready) => server.stdout.once('data', ready));
const browser = await chromium.launch(CHROMIUM);
try {
  console.log(`${kills} kills, seed ${seed}`);
  const context = await browser.newContext({
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
  });
  // the runner names the functions that are sent into the page
  await context.addInitScript('globalThis.__name = (named) => named');
  const page = await context.newPage();
  await openFreshDemo(page);
  await killAndReopen(context, page.url(), page, kills, seed, (told, rounds) => {
    if (told % 20 === 0) console.log(`${told} kills that say something, of ${rounds}`);
  });
  console.log(`${kills} passed, 0 failed`);
} finally {
  await browser.close();
  server.kill();
}
