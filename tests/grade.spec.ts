import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { toDisplay } from '../src/core/picture/light';
import { readCube } from '../src/core/formats/cube';
import { test } from './fixtures';
import {
  addToShot,
  allKept,
  asFile,
  colourAt,
  complaints,
  drag,
  importFiles,
  layer,
  makeShot,
  middle,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
} from './helpers';

const [W, H] = [320, 180];
/** The light of a lamp, by channel. */
const CAST = [1.35, 1, 0.5];
/** A grey card in warm light on the left, a ramp from black to white on the right. */
async function warmPlate(): Promise<Buffer> {
  const data = Buffer.alloc(W * H * 3);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const light = x < W / 2 ? 0.27 : 0.7 * ((x - W / 2) / (W / 2)) ** 4;
      data.set(
        CAST.map((by) => Math.round(255 * toDisplay(by * light))),
        (y * W + x) * 3,
      );
    }
  return sharp(data, { raw: { width: W, height: H, channels: 3 } })
    .png()
    .toBuffer();
}
async function plate(page: Page): Promise<void> {
  await newProject(page, 'Grading');
  await makeShot(page, { width: W, height: H, length: '24' });
  await importFiles(page, { name: 'warm card.png', mimeType: 'image/png', buffer: await warmPlate() });
  await addToShot(page, 'warm card');
  await page.getByLabel('Preview scale').selectOption({ label: 'full' });
  await pictureShown(page);
}
async function add(page: Page, wish: string, title: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill(wish);
  await expect(page.getByRole('option', { name: new RegExp(`^pass ${title}`) }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(pass(page, title)).toBeVisible();
}
const spread = (colour: readonly number[]): number => Math.max(...colour.slice(0, 3)) - Math.min(...colour.slice(0, 3));

test('white is picked on the picture, a wheel and a curve are drawn, and the scopes follow', async ({ page }) => {
  const said = complaints(page);
  await plate(page);
  expect(spread(await colourAt(page, 0.2, 0.5))).toBeGreaterThan(50);
  await add(page, 'too yellow', 'Balance');
  await page.getByRole('button', { name: 'Pick', exact: true }).click();
  const box = (await picture(page).boundingBox())!;
  await redrawn(page, () => page.mouse.click(box.x + box.width * 0.25, box.y + box.height * 0.5));
  expect(spread(await colourAt(page, 0.2, 0.5))).toBeLessThanOrEqual(2);

  // what cannot tell a colour says so
  await page.getByRole('button', { name: 'Pick', exact: true }).click();
  await page.mouse.click(box.x + box.width * 0.55, box.y + box.height * 0.5);
  await expect(page.getByText('What you picked is too dark to tell its colour.')).toBeVisible();
  await page.keyboard.press('Control+z');

  await add(page, 'lift gamma gain', 'Wheels');
  const gain = page.getByRole('button', { name: 'Gain on the ring' });
  const at = await middle(gain);
  await redrawn(page, () => drag(page, at, { x: at.x - 40, y: at.y }));
  const [r, , b] = await colourAt(page, 0.2, 0.5);
  expect(b! - r!).toBeGreaterThan(8);
  await gain.press('ArrowUp');
  await page.getByRole('button', { name: 'Reset Gain' }).click();
  await pictureShown(page);
  expect(spread(await colourAt(page, 0.2, 0.5))).toBeLessThanOrEqual(2);

  await add(page, 'hue vs hue', 'Hue curves');
  await page.getByRole('button', { name: 'Point 1 of Saturation over brightness' }).press('ArrowDown');
  await expect(
    page
      .getByRole('textbox', { name: 'Saturation over brightness, point 1 to' })
      .or(page.getByRole('spinbutton', { name: 'Saturation over brightness, point 1 to' })),
  ).toHaveValue('-2');

  // half of the picture is one grey, so half of it lies at one brightness
  await page.getByRole('button', { name: 'Show scopes' }).click();
  const scope = page.getByRole('region', { name: 'Scopes' }).getByRole('img');
  const middleOf = async () => Number(/middle (\d+) %/.exec((await scope.getAttribute('aria-label'))!)![1]);
  await expect(scope).toBeVisible();
  await expect.poll(middleOf).toBeGreaterThan(40);
  const before = await middleOf();
  await add(page, 'black point', 'Tone');
  await page.getByRole('slider', { name: 'Exposure' }).press('End');
  await expect.poll(middleOf).toBeGreaterThan(before + 15);
  await page.getByLabel('Stripes where clipped').check();
  await expect(page.getByRole('img', { name: 'Stripes where the picture is clipped' })).toBeVisible();
  await page.getByRole('button', { name: 'All scopes, large' }).click();
  await expect(page.getByRole('dialog').getByText('Which colours')).toBeVisible();
  await page.keyboard.press('Escape');
  await allKept(page);
  expect(said).toEqual([]);
});

test('automatics set ordinary dials; a grade goes out as a table and comes in again the same', async ({ page }) => {
  const said = complaints(page);
  await plate(page);
  await add(page, 'white balance', 'Balance');
  await redrawn(page, () => page.getByRole('button', { name: 'this frame' }).click());
  expect(spread(await colourAt(page, 0.2, 0.5))).toBeLessThan(12);
  const kelvin = page
    .getByRole('textbox', { name: 'Light was' })
    .or(page.getByRole('spinbutton', { name: 'Light was' }));
  expect(Number(await kelvin.inputValue())).toBeLessThan(5500);

  await page.getByRole('button', { name: 'Layer ▾' }).click();
  await page.getByText('Save its grade as a table…').click();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByText('.cube, 33 points a side').click()]);
  const text = readFileSync(await file.path(), 'utf8');
  expect(readCube(text, 'own.cube').size).toBe(33);
  const graded = await colourAt(page, 0.8, 0.5);
  await pass(page, 'Balance').hover();
  await page.getByRole('button', { name: 'Switch off Balance' }).click();

  await add(page, '3d lut', 'Table');
  const input = page.getByLabel('Table file');
  await input.setInputFiles(asFile('bad.cube', Buffer.from('LUT_3D_SIZE 2\n0 0 0\nNaN 0 0\n')));
  await expect(page.getByText('“bad.cube”, line 3: “NaN” is not a number.')).toBeVisible();
  await redrawn(page, () => input.setInputFiles(asFile('own.cube', Buffer.from(text))));
  const back = await colourAt(page, 0.8, 0.5);
  back.forEach((v, c) => expect(Math.abs(v - graded[c]!)).toBeLessThanOrEqual(2));

  await add(page, 'colour decision list', 'Slope, offset, power');
  await page.getByRole('button', { name: 'Save as…' }).click();
  const [list] = await Promise.all([page.waitForEvent('download'), page.getByText('.cdl', { exact: true }).click()]);
  const cdl = readFileSync(await list.path(), 'utf8').replace('<Slope>1 1 1', '<Slope>0.5 1 1');
  const values = page.getByLabel('File with the values of this pass');
  await redrawn(page, () => values.setInputFiles(asFile('half.cdl', Buffer.from(cdl))));
  const [red] = await colourAt(page, 0.8, 0.5);
  expect(Math.abs(red! - back[0]! / 2)).toBeLessThanOrEqual(2);
  await values.setInputFiles(asFile('none.cdl', Buffer.from('<a/>')));
  await expect(page.getByText('“none.cdl” holds no ColorCorrection.')).toBeVisible();
  await layer(page, 'warm card').waitFor();
  expect(said).toEqual([]);
});
