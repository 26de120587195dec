// Looking at passes on the way: up to one of them, with one that is not there yet, and the same on another layer.
import { expect, type Page } from '@playwright/test';
import { test } from './fixtures';
import {
  addToShot,
  colourAt,
  drag,
  full,
  importFiles,
  layer,
  makeLayer,
  makeShot,
  middle,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
  wish,
} from './helpers';

test.beforeEach(async ({ page }) => {
  await newProject(page, 'Passes');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  await full(page);
  await makeLayer(page, 'Colour');
  await pictureShown(page);
});

async function addPass(page: Page, name: string): Promise<void> {
  await page.getByLabel('Search').fill(name);
  await page.getByRole('option', { name }).first().click();
}
const grey = async (page: Page) => (await colourAt(page, 0.5, 0.5))[0]!;

test('Alt held on a pass shows the picture up to it; one is copied to another layer with its values; the search shows what it would add', async ({
  page,
}) => {
  await addPass(page, 'Adjust');
  await redrawn(page, () => typeNumber(page, 'Exposure, stops', '-1'));
  const once = await grey(page);
  await addPass(page, 'Adjust');
  await redrawn(page, () => typeNumber(page, 'Exposure, stops', '-1'));
  const twice = await grey(page);
  expect(twice).toBeLessThan(once - 20);
  const at = await middle(pass(page, 'Adjust').first());
  await page.keyboard.down('Alt');
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await expect.poll(() => grey(page)).toBe(once);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  await expect.poll(() => grey(page)).toBe(twice);

  await pass(page, 'Adjust').last().click();
  await typeNumber(page, 'Exposure, stops', '-2');
  await importFiles(page, 'paper-kite.png');
  await redrawn(page, () => addToShot(page, 'paper kite'));
  await layer(page, 'colour').getByRole('button', { name: 'colour', exact: true }).click();
  await pass(page, 'Adjust').last().hover();
  await page.getByRole('button', { name: 'Copy Adjust to another layer' }).last().click();
  await page.getByText('paper kite', { exact: true }).last().click();
  await layer(page, 'paper kite').getByRole('button', { name: 'paper kite', exact: true }).click();
  await pass(page, 'Adjust').click();
  await expect(page.getByRole('textbox', { name: 'Exposure, stops' })).toHaveValue('-2');
  await redrawn(page, () => typeNumber(page, 'Exposure, stops', '0'));

  // the pass that is highlighted in the search is on the picture until the search closes
  /** Mean step from a pixel to its neighbour: how sharp the picture is. */
  const sharpness = () =>
    picture(page).evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let sum = 0;
      for (let i = 4; i < data.length; i++) sum += Math.abs(data[i]! - data[i - 4]!);
      return sum / data.length;
    });
  const sharp = await sharpness();
  await page.getByLabel('Search').fill('blur');
  await expect.poll(sharpness).toBeLessThan(sharp * 0.7);
  await page.getByLabel('Search').press('Escape');
  await expect.poll(sharpness).toBe(sharp);
  await expect(pass(page, 'Blur')).toHaveCount(0);
});

