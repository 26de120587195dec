import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';

export const media = (name: string): string => join(import.meta.dirname, '../demo/media', name);

/** Collects what the page complains about; a test that walks a task ends with none. */
export function complaints(page: Page): string[] {
  const said: string[] = [];
  page.on('pageerror', (error) => said.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error') said.push(message.text());
  });
  return said;
}

/** @returns the link that opens it */
export async function unpackDemo(page: Page): Promise<Locator> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open the demo' }).click();
  const link = page.getByRole('link', { name: 'Open Paper Harbour' });
  await expect(link).toBeVisible({ timeout: 60_000 });
  return link;
}
export async function openFreshDemo(page: Page): Promise<void> {
  await (await unpackDemo(page)).click();
  await pictureShown(page);
}

export async function newProject(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('The first shot')).toBeVisible();
}

export async function makeShot(
  page: Page,
  settings: { name?: string; width?: number; height?: number; length?: string; clear?: boolean } = {},
): Promise<void> {
  if (settings.name) await page.getByRole('textbox', { name: 'Name', exact: true }).fill(settings.name);
  if (settings.width) await page.getByLabel('Width, px').fill(String(settings.width));
  if (settings.height) await page.getByLabel('Height, px').fill(String(settings.height));
  if (settings.length) await page.getByLabel('Length', { exact: true }).fill(settings.length);
  if (settings.clear) await page.getByLabel('Clear background').check();
  // what was typed is where it was meant to go, wherever the form puts the focus when it opens
  if (settings.width) await expect(page.getByLabel('Width, px')).toHaveValue(String(settings.width));
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('region', { name: 'Time' })).toBeVisible();
}

export const importFiles = (
  page: Page,
  ...files: (string | { name: string; mimeType: string; buffer: Buffer })[]
): Promise<void> =>
  page
    .getByLabel('Files to import')
    .setInputFiles(
      files.every((file) => typeof file === 'string')
        ? files.map(media)
        : files.map((file) => (typeof file === 'string' ? asFile(file, readFileSync(media(file))) : file)),
    );

export const asFile = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/octet-stream', buffer });
export const cut = (name: string, share: number): Buffer => {
  const whole = readFileSync(media(name));
  return whole.subarray(0, Math.floor(whole.length * share));
};

export const picture = (page: Page): Locator => page.getByRole('img', { name: /^Frame \d+ of/ });

/** How often something that comes soon is looked for, in milliseconds. */
const SOON = [20, 40, 80];

/** The picture of the current frame, as everything stands now, has been drawn. */
export async function pictureShown(page: Page): Promise<void> {
  await expect
    .poll(
      async () =>
        (await picture(page).and(page.locator('[aria-busy=false]')).getAttribute('data-frame')) ===
        (await page.getByLabel('Frame', { exact: true }).innerText()),
      { timeout: 60_000, intervals: SOON },
    )
    .toBe(true);
}

export const drawn = async (page: Page): Promise<number> => Number(await picture(page).getAttribute('data-drawn'));

/** Does something and waits until the picture has been drawn anew since. */
export async function redrawn(page: Page, act: () => Promise<unknown>): Promise<void> {
  const before = await drawn(page);
  await act();
  await expect.poll(() => drawn(page), { intervals: SOON }).toBeGreaterThan(before);
  await pictureShown(page);
}

/** RGBA of the viewer's picture at a place given in shares of its size. */
export function colourAt(page: Page, x: number, y: number): Promise<number[]> {
  return picture(page).evaluate(
    (canvas: HTMLCanvasElement, [u, v]) => [
      ...canvas.getContext('2d')!.getImageData(Math.floor(u! * canvas.width), Math.floor(v! * canvas.height), 1, 1)
        .data,
    ],
    [x, y],
  );
}

/** Chooses from a list that opens. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click({ force: true });
  const wanted = page.getByRole('option', { name: option, exact: true });
  // of a long list only what is in its window is there
  let seen = 0;
  await expect(async () => {
    if (!(await wanted.count())) {
      const from = 150 * seen++;
      await page
        .getByRole('listbox')
        .last()
        .evaluate((list, top) => list.scrollTo(0, top % Math.max(1, list.scrollHeight)), from);
    }
    await expect(wanted).toBeVisible({ timeout: 500 });
  }).toPass();
  await wanted.click();
}
/** Does what the search finds first for a wish. */
export async function wish(page: Page, text: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill(text);
  await page.keyboard.press('Enter');
}
/** Types a number into a field and leaves it. */
export async function typeNumber(page: Page, label: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label });
  await field.fill(text);
  await field.press('Enter');
}

export const layer = (page: Page, name: string): Locator =>
  page.getByRole('group', { name: `Layer ${name}`, exact: true });
export const pass = (page: Page, name: string): Locator =>
  page.getByRole('region', { name: 'Passes' }).getByRole('button', { name, exact: true });
export const addToShot = async (page: Page, name: string): Promise<void> => {
  const item = page.getByRole('region', { name: 'Stock' }).getByRole('listitem').filter({ hasText: name });
  const layers = page.getByRole('group', { name: /^Layer / });
  const before = await layers.count();
  await item.hover();
  await item.getByRole('button', { name: `Add ${name} to the shot` }).click();
  await expect(layers).toHaveCount(before + 1);
};
/** Puts a layer that needs no footage on the stack. */
export async function makeLayer(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: '+ make something ▾' }).click();
  await page.locator('.v-list-item').getByText(title, { exact: true }).click();
}
/** A dialog is open and has the focus. */
export async function dialogOpen(page: Page, name: string): Promise<Locator> {
  const dialog = page.getByRole('dialog', { name });
  await expect(dialog.and(page.locator(':focus-within'))).toBeVisible();
  return dialog;
}
/** Nothing waits to be written any more. */
export const allKept = (page: Page): Promise<void> => expect(page.getByText(/^All kept/)).toBeVisible();
export const full = async (page: Page): Promise<void> => void (await choose(page, 'Preview scale', 'full'));

/** Places a pointer drag between two points of the page. */
export async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}
export async function middle(locator: Locator): Promise<{ x: number; y: number }> {
  const box = (await locator.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

export async function openShot(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^Shot: / }).click();
  await page.locator('.v-list-item').getByText(name, { exact: true }).click();
}
