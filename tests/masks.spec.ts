import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { quarters } from './media-variants';
import { openDemo, test } from './fixtures';
import {
  choose,
  addToShot,
  allKept,
  asFile,
  colourAt,
  complaints,
  full,
  importFiles,
  layer,
  makeLayer,
  makeShot,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
} from './helpers';

/** A place of the picture in shares of its size, on the page. */
async function place(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await picture(page).boundingBox())!;
  return [box.x + box.width * x, box.y + box.height * y];
}
async function click(page: Page, x: number, y: number): Promise<void> {
  await page.mouse.click(...(await place(page, x, y)));
}
async function stroke(page: Page, ...points: [number, number][]): Promise<void> {
  await page.mouse.move(...(await place(page, ...points[0]!)));
  await page.mouse.down();
  for (const point of points.slice(1)) await page.mouse.move(...(await place(page, ...point)), { steps: 5 });
  await page.mouse.up();
}
async function addMask(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a mask' }).click();
  await page.locator('.v-list-item').getByText(title, { exact: true }).click();
}
const vertex = (page: Page, n: number) => page.getByRole('button', { name: new RegExp(`^Vertex ${n} of`) });

/** A project with one clip of the tower over a clear ground, masks open. */
async function tower(page: Page): Promise<void> {
  await newProject(page, 'Cutting');
  await makeShot(page, { clear: true });
  await importFiles(page, 'signal-tower-still.webp');
  await addToShot(page, 'signal tower still');
  await pictureShown(page);
  await full(page);
  await page.keyboard.press('a');
}
async function square(page: Page): Promise<void> {
  await addMask(page, 'Path by points');
  for (const [x, y] of [
    [0.3, 0.3],
    [0.7, 0.3],
    [0.7, 0.7],
    [0.3, 0.7],
  ] as const)
    await click(page, x, y);
  await click(page, 0.3, 0.3);
}

test('a path is drawn on the composite, cuts, and is keyframed while stepping', async ({ page }) => {
  const said = complaints(page);
  await tower(page);
  await square(page);
  await expect(page.getByText(/On a shape keyframe; 1 in all/)).toBeVisible();
  await redrawn(page, () => page.getByRole('button', { name: 'Cut the layer' }).click());
  await expect.poll(async () => (await colourAt(page, 0.1, 0.5))[3]).toBe(0);
  expect((await colourAt(page, 0.5, 0.5))[3]).toBe(255);

  // at frame 10 the lower right vertex goes to the corner, by the mouse; at 20 by the keys
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText(/Nearest shape keyframe: 10 f back; 1 in all/)).toBeVisible();
  await page.mouse.move(...(await place(page, 0.7, 0.7)));
  await page.mouse.down();
  await page.mouse.move(...(await place(page, 0.95, 0.93)), { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText(/On a shape keyframe; 2 in all/)).toBeVisible();
  await expect.poll(async () => (await colourAt(page, 0.88, 0.85))[3]).toBe(255);
  await page.keyboard.press('Shift+ArrowRight');
  await vertex(page, 1).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByText(/On a shape keyframe; 3 in all/)).toBeVisible();
  await vertex(page, 1).blur();
  // half way between the keyframes the vertex is half way
  await page.keyboard.press('Home');
  await expect.poll(async () => (await colourAt(page, 0.8, 0.78))[3]).toBe(0);
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await colourAt(page, 0.8, 0.78))[3]).toBe(255);
  expect((await colourAt(page, 0.88, 0.87))[3]).toBe(0);
  await page.getByLabel('Onion skin').check();
  await expect(page.locator('path.onion')).toHaveCount(3);

  // a vertex more by a click on a segment is in all keyframes; Delete takes it away again
  await choose(page, 'A move changes', 'all keyframes');
  await page.keyboard.press('Home');
  await click(page, 0.5, 0.3);
  await expect(vertex(page, 5)).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(vertex(page, 5)).toHaveCount(0);
  await allKept(page);
  await page.reload();
  await pictureShown(page);
  await full(page);
  await expect.poll(async () => (await colourAt(page, 0.1, 0.5))[3]).toBe(0);
  expect(said).toEqual([]);
});

