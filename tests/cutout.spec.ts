// Keys of every kind, and judging them.
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { openDemo, test } from './fixtures';
import {
  choose,
  colourAt,
  full,
  layer,
  makeShot,
  newProject,
  openShot,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
  asFile,
  importFiles,
  addToShot,
} from './helpers';
import { quarters } from './media-variants';

async function addPass(page: Page, name: string): Promise<void> {
  await page.getByLabel('Search').fill(name);
  await page.getByRole('option', { name }).first().click();
}
const alpha = async (page: Page, x: number, y: number) => (await colourAt(page, x, y))[3]!;

test('a brightness key and a hue key take out what they say', async ({ page }) => {
  await newProject(page, 'Ranges');
  await makeShot(page, { width: 320, height: 180, length: '5f', clear: true });
  await full(page);
  await importFiles(page, asFile('quarters.webp', await quarters('webp')));
  await addToShot(page, 'quarters');
  await pictureShown(page);
  await addPass(page, 'Brightness key');
  // red 21 %, green 72 %, blue 7 %, white 100 %
  await expect
    .poll(async () => [
      await alpha(page, 0.25, 0.25),
      await alpha(page, 0.75, 0.25),
      await alpha(page, 0.25, 0.75),
      await alpha(page, 0.75, 0.75),
    ])
    .toEqual([0, 255, 0, 255]);
  await choose(page, 'Keep', 'what is dark');
  await expect
    .poll(async () => [
      await alpha(page, 0.25, 0.25),
      await alpha(page, 0.75, 0.25),
      await alpha(page, 0.25, 0.75),
      await alpha(page, 0.75, 0.75),
    ])
    .toEqual([255, 0, 255, 0]);
  await page.getByRole('button', { name: 'Delete Brightness key' }).click();
  await addPass(page, 'Hue key');
  await typeNumber(page, 'Hue, °', '120');
  await expect
    .poll(async () => [
      await alpha(page, 0.25, 0.25),
      await alpha(page, 0.75, 0.25),
      await alpha(page, 0.25, 0.75),
      await alpha(page, 0.75, 0.75),
    ])
    .toEqual([0, 255, 0, 0]);
});

/** The captain to key, his layer chosen and a colour key added. */
async function captain(page: Page): Promise<void> {
  await openDemo(page);
  await openShot(page, 'Captain to key');
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await page.keyboard.press('e');
}
async function spot(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await picture(page).boundingBox())!;
  return [box.x + box.width * x, box.y + box.height * y];
}

