import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { toDisplay } from '../src/core/picture/light';
import { readCube } from '../src/core/formats/cube';
import { test } from './fixtures';
import {
  choose,
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
  await choose(page, 'Preview scale', 'full');
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
  await choose(page, 'Stripes', 'where clipped');
  await expect(page.getByRole('img', { name: 'Stripes where the picture is clipped' })).toBeVisible();
  await choose(page, 'Stripes', 'beyond video range');
  await expect(page.getByRole('img', { name: 'Stripes beyond video range' })).toBeVisible();
  await expect.poll(() => scope.getAttribute('aria-label')).toMatch(/Beyond video range: .* bright/);
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
  await redrawn(page, () => page.getByRole('button', { name: 'this frame', exact: true }).click());
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

/** A bright card on a darker ground, and the same in cold, dim light. */
async function card(light: readonly [number, number, number]): Promise<Buffer> {
  const data = Buffer.alloc(W * H * 3);
  const parts = [
    [0.7, 0.6, 0.4],
    [0.1, 0.16, 0.3],
    [0.35, 0.1, 0.08],
    [0.2, 0.2, 0.2],
  ] as const;
  for (let i = 0; i < W * H; i++) {
    const part = parts[Math.floor(((i % W) * 4) / W)]!;
    const shade = 0.7 + (0.5 * Math.floor(i / W)) / H;
    data.set(
      part.map((v, c) => Math.round(255 * toDisplay(Math.min(1, v * shade * light[c]!)))),
      i * 3,
    );
  }
  return sharp(data, { raw: { width: W, height: H, channels: 3 } })
    .png()
    .toBuffer();
}
const apart = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.slice(0, 3).map((v, i) => Math.abs(v - b[i]!)));

test('a frame is pinned and compared; a layer in other light is matched to it; its grade goes to another layer', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Matching');
  await makeShot(page, { width: W, height: H, length: '24' });
  for (const [name, light] of [
    ['day.png', [1, 1, 1]],
    ['dim.png', [0.35, 0.42, 0.6]],
  ] as const)
    await importFiles(page, { name, mimeType: 'image/png', buffer: await card(light) });
  await addToShot(page, 'day');
  await choose(page, 'Preview scale', 'full');
  await pictureShown(page);
  const colours = async () => {
    const out: number[][] = [];
    for (const x of [0.1, 0.4, 0.6, 0.9]) out.push(await colourAt(page, x, 0.5));
    return out;
  };
  const off = (now: number[][]) => now.map((colour, i) => apart(colour, truth[i]!));
  const truth = await colours();
  await page.getByRole('button', { name: 'Pin this frame, to compare others with it' }).click();
  await expect(page.getByText('is in the stock. Before | After compares with it.')).toBeVisible();

  await addToShot(page, 'dim');
  await pictureShown(page);
  const dim = off(await colours());
  expect(Math.max(...dim)).toBeGreaterThan(60);
  await add(page, 'lift gamma gain', 'Wheels');
  await choose(page, 'Match to', /frame 0$/);
  await redrawn(page, () =>
    page.getByRole('group', { name: 'Match', exact: true }).getByRole('button', { name: 'Match', exact: true }).click(),
  );
  const matched = off(await colours());
  expect(Math.max(...matched)).toBeLessThan(24);
  matched.forEach((v, i) => expect(v).toBeLessThan(Math.max(8, dim[i]! / 2)));
  await expect(page.getByText(/The colours lay \d+\.\d ΔE apart; at full strength they lie \d\.\d/)).toBeVisible();

  // compared with the still: the divider's left side shows it, and the keys move the divider
  await page.keyboard.press('4');
  await choose(page, 'Laid out', 'side by side');
  await expect(page.getByRole('slider', { name: 'Divider between before and after' })).toHaveCount(0);
  await choose(page, 'Laid out', 'slanted divider');
  const divider = page.getByRole('slider', { name: 'Divider between before and after' });
  await divider.press('ArrowRight');
  await expect(divider).toHaveAttribute('aria-valuenow', '52');
  await page.keyboard.press('1');

  // scopes of a part, and its colour from the pinned one
  await page.getByRole('button', { name: 'Show scopes' }).click();
  await choose(page, 'Of', 'a part of the picture');
  await expect(page.getByLabel('Mean colour', { exact: true })).toContainText('stops');
  await page.getByRole('button', { name: 'Pin this colour, to compare others with it' }).click();
  await expect(page.getByLabel('From the pinned colour')).toContainText('ΔE 0.0');
  const part = page.getByRole('group', { name: /^Part that scopes look at/ });
  for (let i = 0; i < 6; i++) await part.press('ArrowRight');
  await expect(page.getByLabel('From the pinned colour')).not.toContainText('ΔE 0.0');

  // the grade is copied to the layer below, and kept as a look
  await page.getByRole('button', { name: 'Layer ▾' }).click();
  await page.getByText('Copy its grade').click();
  await layer(page, 'day').getByRole('button', { name: 'day', exact: true }).click();
  await page.getByRole('button', { name: 'Layer ▾' }).click();
  await page.getByText('Paste a grade').click();
  await expect(pass(page, 'Wheels')).toBeVisible();
  await page.getByRole('button', { name: 'Layer ▾' }).click();
  await page.getByText('Looks…').click();
  const looks = page.getByRole('dialog', { name: 'Looks' });
  await looks.getByRole('button', { name: 'Keep this layer’s grade as a look' }).click();
  await expect(looks.getByRole('button', { name: 'Delete day from the project’s looks' })).toBeVisible();
  await page.keyboard.press('Escape');

  // it lies with the stock, and so does a table from a file; each is put on a layer from there
  const kept = page.getByRole('list', { name: 'Grades' });
  await expect(kept.getByText('Wheels')).toBeVisible();
  const table = `LUT_3D_SIZE 2\n${Array.from({ length: 8 }, (_, i) => `${i & 1} ${(i >> 1) & 1} ${(i >> 2) * 0.5}`).join('\n')}\n`;
  await importFiles(page, { name: 'half blue.cube', mimeType: 'text/plain', buffer: Buffer.from(table) });
  await expect(kept.getByText('Table · 2³')).toBeVisible();
  await kept.getByRole('button', { name: 'Put half blue on the chosen layer' }).click();
  await expect(pass(page, 'Table')).toBeVisible();
  await kept.getByRole('button', { name: 'Delete half blue from the project' }).click();
  await expect(kept.getByText('Table · 2³')).toBeHidden();
  await allKept(page);
  expect(said).toEqual([]);
});