test('a blur works only inside a path; the rest stays sharp', async ({ page }) => {
  await tower(page);
  await square(page);
  const before = await colourAt(page, 0.658, 0.9);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('blur');
  await page.keyboard.press('Enter');
  await choose(page, 'Area', 'inside masks');
  await expect(
    page.getByRole('group', { name: 'Masks of the area' }).getByRole('button', { name: 'Path' }),
  ).toHaveAttribute('aria-pressed', 'true');
  await redrawn(page, () => typeNumber(page, 'Radius', '60'));
  // how much neighbouring pixels differ along a row
  const rough = (y: number, from: number, to: number) =>
    picture(page).evaluate(
      (canvas: HTMLCanvasElement, [v, a, b]) => {
        const [x, n] = [Math.round(a! * canvas.width), Math.round((b! - a!) * canvas.width)];
        const { data } = canvas.getContext('2d')!.getImageData(x, Math.round(v! * canvas.height), n, 1);
        let sum = 0;
        for (let i = 4; i < data.length; i += 4) sum += Math.abs(data[i]! - data[i - 4]!);
        return sum / n;
      },
      [y, from, to],
    );
  await expect.poll(() => rough(0.6, 0.4, 0.68)).toBeLessThan(1);
  expect(await rough(0.95, 0.4, 0.68)).toBeGreaterThan(0.5);
  expect(await colourAt(page, 0.658, 0.9)).toEqual(before);
  await choose(page, 'Area', 'everywhere');
  await expect(page.getByRole('group', { name: 'Masks of the area' })).toHaveCount(0);
});