test('the screen is found without a pick and judged on grounds, by its pixels and by the key check; a difference key has a plate', async ({
  page,
}) => {
  await captain(page);
  await page.getByRole('button', { name: 'Find the screen' }).click();
  await expect(page.getByRole('button', { name: 'Remove sample 1' })).toBeAttached();
  await page.keyboard.press('5');
  await expect.poll(() => alpha(page, 0.1, 0.2)).toBe(0);
  await choose(page, 'Judged on', 'on white');
  await expect.poll(() => colourAt(page, 0.1, 0.2)).toEqual([255, 255, 255, 255]);
  await choose(page, 'Judged on', 'on the layers below');
  // the night sky of the deck
  await expect.poll(async () => (await colourAt(page, 0.1, 0.05))[2]!).toBeLessThan(160);
  await page.getByRole('button', { name: 'Pixel values under the pointer' }).click();
  await page.mouse.move(...(await spot(page, 0.1, 0.2)));
  const readout = page.getByLabel('Pixel values', { exact: true });
  await expect(readout).toContainText(/x 1\d\d +y 1\d\d · source +\d+ +\d+ +\d+ · after +0 +0 +0 · alpha 0.0 %/);
  await page.mouse.move(...(await spot(page, 0.5, 0.75)));
  await expect(readout).toContainText('alpha 100.0 %');
  await page.getByRole('button', { name: 'Edge at 200 %' }).click();
  await expect(page.getByRole('button', { name: 'Zoom to 100 %' })).toHaveText('200 %');
  // what is in the window is computed by itself, and is what the whole frame has there
  await page.keyboard.press('1');
  await choose(page, 'Preview scale', 'full');
  await pictureShown(page);
  const [stage, shown] = [
    (await page.getByRole('region', { name: 'Viewer' }).boundingBox())!,
    (await picture(page).boundingBox())!,
  ];
  const inView = [0.3, 0.5, 0.7].flatMap((u) =>
    [0.3, 0.5, 0.7].map(
      (v) =>
        [
          (stage.x + u * stage.width - shown.x) / shown.width,
          (stage.y + v * stage.height - shown.y) / shown.height,
        ] as const,
    ),
  );
  const coloursInView = () => Promise.all(inView.map(([u, v]) => colourAt(page, u, v)));
  const near = await coloursInView();
  await redrawn(page, () => page.getByRole('button', { name: 'Fit', exact: true }).first().click());
  expect(await coloursInView()).toEqual(near);
  await choose(page, 'Preview scale', /^automatic/);
  await page.keyboard.press('2');
  await choose(page, 'Judged on', 'as a tint over the layer');
  await expect.poll(async () => alpha(page, 0.1, 0.2)).toBeGreaterThan(150);
  await expect.poll(() => alpha(page, 0.5, 0.75)).toBe(0);

  // a key without the clip and with a small tolerance leaves the felt's unevenness; the check counts it
  await page.getByRole('button', { name: 'Delete Colour key' }).click();
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Fit', exact: true }).first().click();
  await page.keyboard.press('e');
  const box = (await picture(page).boundingBox())!;
  await redrawn(page, () => page.mouse.click(box.x + box.width * 0.2, box.y + box.height * 0.3));
  // a pick reads the plate and sets both ends; what is set by hand says so
  const response = page.getByRole('group', { name: 'Response' });
  await expect(response.getByRole('note')).toContainText('This plate has');
  await expect(response.getByText('measured', { exact: true })).toHaveCount(2);
  // all of the key is seen without scrolling
  for (const group of ['Edge', 'Screen light', 'Tidy'])
    await expect(page.getByRole('button', { name: group, exact: true })).toBeInViewport({ ratio: 1 });
  await typeNumber(page, 'Clear up to, %', '1');
  await expect(response.getByText('measured', { exact: true })).toHaveCount(1);
  await page.getByRole('button', { name: 'Relief' }).click();
  const legend = page.getByRole('status', { name: 'Relief' });
  const share = async (kind: string) =>
    Number(new RegExp(`${kind}\\s*([\\d.]+) %`).exec((await legend.textContent()) ?? '')?.[1] ?? NaN);
  await expect(legend).toContainText(/crumb.*gap/);
  const [solid, clear, between] = [await share('solid'), await share('clear'), await share('between')];
  expect(solid + clear + between).toBeCloseTo(100, 0);
  // the captain takes about a fifth of the picture
  expect(solid).toBeGreaterThan(15);
  expect(solid).toBeLessThan(25);
  // a click on a ring goes there
  await page
    .getByRole('button', { name: /^Go to (crumb|gap)/ })
    .first()
    .click();
  await expect(page.getByText('200 %', { exact: true })).toBeVisible();
  await page.keyboard.press('f');
  const end = response.getByRole('slider', { name: 'Clear up to on the drawing' });
  const handle = (await end.boundingBox())!;
  const drawing = (await response.locator('svg').first().boundingBox())!;
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(drawing.x + drawing.width * 0.3, drawing.y + drawing.height - 5, { steps: 4 });
  await page.mouse.up();
  await expect(end).toHaveAttribute('aria-valuenow', /^(29|30|31)$/);
  await expect.poll(() => share('between')).toBeLessThan(between);
  await expect.poll(() => share('clear')).toBeGreaterThan(clear);

  // a difference key needs no colour
  await page.getByRole('button', { name: 'Delete Colour key' }).click();
  await addPass(page, 'Difference key');
  await page.keyboard.press('5');
  await choose(page, 'Judged on', 'on checker');
  await expect.poll(() => alpha(page, 0.1, 0.2)).toBe(255);
  await choose(page, 'Clean plate', 'uneven sheet, clean');
  await expect.poll(() => alpha(page, 0.1, 0.2)).toBe(0);
  expect(await alpha(page, 0.5, 0.75)).toBe(255);
  await choose(page, 'Clean plate', 'median over this clip');
  // the captain hardly moves, so over the clip he is part of what is always there
  await expect.poll(() => alpha(page, 0.5, 0.75)).toBeLessThan(60);
});