test('how a clip was recorded is said once for every layer; a pass is given to the clip; parts of tone and groups', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Log');
  await makeShot(page, { width: W, height: H, length: '24' });
  // a card as a camera set to a log curve writes it
  const log = (light: number): number =>
    light >= 0.01125 ? (420 + 261.5 * Math.log10((light + 0.01) / 0.19)) / 1023 : 95 / 1023;
  const flat = Buffer.alloc(W * H * 3);
  for (let i = 0; i < W * H; i++) flat.fill(Math.round(255 * log(i % W < W / 2 ? 0.18 : 0.02)), i * 3, i * 3 + 3);
  const buffer = await sharp(flat, { raw: { width: W, height: H, channels: 3 } })
    .png()
    .toBuffer();
  await importFiles(page, { name: 'flat card.png', mimeType: 'image/png', buffer });
  await addToShot(page, 'flat card');
  await choose(page, 'Preview scale', 'full');
  await pass(page, 'Source').click();
  await expect(page.getByText('as footage recorded with a log curve has')).toBeVisible();
  await redrawn(page, () => choose(page, 'The clip was recorded', 'S-Log3'));
  // 18 % of the light is 118 of 255
  const [grey] = await colourAt(page, 0.2, 0.5);
  expect(Math.abs(grey! - 255 * toDisplay(0.18))).toBeLessThanOrEqual(3);
  await expect(page.getByText('as footage recorded with a log curve has')).toHaveCount(0);

  await add(page, 'black point', 'Tone');
  await redrawn(page, () => page.getByRole('slider', { name: 'Exposure' }).press('ArrowUp'));
  await page.getByRole('button', { name: 'Dark, middle, bright', exact: true }).click();
  await page.getByRole('button', { name: /^Drag on the picture/ }).click();
  const box = (await picture(page).boundingBox())!;
  const dark = { x: box.x + box.width * 0.75, y: box.y + box.height * 0.7 };
  const before = await colourAt(page, 0.75, 0.5);
  await page.mouse.move(dark.x, dark.y);
  await page.mouse.down();
  // what the drag began on is read first
  await expect(async () => {
    await page.mouse.move(dark.x, dark.y - 40);
    await page.mouse.move(dark.x, dark.y - 110);
    await expect(page.getByText(/^Dark parts: \+/)).toBeVisible({ timeout: 300 });
  }).toPass();
  await page.mouse.up();
  await expect.poll(async () => (await colourAt(page, 0.75, 0.5))[0]! - before[0]!).toBeGreaterThan(8);
  await redrawn(page, () => page.getByRole('button', { name: 'Leave out dark, middle, bright' }).click());
  expect(apart(await colourAt(page, 0.75, 0.5), before)).toBeLessThanOrEqual(1);

  // a part drawn over the histogram: the grey lies on its hill, and no more once that is levelled
  const unlit = await colourAt(page, 0.2, 0.5);
  await page.getByRole('button', { name: 'A part drawn by hand', exact: true }).click();
  const light = page.getByRole('textbox', { name: /^Light there/ });
  await light.fill('1');
  await light.press('Enter');
  await expect.poll(async () => (await colourAt(page, 0.2, 0.5))[0]! - unlit[0]!).toBeGreaterThan(25);
  expect(apart(await colourAt(page, 0.75, 0.5), before)).toBeLessThanOrEqual(1);
  const peak = page.getByRole('button', { name: 'Point 3 of Drawn part' });
  await expect(peak).toHaveAccessibleDescription('50 % belongs by 100 %');
  for (let i = 0; i < 10; i++) await peak.press('Shift+ArrowDown');
  await expect.poll(async () => apart(await colourAt(page, 0.2, 0.5), unlit)).toBeLessThanOrEqual(1);
  await page.getByRole('button', { name: 'Drawn part as it began' }).click();
  await expect(peak).toHaveAccessibleDescription('50 % belongs by 100 %');
  await light.fill('0');
  await light.press('Enter');
  await expect.poll(async () => apart(await colourAt(page, 0.2, 0.5), unlit)).toBeLessThanOrEqual(1);

  await page.getByRole('button', { name: 'For the whole clip' }).click();
  await expect(page.getByText('Belongs to the clip: every layer made from it shows it')).toBeVisible();
  await addToShot(page, 'flat card');
  await expect(pass(page, 'Tone of the clip')).toBeVisible();
  const shown = await colourAt(page, 0.2, 0.5);
  await pass(page, 'Source').click();
  await redrawn(page, () => page.getByLabel('Leave out the clip’s own passes').check());
  expect(apart(await colourAt(page, 0.2, 0.5), shown)).toBeGreaterThan(5);
  await allKept(page);
  expect(said).toEqual([]);
});