test('a tone curve is bent by pointer, keys and numbers; an echo of a moving layer shows where it was', async ({
  page,
}) => {
  const plain = await grey(page);
  await addPass(page, 'Tone curves');
  const all = page.getByRole('group', { name: 'All channels' });
  const [first, last] = [
    await middle(all.getByRole('button', { name: 'Point 1 of All channels' })),
    await middle(all.getByRole('button', { name: 'Point 2 of All channels' })),
  ];
  const at = (from: number, to: number) => ({
    x: first.x + (last.x - first.x) * from,
    y: first.y + (last.y - first.y) * to,
  });
  // pressed half way and pulled down to a fifth
  await redrawn(page, () => drag(page, at(0.5, 0.5), at(0.5, 0.2)));
  const [from, to] = ['from', 'to'].map((end) => page.getByRole('textbox', { name: `All channels, point 2 ${end}` }));
  expect(Math.abs(Number(await from!.inputValue()) - 50)).toBeLessThan(2);
  expect(Math.abs(Number(await to!.inputValue()) - 20)).toBeLessThan(2);
  expect(await grey(page)).toBeLessThan(plain - 20);
  const point = all.getByRole('button', { name: 'Point 2 of All channels' });
  const before = Number(await to!.inputValue());
  await redrawn(page, () => point.press('ArrowUp'));
  expect(Number(await to!.inputValue())).toBeCloseTo(before + 1, 1);
  await redrawn(page, () => point.press('Delete'));
  await expect(all.getByRole('button', { name: /^Point/ })).toHaveCount(2);
  expect(Math.abs((await grey(page)) - plain)).toBeLessThanOrEqual(1);
  await page.keyboard.press('Control+z');
  await expect(all.getByRole('button', { name: /^Point/ })).toHaveCount(3);

  await importFiles(page, 'paper-kite.png');
  await redrawn(page, () => addToShot(page, 'paper kite'));
  await page.keyboard.press('p');
  await redrawn(page, () => typeNumber(page, 'Scale width, %', '20'));
  await redrawn(page, () => typeNumber(page, 'Position x, x', '-100'));
  await page.getByRole('button', { name: 'Add keyframe of Position' }).click();
  await page.keyboard.press('End');
  await typeNumber(page, 'Position x, x', '100');
  await pictureShown(page);
  const ground = await colourAt(page, 0.5, 0.5);
  await addPass(page, 'Afterimages');
  await pass(page, 'Afterimages').focus();
  await redrawn(page, () => page.keyboard.press('Control+ArrowRight'));
  await expect(
    page.getByRole('group', { name: 'After Place' }).getByRole('button', { name: 'Afterimages', exact: true }),
  ).toBeVisible();
  // half way through its move it was in the middle
  await redrawn(page, () => typeNumber(page, 'Frames between', '4'));
  await redrawn(page, () => typeNumber(page, 'Fade', '0'));
  expect(await colourAt(page, 0.5, 0.5)).not.toEqual(ground);
});

test('a glow is found by a wish, lights what is around a bright part, and goes beyond letters', async ({ page }) => {
  await page.getByLabel('Colour', { exact: true }).fill('#101010');
  await makeLayer(page, 'Title');
  await expect(page.getByLabel('Text on the picture')).toBeFocused();
  await page.keyboard.type('I');
  await page.keyboard.press('Escape');
  await redrawn(page, () => typeNumber(page, 'Letter height, px', '60'));
  /** How bright the picture is beside the letter. */
  const beside = async () => (await colourAt(page, 0.5 + 24 / 320, 0.5))[0]!;
  const dark = await beside();
  expect(dark).toBeLessThan(20);
  await wish(page, 'bloom');
  await expect(pass(page, 'Glow')).toBeVisible();
  await expect.poll(beside).toBeGreaterThan(dark + 15);
  const glowing = await beside();
  await redrawn(page, () => typeNumber(page, 'Strength, %', '300'));
  expect(await beside()).toBeGreaterThan(glowing + 10);
  await redrawn(page, () => typeNumber(page, 'Reach, px', '6'));
  expect(await beside()).toBeLessThan(glowing);
  // the sheet shows every pass on this layer; one is found among them and put in by Enter
  await page.getByRole('button', { name: 'Add a pass' }).click();
  await page.getByText('All by their pictures…').click();
  const sheet = page.getByRole('dialog', { name: 'Passes by their pictures' });
  await expect(sheet.getByRole('button', { name: 'Sharpen' }).locator('canvas')).toBeVisible();
  await sheet.getByLabel('Among these').fill('heat haze');
  const tile = sheet.getByRole('button', { name: 'Turbulence' });
  await expect(sheet.getByRole('button', { name: 'Sharpen' })).toHaveCount(0);
  await tile.focus();
  await expect(sheet.getByRole('complementary')).toContainText('Turbulence');
  await tile.press('Enter');
  await expect(pass(page, 'Turbulence')).toBeVisible();
});
