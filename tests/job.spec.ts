// The whole job as a person does it: from an empty page to a rendered file.
import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { test } from './fixtures';
import {
  addToShot,
  allKept,
  colourAt,
  complaints,
  drag,
  full,
  importFiles,
  layer,
  makeShot,
  middle,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
} from './helpers';

test('from footage to file', async ({ page }) => {
  test.setTimeout(300_000);
  const said = complaints(page);
  await newProject(page, 'Evening ferry');
  await makeShot(page, { name: 'Arrival', width: 1280, height: 720, length: '24f' });

  // gather: several kinds at once, each with its facts
  await importFiles(
    page,
    'captain-even.mp4',
    'ferry-deck-night.webm',
    'card-rail.png',
    'harbour-bed.wav',
    'paper-scraps.webm',
  );
  const stock = page.getByRole('region', { name: 'Stock' });
  await expect(stock.getByRole('listitem')).toHaveCount(5, { timeout: 60_000 });
  await expect(stock.getByText('1280×720 · 24 · 5.0 s', { exact: true })).toBeVisible();
  await expect(stock.getByText(/ · 24 · 4.0 s · alpha/)).toBeVisible();
  await expect(stock.getByText(/ · still · alpha/)).toBeVisible();
  await expect(stock.getByText('sound · 6.0 s')).toBeVisible();

  // stack: the first clip fits the shot, so nothing is asked
  await addToShot(page, 'ferry deck night');
  await addToShot(page, 'captain even');
  await addToShot(page, 'harbour bed');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await pictureShown(page);

  // order: the captain's green covers the deck until he is keyed
  await layer(page, 'captain even').getByRole('button', { name: 'captain even', exact: true }).click();
  expect((await colourAt(page, 0.1, 0.2))[1]).toBeGreaterThan(120);

  // key: E, then a click on the screen
  await page.keyboard.press('e');
  const pick = page.getByRole('application', { name: 'Pick the screen colour on the picture' });
  await expect(pick).toBeVisible();
  const box = (await picture(page).boundingBox())!;
  await redrawn(page, () => page.mouse.click(box.x + box.width * 0.1, box.y + box.height * 0.2));
  await expect.poll(async () => (await colourAt(page, 0.1, 0.2))[1]).toBeLessThan(110);

  // matte: solid on the coat, clear on the screen
  await page.getByRole('button', { name: 'Matte', exact: true }).click();
  await expect.poll(() => colourAt(page, 0.5, 0.8)).toEqual([255, 255, 255, 255]);
  await expect.poll(() => colourAt(page, 0.1, 0.2)).toEqual([0, 0, 0, 255]);

  // before | after: the divider shows the green on the left
  await page.getByRole('button', { name: 'Before | After' }).click();
  await expect(page.getByRole('slider', { name: 'Divider between before and after' })).toHaveAttribute(
    'aria-valuenow',
    '50',
  );
  await page.getByRole('slider', { name: 'Divider between before and after' }).press('ArrowLeft');
  await expect(page.getByRole('slider', { name: 'Divider between before and after' })).toHaveAttribute(
    'aria-valuenow',
    '48',
  );
  await page.keyboard.press('1');

  // touch up, by key and by search
  await page.keyboard.press('g');
  await expect(pass(page, 'Adjust')).toBeVisible();
  await redrawn(page, () => typeNumber(page, 'Exposure, stops', '-1/2'));
  await page.keyboard.press('Control+k');
  await page.keyboard.type('out of focus');
  await page.keyboard.press('Enter');
  await expect(pass(page, 'Blur')).toBeVisible();
  await redrawn(page, () => typeNumber(page, 'Radius, px', '2'));

  // place: exact numbers, arithmetic, then by hand on the picture
  await page.keyboard.press('p');
  await typeNumber(page, 'Position x, x', '1280/8');
  await expect(page.getByRole('textbox', { name: 'Position x, x' })).toHaveValue('160');
  await typeNumber(page, 'Position x, x', '+40');
  await expect(page.getByRole('textbox', { name: 'Position x, x' })).toHaveValue('200');
  const from = await middle(picture(page));
  await drag(page, from, { x: from.x - 60, y: from.y });
  await expect(page.getByRole('textbox', { name: 'Position x, x' })).not.toHaveValue('200');
  await expect(page.getByRole('textbox', { name: 'Position y, y' })).toHaveValue('0');
  await page.getByRole('button', { name: 'Left half' }).click();
  await expect(page.getByRole('textbox', { name: 'Position x, x' })).toHaveValue('-320');
  await expect(pass(page, 'Pane')).toBeVisible();

  // undo by the rail and redo by keys, with readable names
  await page.getByRole('button', { name: 'Undo: Left half: captain even' }).click();
  await expect(pass(page, 'Pane')).toHaveCount(0);
  await page.keyboard.press('Control+Shift+z');
  await expect(pass(page, 'Pane')).toBeVisible();
  await page.getByLabel('Fill their part').uncheck();
  await page.getByRole('button', { name: 'Left half', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Scale width, %' })).toHaveValue('50');

  // watch: play with sound until frames have gone by
  await page.keyboard.press('Home');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect.poll(async () => Number(await page.getByLabel('Frame', { exact: true }).innerText())).toBeGreaterThan(3);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();

  // one frame as PNG with its ending
  await page.keyboard.press('Home');
  await full(page);
  await page.getByRole('button', { name: 'Render…' }).click();
  await page.getByRole('combobox', { name: 'Format' }).press('Enter');
  await page.getByRole('option', { name: 'This frame as PNG' }).click();
  await page.getByLabel('File name').fill('arrival.webm');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write the frame' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('arrival.png');
  const { data, info } = await sharp(readFileSync(await file.path()))
    .raw()
    .toBuffer({ resolveWithObject: true });
  expect([info.width, info.height, info.channels]).toEqual([1280, 720, 4]);
  await expect.poll(() => picture(page).evaluate((canvas: HTMLCanvasElement) => canvas.width)).toBe(1280);
  for (const [x, y] of [
    [0.1, 0.2],
    [0.25, 0.5],
    [0.7, 0.6],
  ] as const) {
    const at = (Math.floor(y * 720) * 1280 + Math.floor(x * 1280)) * 4;
    expect([...data.subarray(at, at + 4)]).toEqual(await colourAt(page, x, y));
  }

  // keep: everything is there after a reload
  await allKept(page);
  await page.reload();
  await pictureShown(page);
  await layer(page, 'captain even').getByRole('button', { name: 'captain even', exact: true }).click();
  await expect(pass(page, 'Blur')).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.getByRole('textbox', { name: 'Scale width, %' })).toHaveValue('50');
  expect(said).toEqual([]);
});

test('a first clip of another size is said, and both ways are offered; the library is searched and taken from', async ({
  page,
}) => {
  await newProject(page, 'Scraps');
  await makeShot(page, { width: 1280, height: 720 });
  await importFiles(page, 'paper-scraps.webm');
  await expect(page.getByText('24 · 4.0 s · alpha')).toBeVisible();
  await addToShot(page, 'paper scraps');
  const dialog = page.getByRole('dialog', { name: 'The clip differs from the shot' });
  await expect(dialog).toContainText('640×360 at 24');
  await expect(dialog).toContainText('1280×720 at 24');
  await dialog.getByRole('button', { name: 'Make the shot 640×360 at 24' }).click();
  await expect(page.getByText('640×360 · 24 · 0:04.00')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('1280×720 · 24 · 0:05.00')).toBeVisible();

  await page.getByRole('tab', { name: 'Library' }).click();
  await page.getByLabel('Search the library').fill('kite');
  await page.getByRole('button', { name: /^Paper kite/ }).click();
  await expect(page.getByRole('img', { name: /card kite/ })).toBeVisible();
  await page.getByRole('button', { name: 'Take Paper kite into the project' }).click();
  await page.getByRole('tab', { name: 'Stock' }).click();
  await expect(page.getByRole('region', { name: 'Stock' }).getByText('paper kite')).toBeVisible();
});