/** Slanted stripes between two greys, soft by a Gaussian, with normal noise by lot. */
async function stripes(dark: number, sigma: number, noise: number): Promise<Buffer> {
  let state = 7;
  const next = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 4294967296;
  const crisp = Buffer.alloc(W * H * 3);
  for (let i = 0; i < W * H; i++)
    crisp.fill(((i % W) + Math.floor(i / W) * 0.4) % 48 < 24 ? dark : 200, i * 3, i * 3 + 3);
  const raw = { raw: { width: W, height: H, channels: 3 as const } };
  const soft = sigma ? await sharp(crisp, raw).blur({ sigma, precision: 'float' }).raw().toBuffer() : crisp;
  for (let i = 0; i < W * H && noise; i++) {
    const by = Math.round(255 * noise * Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next()));
    for (let c = 0; c < 3; c++) soft[i * 3 + c] = Math.min(255, Math.max(0, soft[i * 3 + c]! + by));
  }
  return sharp(soft, raw).png().toBuffer();
}
test('a layer is made as soft, as grainy and as black as what lies behind it, each by a pass of its own', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Texture');
  await makeShot(page, { width: W, height: H, length: '24' });
  for (const [name, buffer] of [
    ['filmed.png', await stripes(60, 2, 0.03)],
    ['drawn.png', await stripes(10, 0, 0)],
  ] as const) {
    await importFiles(page, { name, mimeType: 'image/png', buffer });
    await addToShot(page, name.slice(0, -4));
  }
  await pictureShown(page);
  await add(page, 'lift gamma gain', 'Wheels');
  const also = page.getByRole('group', { name: 'Match by a pass of its own' });
  const valueOf = async (title: string, dial: RegExp) => {
    await expect(pass(page, title)).toBeVisible();
    await pass(page, title).click();
    const ends = page.getByRole('button', { name: 'Ends', exact: true });
    if (title === 'Tone') await ends.click();
    const value = Number(await page.getByRole('textbox', { name: dial }).inputValue());
    await pass(page, 'Wheels').click();
    return value;
  };
  await also.getByRole('button', { name: 'Softness' }).click();
  expect(Math.abs((await valueOf('Blur', /^Radius/)) - 2)).toBeLessThan(0.4);
  await also.getByRole('button', { name: 'Grain' }).click();
  expect(Math.abs((await valueOf('Grain', /^Amount/)) - 3)).toBeLessThan(0.7);
  // from 10 up to about 60 less the noise: the tone that becomes black is far below 0
  await also.getByRole('button', { name: 'Black' }).click();
  const black = await valueOf('Tone', /^Black at/);
  expect(black).toBeLessThan(-10);
  expect(black).toBeGreaterThan(-26);
  await also.getByRole('button', { name: 'Softness' }).click();
  await expect(page.getByText('drawn is as soft as what lies behind it already.')).toBeVisible();
  // the lower layer has nothing behind it
  await layer(page, 'filmed').getByRole('button', { name: 'filmed', exact: true }).click();
  await add(page, 'lift gamma gain', 'Wheels');
  await also.getByRole('button', { name: 'Grain' }).click();
  await expect(page.getByText('Nothing solid of what lies behind it shows on this frame.')).toBeVisible();
  await allKept(page);
  expect(said).toEqual([]);
});
