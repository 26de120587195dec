// Takes docs/screenshots from the demo, in the built application.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { choose, layer, openFreshDemo, openShot, pass, picture } from '../tests/helpers';
import { CHROMIUM } from './chromium';

const PORT = 4697;
const FOLDER = join(import.meta.dirname, '../docs/screenshots');

async function shoot(page: Page, name: string): Promise<void> {
  await page.mouse.move(640, 790);
  await page.waitForFunction(() => !document.querySelector('.v-tooltip .v-overlay__content'));
  await page.screenshot({ path: join(FOLDER, `${name}.png`), animations: 'disabled' });
}
const cached = (page: Page) => page.getByText('cached 120 of 120').waitFor({ timeout: 120_000 });

async function all(page: Page): Promise<void> {
  await openFreshDemo(page);
  await choose(page, 'Preview scale', '½');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight');
  await cached(page);
  await shoot(page, 'bench');
  await page.keyboard.press('2');
  await cached(page);
  await shoot(page, 'matte');
  await page.keyboard.press('3');
  await cached(page);
  await shoot(page, 'relief');
  await page.keyboard.press('4');
  await cached(page);
  await shoot(page, 'compare');
  await page.keyboard.press('1');
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await page.keyboard.press('t');
  await page.getByRole('button', { name: 'Animated values of captain' }).click();
  await page.getByRole('button', { name: 'Animated values of lantern glow' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('separator', { name: 'Height of track Lantern' }).press('ArrowDown');
  await cached(page);
  await shoot(page, 'tracks');
  await openShot(page, 'Buoy');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('a');
  await page.getByText('cached 96 of 96').waitFor({ timeout: 120_000 });
  await shoot(page, 'follow-focus');
  await openShot(page, 'Crane, crime film');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  await pass(page, 'Wheels').click();
  await page.getByRole('button', { name: 'Show scopes' }).click();
  await cached(page);
  await shoot(page, 'grade');
  await page.getByRole('button', { name: 'Scopes', exact: true }).click();
  await openShot(page, 'Title card');
  await layer(page, 'crane arm').getByRole('button', { name: 'crane arm', exact: true }).click();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('a');
  await page.getByLabel('Onion skin').check();
  await page.getByRole('button', { name: 'Animated values of crane arm' }).click();
  await cached(page);
  await shoot(page, 'masks');
  await page.getByLabel('Onion skin').uncheck();
  await openShot(page, 'Aurora, by strokes');
  await layer(page, 'signal tower').getByRole('button', { name: 'signal tower', exact: true }).click();
  await page.keyboard.press('a');
  await page.keyboard.press('Home');
  await cached(page);
  await shoot(page, 'selection');
  await openShot(page, 'Signal tower');
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+ArrowRight');
  await layer(page, 'signal tower').getByRole('button', { name: 'signal tower', exact: true }).click();
  await pass(page, 'Place').click();
  await page.getByRole('button', { name: 'Framing', exact: true }).click();
  await cached(page);
  await shoot(page, 'framing');
  await openShot(page, 'Wind-up boat');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  await layer(page, 'boat, ramp').getByRole('button', { name: 'boat, ramp', exact: true }).click();
  await pass(page, 'Source').click();
  await page.getByRole('button', { name: 'Grow the rows of the layer into curves' }).click();
  await cached(page);
  await shoot(page, 'curves');
  await openShot(page, 'Harbour log');
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight');
  await layer(page, 'Night ferry').getByRole('button', { name: 'Night ferry', exact: true }).click();
  await cached(page);
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Text on the picture' }).press('Control+Shift+ArrowLeft');
  await shoot(page, 'title');
  await page.keyboard.press('Escape');
  await openShot(page, 'Lantern magic');
  await layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true }).click();
  await cached(page);
  await page.getByRole('button', { name: 'Add a pass' }).click();
  await page.getByText('All by their pictures…').click();
  const sheet = page.getByRole('dialog', { name: 'Passes by their pictures' });
  await sheet.getByRole('button', { name: 'Trail' }).locator('canvas').waitFor();
  await sheet.getByRole('button', { name: 'Kaleidoscope' }).scrollIntoViewIfNeeded();
  await sheet.getByRole('button', { name: 'Twirl' }).focus();
  await page.waitForFunction(() => document.querySelector<HTMLCanvasElement>('aside canvas')?.width === 640);
  await shoot(page, 'passes');
  await page.keyboard.press('Escape');
  await openShot(page, 'Night ferry');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('green');
  await shoot(page, 'search');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Render…' }).click();
  await page.getByLabel('File name').waitFor();
  await shoot(page, 'render');
  await page.getByRole('button', { name: 'Start' }).click();
  await page.getByRole('link', { name: /^Renders/ }).click();
  await page
    .getByText(/120 frames · 5.00 s/)
    .first()
    .waitFor({ timeout: 120_000 });
  await page.getByRole('button', { name: 'Close this message' }).first().click();
  await shoot(page, 'renders');
  await page.getByRole('link', { name: 'Guide' }).click();
  await shoot(page, 'guide');
  await page.getByRole('link', { name: 'Projects' }).click();
  await page.getByRole('img').or(page.locator('.card img')).first().waitFor();
  await shoot(page, 'projects');
  await page.getByRole('button', { name: 'Evening or daylight look' }).click();
  await page.getByRole('link', { name: 'Open Paper Harbour' }).click();
  await picture(page).waitFor();
  await choose(page, 'Preview scale', '½');
  await cached(page);
  await shoot(page, 'daylight');
}

const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
  env: { ...process.env, PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((ready) => server.stdout.once('data', ready));
const browser = await chromium.launch(CHROMIUM);
try {
  await all(await browser.newPage({ baseURL: `http://localhost:${PORT}`, viewport: { width: 1280, height: 800 } }));
} finally {
  await browser.close();
  server.kill();
}