test('a path is gone on with after Escape; one is made by the keyboard alone', async ({ page }) => {
  await tower(page);
  await addMask(page, 'Path by points');
  await click(page, 0.3, 0.3);
  await click(page, 0.6, 0.3);
  await page.keyboard.press('Escape');
  await expect(
    page.getByRole('list', { name: 'Masks' }).getByRole('button', { name: 'Path', exact: true }),
  ).toBeVisible();
  await expect(vertex(page, 2)).toBeVisible();
  await page.getByRole('button', { name: 'Go on drawing' }).click();
  await click(page, 0.6, 0.7);
  await page.keyboard.press('Enter');
  await expect(page.getByText(/1 in all/)).toBeVisible();
  // a marquee chooses; the box about the chosen ones scales them
  await stroke(page, [0.5, 0.2], [0.68, 0.8]);
  await expect(page.getByText('2 vertices chosen.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Turn the chosen vertices' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete mask Path' }).click();

  await page.getByRole('button', { name: 'Add a mask' }).press('Enter');
  await page.locator('.v-list-item').getByText('Path by points', { exact: true }).click();
  for (const [x, y] of [
    ['-300', '-200'],
    ['300', '-200'],
    ['0', '250'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a point' }).press('Enter');
    await typeNumber(page, 'Vertex x', x);
    await typeNumber(page, 'Vertex y', y);
  }
  await page.getByRole('button', { name: 'Close the path' }).press('Enter');
  await page.getByRole('button', { name: 'Cut the layer' }).press('Enter');
  await expect
    .poll(async () => [(await colourAt(page, 0.5, 0.5))[3], (await colourAt(page, 0.2, 0.8))[3]])
    .toEqual([255, 0]);
  await vertex(page, 3).focus();
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByLabel('Vertex x, px')).toHaveValue('-40');
  await page.keyboard.press('Delete');
  await expect(vertex(page, 3)).toHaveCount(0);
  // two vertices are a draft of nothing, kept and covering nothing
  await expect.poll(async () => (await colourAt(page, 0.5, 0.5))[3]).toBe(0);
});

test('shapes, brush and text are masks too, with exact numbers', async ({ page }) => {
  await tower(page);
  await addMask(page, 'Ellipse');
  await page.getByRole('button', { name: 'Cut the layer' }).click();
  await typeNumber(page, 'Size width', '400');
  await typeNumber(page, 'Size height', '400');
  await expect.poll(async () => (await colourAt(page, 0.7, 0.5))[3]).toBe(0);
  expect((await colourAt(page, 0.62, 0.5))[3]).toBe(255);
  await typeNumber(page, 'Feather', '200');
  await expect.poll(async () => Math.abs((await colourAt(page, 0.5 + 200 / 1280, 0.5))[3]! - 128)).toBeLessThan(16);
  await addMask(page, 'Brush');
  await stroke(page, [0.1, 0.9], [0.3, 0.9]);
  await expect.poll(async () => (await colourAt(page, 0.2, 0.9))[3]).toBe(255);
  await page.getByRole('button', { name: 'Erase' }).click();
  await stroke(page, [0.2, 0.85], [0.2, 0.95]);
  await expect.poll(async () => (await colourAt(page, 0.2, 0.9))[3]).toBeLessThan(30);
  await addMask(page, 'Text');
  await typeNumber(page, 'Height', '200');
  await page.getByLabel('Text', { exact: true }).fill('IIII');
  await page.getByLabel('Text', { exact: true }).press('Enter');
  await choose(page, 'Mode of Text', 'subtracts');
  await expect
    .poll(() =>
      picture(page).evaluate((canvas: HTMLCanvasElement) => {
        const { data } = canvas
          .getContext('2d')!
          .getImageData(Math.round(canvas.width * 0.4), canvas.height / 2, Math.round(canvas.width * 0.2), 1);
        let edges = 0;
        for (let i = 7; i < data.length; i += 4) if (data[i]! > 128 !== data[i - 4]! > 128) edges++;
        return edges;
      }),
    )
    .toBeGreaterThanOrEqual(4);
});

test('strokes select, and the selection becomes a mask', async ({ page }) => {
  await tower(page);
  await addMask(page, 'Smart selection');
  await stroke(page, [0.2, 0.85], [0.6, 0.85]);
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await stroke(page, [0.1, 0.2], [0.4, 0.15], [0.5, 0.4], [0.8, 0.1], [0.9, 0.4]);
  // what is selected is tinted on the picture until a pass shows it
  const tint = page.getByRole('img', { name: 'What Selection covers' });
  const tintAt = (x: number, y: number) =>
    tint.evaluate(
      (canvas: HTMLCanvasElement, [u, v]) =>
        canvas.getContext('2d')!.getImageData(u! * canvas.width, v! * canvas.height, 1, 1).data[3]!,
      [x, y],
    );
  await expect.poll(async () => [(await tintAt(0.3, 0.9)) > 80, await tintAt(0.3, 0.3)]).toEqual([true, 0]);
  await page.getByRole('button', { name: 'Cut the layer' }).click();
  await expect(tint).toHaveCount(0);
  await page.getByLabel('Tint what it covers').check();
  await expect(tint).toBeVisible();
  await page.getByLabel('Tint what it covers').uncheck();
  await expect.poll(async () => (await colourAt(page, 0.3, 0.3))[3]).toBe(0);
  expect((await colourAt(page, 0.3, 0.9))[3]).toBe(255);
  await expect(page.getByText(/Sure of the border: \d+ %/)).toBeVisible();
});

test('masks go to another layer, to SVG and back', async ({ page }) => {
  await tower(page);
  await square(page);
  await page.getByRole('button', { name: 'More for masks' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByText('Save paths as SVG').click()]);
  const svg = readFileSync(await download.path(), 'utf8');
  expect(svg).toContain('viewBox="-640 -360 1280 720"');
  expect(svg).toMatch(/<path fill="#000000" d="M-256 -144L256 -144L256 144L-256 144L-256 -144Z"><title>Path<\/title>/);
  await page
    .getByLabel('SVG file with paths')
    .setInputFiles(asFile('back.svg', Buffer.from(svg.replace('>Path<', '>Returned<'))));
  await expect(
    page.getByRole('list', { name: 'Masks' }).getByRole('button', { name: 'Returned', exact: true }),
  ).toBeVisible();
  await page
    .getByLabel('SVG file with paths')
    .setInputFiles(asFile('broken.svg', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><text>A</text></svg>')));
  await expect(page.getByText(/“broken.svg” has no closed paths/)).toBeVisible();
  await page
    .getByLabel('Jig file with masks')
    .setInputFiles(asFile('broken.jig.json', Buffer.from('{"jig":1,"name":"x","masks":[{}]}')));
  await expect(page.getByText(/“broken.jig.json” is not a jig/)).toBeVisible();
  await page.getByRole('button', { name: 'Copy mask Path', exact: true }).click();
  await makeLayer(page, 'Colour');
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Paste masks' }).click();
  await expect(
    page.getByRole('list', { name: 'Masks' }).getByRole('button', { name: 'Path', exact: true }),
  ).toBeVisible();
});

test('a layer takes its matte from a hidden one or follows another; circles are refused by name', async ({ page }) => {
  await openDemo(page);
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await pass(page, 'Place').click();
  await full(page);
  const before = await colourAt(page, 0.5, 0.06);
  const captain = await colourAt(page, 0.5, 0.5);
  await choose(page, 'Matte from', 'card rail');
  await expect.poll(async () => (await colourAt(page, 0.5, 0.5)).join()).not.toBe(captain.join());
  expect(await colourAt(page, 0.5, 0.06)).toEqual(before);
  await layer(page, 'card rail').getByRole('button', { name: 'card rail', exact: true }).click();
  await pass(page, 'Place').click();
  await choose(page, 'Matte from', 'captain');
  await expect(page.getByText(/take their mattes from each other in a circle: .*card rail/)).toBeVisible();
  await expect(page.getByLabel('Matte from')).toHaveValue('its own alpha');

  // following is refused in a circle in the same way
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await page.keyboard.press('p');
  await choose(page, 'Follows', 'card rail');
  await layer(page, 'card rail').getByRole('button', { name: 'card rail', exact: true }).click();
  await choose(page, 'Follows', 'captain');
  await expect(page.getByText(/follow each other in a circle/)).toBeVisible();
  await expect(page.getByText(/^All kept/)).toBeVisible();
});

test('chosen vertices are scaled and turned by their box, softened and pulled to edges', async ({ page }) => {
  await tower(page);
  await square(page);
  await page.getByRole('button', { name: 'Cut the layer' }).click();
  await page.getByRole('button', { name: 'Choose all' }).click();
  await expect(page.getByText('4 vertices chosen.')).toBeVisible();
  // from the lower right corner to half the size, about the upper left one
  const grip = (await page
    .getByRole('button', { name: 'Scale the chosen vertices by the bottom right' })
    .boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(...(await place(page, 0.5, 0.5)), { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await colourAt(page, 0.6, 0.6))[3]).toBe(0);
  expect((await colourAt(page, 0.4, 0.4))[3]).toBe(255);
  await vertex(page, 3).press('Enter');
  await click(page, 0.9, 0.9);
  await vertex(page, 3).press('Enter');
  await expect(page.getByLabel('Vertex x, px')).toHaveValue('0');
  await typeNumber(page, 'Vertex x', '256');
  await typeNumber(page, 'Vertex y', '144');
  await expect.poll(async () => (await colourAt(page, 0.6, 0.6))[3]).toBe(255);
  await typeNumber(page, 'Softer here', '120');
  await expect.poll(async () => (await colourAt(page, 0.68, 0.68))[3]!).toBeLessThan(250);
  await page.getByRole('button', { name: 'Smooth', exact: true }).click();
  await expect(page.getByRole('button', { name: /handle of vertex 3/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Corner', exact: true }).click();
  await expect(page.getByRole('button', { name: /handle of vertex 3/ })).toHaveCount(0);
});

test('a path is pulled to the edge of what is in the picture', async ({ page }) => {
  await newProject(page, 'Edges');
  await makeShot(page, { width: 320, height: 180, length: '5f', clear: true });
  await importFiles(page, asFile('quarters.webp', await quarters('webp')));
  await addToShot(page, 'quarters');
  await pictureShown(page);
  await full(page);
  await page.keyboard.press('a');
  await addMask(page, 'Path by points');
  // round the red quarter, a few pixels off the borders to its neighbours
  for (const [x, y] of [
    [0.2, 0.2],
    [0.518, 0.2],
    [0.518, 0.53],
    [0.2, 0.53],
  ] as const)
    await click(page, x, y);
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Pull to edges now' }).click();
  await vertex(page, 3).press('Enter');
  await expect.poll(async () => Math.abs(Number(await page.getByLabel('Vertex x, px').inputValue()))).toBeLessThan(1.5);
  expect(Math.abs(Number(await page.getByLabel('Vertex y, px').inputValue()))).toBeLessThan(1.5);
});

test('a rectangle is dragged by its grips, a picture’s brightness covers, and coverage goes to PNG and back', async ({
  page,
}) => {
  await tower(page);
  await addMask(page, 'Rectangle');
  await page.getByRole('button', { name: 'Cut the layer' }).click();
  await expect.poll(async () => (await colourAt(page, 0.2, 0.5))[3]).toBe(0);
  const grip = (await page.getByRole('button', { name: 'Top left corner of Rectangle' }).boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(...(await place(page, 0.1, 0.1)), { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await colourAt(page, 0.2, 0.5))[3]).toBe(255);
  await page.getByRole('button', { name: 'Centre of Rectangle' }).press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'More for masks' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByText('Save this frame’s coverage as PNG').click(),
  ]);
  await page.getByRole('button', { name: 'Delete mask Rectangle' }).click();
  await page
    .getByLabel('PNG file with a matte')
    .setInputFiles(asFile('matte.png', readFileSync(await download.path())));
  await expect
    .poll(async () => [(await colourAt(page, 0.2, 0.5))[3], (await colourAt(page, 0.9, 0.9))[3]])
    .toEqual([255, 0]);
  await page.getByLabel('PNG file with a matte').setInputFiles(asFile('noise.png', Buffer.from('not a picture')));
  await expect(page.getByText(/“noise.png” is damaged or cut off/)).toBeVisible();
  await page.getByRole('button', { name: 'Delete mask matte' }).click();
  await addMask(page, 'Picture: signal tower still');
  // the sky is bright, the tower's roof is dark
  await expect.poll(async () => (await colourAt(page, 0.2, 0.2))[3]!).toBeGreaterThan(180);
  await expect.poll(async () => (await colourAt(page, 0.658, 0.22))[3]!).toBeLessThan(130);
});

test('a selection goes on to the next frames by motion, and says how sure it is', async ({ page }) => {
  await newProject(page, 'Going on');
  await makeShot(page, { clear: true });
  await importFiles(page, 'wind-up-boat.mp4');
  await addToShot(page, 'wind up boat');
  await pictureShown(page);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight');
  await pictureShown(page);
  await page.keyboard.press('a');
  await addMask(page, 'Smart selection');
  await typeNumber(page, 'Brush size', '16');
  await stroke(page, [0.29, 0.67], [0.42, 0.67], [0.4, 0.7], [0.31, 0.7]);
  await expect(page.getByText(/Sure of the border/)).toBeVisible();
  await stroke(page, [0.33, 0.53], [0.38, 0.54], [0.37, 0.6], [0.33, 0.63], [0.355, 0.45]);
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await stroke(page, [0.2, 0.5], [0.36, 0.3], [0.5, 0.55], [0.5, 0.85], [0.3, 0.9], [0.15, 0.75], [0.24, 0.62]);
  await page.getByRole('button', { name: 'Cut the layer' }).click();
  await full(page);
  await expect
    .poll(async () => [(await colourAt(page, 0.36, 0.67))[3], (await colourAt(page, 0.5, 0.67))[3]])
    .toEqual([255, 0]);
  for (let frame = 61; frame <= 63; frame++) {
    await page.getByRole('button', { name: 'On to the next frame' }).click();
    await expect(page.getByLabel('Frame', { exact: true })).toHaveText(String(frame));
  }
  // the boat has gone on by 29 pixels
  await expect
    .poll(async () => [(await colourAt(page, 0.435, 0.67))[3], (await colourAt(page, 0.29, 0.67))[3]])
    .toEqual([255, 0]);
  expect(Number(/(\d+) %/.exec(await page.getByText(/Sure of the border/).innerText())![1])).toBeGreaterThan(45);
  await page.getByRole('button', { name: 'Animated values of wind up boat' }).click();
  await expect(page.getByRole('button', { name: /^Keyframe of Matte at/ })).toHaveCount(4);
});

test('on a tilted layer a path lies where it was drawn, and cuts there', async ({ page }) => {
  await tower(page);
  await page.keyboard.press('p');
  await redrawn(page, () => typeNumber(page, 'Tilt y', '35'));
  await page.keyboard.press('a');
  await square(page);
  await redrawn(page, () => page.getByRole('button', { name: 'Cut the layer' }).click());
  const alpha = async (x: number, y: number) => (await colourAt(page, x, y))[3]!;
  await expect.poll(() => alpha(0.28, 0.5)).toBe(0);
  // just inside and outside of all four sides
  expect(await Promise.all([alpha(0.31, 0.31), alpha(0.69, 0.31), alpha(0.69, 0.69), alpha(0.31, 0.69)])).toEqual([
    255, 255, 255, 255,
  ]);
  expect(await Promise.all([alpha(0.71, 0.5), alpha(0.5, 0.28), alpha(0.5, 0.72)])).toEqual([0, 0, 0]);
});
