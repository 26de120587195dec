// Nothing that was done is lost: killed tabs, second tabs, files out and in.
import { expect } from '@playwright/test';
import { openDemo, test } from './fixtures';
import { allKept, layer, openShot, pictureShown, typeNumber } from './helpers';
import { killAndReopen } from './kills';

test('a tab killed at random moments loses no edit that was said to be kept', async ({ page, context }) => {
  test.setTimeout(240_000);
  await openDemo(page);
  // one round of what `npm run kills` does many times
  await killAndReopen(context, page.url(), page, 1, 7);
});

test('a second tab may look but not edit, and takes over when the first closes', async ({ page, context }) => {
  await openDemo(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await pictureShown(second);
  await expect(second.getByText('This project is open in another tab')).toBeVisible();
  await expect(second.getByRole('textbox', { name: 'Clear up to, %' })).toBeDisabled();
  await typeNumber(page, 'Clear up to, %', '22');
  await allKept(page);
  await page.close();
  await expect(second.getByText('it can be edited here now')).toBeVisible();
  await expect(second.getByRole('textbox', { name: 'Clear up to, %' })).toHaveValue('22');
  await typeNumber(second, 'Clear up to, %', '23');
  await expect(second.getByRole('textbox', { name: 'Clear up to, %' })).toHaveValue('23');
});

test('a project saved as a file opens again beside the first, undo goes on after a reload', async ({ page }, info) => {
  await openDemo(page);
  await typeNumber(page, 'Clear up to, %', '33');
  await allKept(page);
  await page.reload();
  await pictureShown(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('textbox', { name: 'Clear up to, %' })).toHaveValue('7.5');
  await page.keyboard.press('Control+Shift+z');
  await allKept(page);
  // a reload comes back to the shot that was open
  await openShot(page, 'Captain to key');
  await expect(page).toHaveURL(/shot=/);
  await page.reload();
  await pictureShown(page);
  await expect(page.getByRole('button', { name: /^Shot: / })).toHaveText('Captain to key');
  await page.getByRole('link', { name: 'Projects' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save Paper Harbour as a file' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Paper Harbour.jackplane');
  const saved = info.outputPath('Paper Harbour.jackplane');
  await file.saveAs(saved);
  await page.getByLabel('Project file').setInputFiles(saved);
  await page.getByRole('link', { name: 'Open Paper Harbour (copy)' }).click({ timeout: 60_000 });
  await pictureShown(page);
  await expect(layer(page, 'captain')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Clear up to, %' })).toHaveValue('33');
});
