// What is made with depth, of pictures of other layers, and bent by them.
import { expect, type Page } from '@playwright/test';
import { test } from './fixtures';
import {
  choose,
  complaints,
  layer,
  makeLayer,
  makeShot,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
  wish,
} from './helpers';

/** How many pixels differ from the first one, and the columns between which they lie. */
const drawnPart = (page: Page) =>
  picture(page).evaluate((canvas: HTMLCanvasElement) => {
    const { width, height } = canvas;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
    const found = { count: 0, left: width, right: 0 };
    for (let i = 0; i < width * height; i++) {
      const away = [0, 1, 2].some((c) => Math.abs(data[4 * i + c]! - data[c]!) > 24);
      if (!away) continue;
      found.count++;
      found.left = Math.min(found.left, i % width);
      found.right = Math.max(found.right, i % width);
    }
    return found;
  });

test('a solid title grows towards the viewer by keyframes of its depth, and shows its sides when it swings', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Depth');
  await makeShot(page, { width: 640, height: 360, length: '24' });
  await wish(page, '3d text');
  await expect(layer(page, 'solid title')).toBeVisible();
  await choose(page, 'Preview scale', 'full');
  await redrawn(page, () => page.getByRole('textbox', { name: 'Text', exact: true }).fill('TIDE'));
  await redrawn(page, () => typeNumber(page, 'Letter height, px', '60'));
  await page.getByRole('button', { name: 'How it stands' }).click();
  await redrawn(page, () => typeNumber(page, 'Tip, °', '0'));
  await redrawn(page, () => typeNumber(page, 'Swing, °', '0'));
  await redrawn(page, () => choose(page, 'Grows', 'towards the viewer'));
  const flat = await drawnPart(page);
  // a sixth of the way to the camera: its front is nearer, and so larger
  await redrawn(page, () => typeNumber(page, 'Depth, px', '250'));
  const deep = await drawnPart(page);
  const wide = (part: typeof flat) => part.right - part.left;
  expect(Math.abs(wide(deep) / wide(flat) - (1500 - 70) / (1500 - 250))).toBeLessThan(0.03);
  await page.getByRole('button', { name: 'Add keyframe of Depth', exact: true }).click();
  await page.keyboard.press('End');
  await redrawn(page, () => typeNumber(page, 'Depth, px', '10'));
  await redrawn(page, () => page.keyboard.press('Home'));
  expect(wide(await drawnPart(page))).toBe(wide(deep));

  await redrawn(page, () => typeNumber(page, 'Depth, px', '120'));
  const before = await drawnPart(page);
  await redrawn(page, () => typeNumber(page, 'Swing, °', '50'));
  const swung = await drawnPart(page);
  expect(swung.count).not.toBe(before.count);
  expect(said).toEqual([]);
});

test('particles are pictures of a layer that is hidden, and come from where another one is', async ({ page }) => {
  const said = complaints(page);
  await newProject(page, 'Sprites');
  await makeShot(page, { width: 640, height: 360, length: '24' });
  await choose(page, 'Preview scale', 'full');
  await makeLayer(page, 'Shape');
  await redrawn(page, () => layer(page, 'shape').getByRole('button', { name: /^Hide/ }).click());
  const nothing = await drawnPart(page);
  expect(nothing.count).toBe(0);
  await makeLayer(page, 'Particles');
  await choose(page, 'Each is a', 'picture of a layer');
  await expect.poll(async () => (await drawnPart(page)).count).toBe(0);
  await page.getByRole('combobox', { name: 'Layers' }).click({ force: true });
  await redrawn(page, () => page.getByRole('option', { name: 'shape' }).click());
  await page.keyboard.press('Escape');
  expect((await drawnPart(page)).count).toBeGreaterThan(300);

  await page.getByRole('button', { name: 'Where they come from' }).click();
  await redrawn(page, () => choose(page, 'From a', 'layer'));
  expect((await drawnPart(page)).count).toBe(0);
  await page.getByRole('combobox', { name: 'The layer' }).click({ force: true });
  await redrawn(page, () => page.getByRole('option', { name: 'shape' }).click());
  const from = await drawnPart(page);
  expect(from.count).toBeGreaterThan(300);
  expect(said).toEqual([]);
});

test('a layer is bent by the brightness of another, which cannot be one that shows it', async ({ page }) => {
  const said = complaints(page);
  await newProject(page, 'Bent');
  await makeShot(page, { width: 640, height: 360, length: '24' });
  await choose(page, 'Preview scale', 'full');
  await makeLayer(page, 'Clouds');
  await redrawn(page, () => layer(page, 'clouds').getByRole('button', { name: /^Hide/ }).click());
  await makeLayer(page, 'Title');
  const straight = await drawnPart(page);
  await wish(page, 'displacement map');
  await expect(pass(page, 'Displace')).toBeVisible();
  await redrawn(page, () => typeNumber(page, 'Sideways, px', '160'));
  await page.getByRole('combobox', { name: 'Bent by' }).click({ force: true });
  await expect(page.getByRole('option')).toHaveText(['clouds']);
  await redrawn(page, () => page.getByRole('option', { name: 'clouds' }).click());
  const bent = await drawnPart(page);
  expect(Math.abs(bent.left - straight.left) + Math.abs(bent.right - straight.right)).toBeGreaterThan(8);
  await pictureShown(page);
  expect(said).toEqual([]);
});
