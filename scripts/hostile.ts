// `npm run hostile`: imports some 460 damaged and odd files and tells what became of each. Build first.
import { spawn } from 'node:child_process';
import { chromium } from '@playwright/test';
import { hostileFiles } from '../tests/hostile';
import { makeShot, newProject } from '../tests/helpers';
import { CHROMIUM } from './chromium';

const PORT = 4698;
const LONGEST = 60_000;
const files = await hostileFiles(Number(process.argv[2] ?? 4711));
const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
  env: { ...process.env, PORT: String(PORT) },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((ready) => server.stdout.once('data', ready));
const browser = await chromium.launch(CHROMIUM);
const outcomes = { taken: 0, refused: 0 };
const wrong: string[] = [];
try {
  const page = await browser.newPage({ baseURL: `http://localhost:${PORT}`, viewport: { width: 1280, height: 800 } });
  page.on('crash', () => wrong.push('the tab crashed'));
  page.on('pageerror', (error) => wrong.push(`the page threw ${error.message}`));
  await newProject(page, 'Hostile');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  const stock = page.getByRole('region', { name: 'Stock' });
  for (const { name, buffer } of files) {
    const before = await stock.getByRole('listitem').count();
    const begin = performance.now();
    await page.getByLabel('Files to import').setInputFiles([{ name, mimeType: 'application/octet-stream', buffer }]);
    const said = stock.locator('.job .problem');
    const end = await page
      .waitForFunction(
        (count) =>
          document.querySelectorAll('.job .problem').length > 0 ||
          document.querySelectorAll('.items .item').length > count,
        before,
        { timeout: LONGEST },
      )
      .then(
        () => true,
        () => false,
      );
    const seconds = ((performance.now() - begin) / 1000).toFixed(1);
    if (!end) wrong.push(`${name}: no answer in ${seconds} s`);
    else if ((await said.count()) > 0) {
      const sentence = await said.first().innerText();
      outcomes.refused++;
      if (!sentence.includes(name)) wrong.push(`${name}: “${sentence}” does not name it`);
      if (/does not know|undefined|Error|assert/i.test(sentence)) wrong.push(`${name}: “${sentence}”`);
      await stock.getByRole('button', { name: 'Close' }).first().click();
    } else outcomes.taken++;
    if (Number(seconds) > 5) console.log(`${name}: ${seconds} s`);
  }
  // the project opens, and what was taken in can be shown
  await page.reload();
  await page.getByRole('region', { name: 'Stock' }).getByRole('listitem').first().waitFor();
} finally {
  await browser.close();
  server.kill();
}
console.log(`${files.length} files: ${outcomes.taken} taken in, ${outcomes.refused} refused in a sentence`);
wrong.forEach((line) => console.error(line));
console.log(`${files.length - wrong.length} passed, ${wrong.length} failed`);
process.exit(wrong.length ? 1 : 0);