test('a pick on grey or on the subject is warned about with its saturation', async ({ page }) => {
  await captain(page);
  // the blue coat
  await page.mouse.click(...(await spot(page, 0.42, 0.8)));
  await expect(
    page.getByText(
      /\(saturation \d+ %\) covers [\d.]+ % of captain and [\d.]+ % of its border, so it may be the subject/,
    ),
  ).toBeVisible();
  await newProject(page, 'Grey');
  await makeShot(page, { width: 320, height: 180, length: '5f', clear: true });
  await importFiles(page, asFile('quarters.webp', await quarters('webp')));
  await addToShot(page, 'quarters');
  await pictureShown(page);
  await page.keyboard.press('e');
  await page.mouse.click(...(await spot(page, 0.75, 0.75)));
  await expect(page.getByText(/almost grey: its saturation is 0 %/)).toBeVisible();
  // where there is none at all, that is said
  const grey = sharp({ create: { width: 320, height: 180, channels: 3, background: '#8a8a8a' } });
  await importFiles(page, asFile('slate.png', await grey.png().toBuffer()));
  await addToShot(page, 'slate');
  await page.keyboard.press('e');
  await page.getByRole('button', { name: 'Find the screen' }).click();
  await expect(page.getByText(/No screen was found in slate/)).toBeVisible();
});

test('an outline runs along what a key cut out; masks overrule it, and spill becomes the colour of the background', async ({
  page,
}) => {
  await captain(page);
  await page.getByRole('button', { name: 'Find the screen' }).click();
  await page.keyboard.press('5');
  await expect.poll(async () => [await alpha(page, 0.1, 0.2), await alpha(page, 0.42, 0.8)]).toEqual([0, 255]);

  // an outline runs along what was cut out, in the picked colour
  await addPass(page, 'Outline');
  await choose(page, 'Shows', 'the line alone');
  await typeNumber(page, 'Width, px', '12');
  await page.getByRole('group', { name: 'Colour', exact: true }).locator('input').fill('#ff0000');
  await expect
    .poll(() =>
      picture(page).evaluate((canvas: HTMLCanvasElement) => {
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        let [red, other] = [0, 0];
        for (let i = 0; i < data.length; i += 4) {
          if (data[i + 3]! <= 200) continue;
          if (data[i]! > 240 && data[i + 1]! < 15) red++;
          else other++;
        }
        return red > 2000 && other === 0;
      }),
    )
    .toBe(true);
  await page.getByRole('button', { name: 'Delete Outline' }).click();

  // an ellipse in the middle of the layer, named by the key
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Add a mask' }).click();
  await page.locator('.v-list-item').getByText('Ellipse', { exact: true }).click();
  await page.keyboard.press('e');
  await page.getByRole('button', { name: 'Tidy', exact: true }).click();
  await page
    .getByRole('group', { name: 'Hole' })
    .getByRole('button', { name: /^Ellipse/ })
    .click();
  await expect.poll(() => alpha(page, 0.5, 0.5)).toBe(0);
  await page
    .getByRole('group', { name: 'Hole' })
    .getByRole('button', { name: /^Ellipse/ })
    .click();
  await page
    .getByRole('group', { name: 'Hold' })
    .getByRole('button', { name: /^Ellipse/ })
    .click();
  await expect.poll(async () => [await alpha(page, 0.5, 0.5), await alpha(page, 0.1, 0.2)]).toEqual([255, 0]);

  // its colour is asked for only when the screen's light becomes a colour
  await page.getByRole('button', { name: 'Screen light', exact: true }).click();
  await expect(page.getByRole('group', { name: 'Light in its place' })).toHaveCount(0);
  await choose(page, 'In its place', 'a colour');
  const colour = page.getByRole('group', { name: 'Light in its place' });
  const chosen = () => colour.locator('input').inputValue();
  expect(await chosen()).toBe('#ffffff');
  await colour.getByRole('button', { name: 'Of the background' }).click();
  // the deck at night is dark and blue
  await expect.poll(chosen).not.toBe('#ffffff');
  const [r, , b] = (await chosen()).match(/[0-9a-f]{2}/g)!.map((part) => parseInt(part, 16));
  expect(b!).toBeGreaterThan(r!);
  expect(b!).toBeLessThan(140);
  // a colour picked on the shot is that of the layers below, not of the captain who is there
  await page.keyboard.press('1');
  await colour.getByRole('button', { name: 'Pick' }).click();
  await page.mouse.click(...(await spot(page, 0.42, 0.8)));
  await expect(colour.getByRole('button', { name: 'Pick' })).toHaveAttribute('aria-pressed', 'false');
  // with its dial, picking goes away too
  await colour.getByRole('button', { name: 'Pick' }).click();
  const picking = page.getByRole('application', { name: 'Pick light in its place on the picture' });
  await expect(picking).toBeVisible();
  await choose(page, 'In its place', 'nothing');
  await expect(picking).toHaveCount(0);
});
