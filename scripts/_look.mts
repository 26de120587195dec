import { spawn } from 'node:child_process';
import { chromium } from '@playwright/test';
import { openDemo, pass, picture, layer, typeNumber } from '../tests/helpers';
import { CHROMIUM } from './chromium';
const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], { env: { ...process.env, PORT: '4699' }, stdio: ['ignore', 'pipe', 'inherit'] });
await new Promise((r) => server.stdout.once('data', r));
const browser = await chromium.launch(CHROMIUM);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: 'http://127.0.0.1:4699' });
page.setDefaultTimeout(15000);
page.on('pageerror', (e) => console.log('ERR', e.message));
page.on('console', (m) => m.type() === 'error' && console.log('console', m.text().slice(0, 300)));
const shot = (n: string) => page.screenshot({ path: `/tmp/shots/${n}.png` });
try {
  const steps = (await import(process.argv[2]!)).default;
  await openDemo(page);
  await steps({ page, shot, pass, picture, layer, typeNumber });
} catch (e) { console.log(String(e).slice(0, 1500)); await shot('fail'); }
await browser.close(); server.kill();
