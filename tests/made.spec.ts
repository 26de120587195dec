// Layers that no camera gave: titles, lines, and what is ready made of several.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './fixtures';
import {
  addToShot,
  asFile,
  choose,
  colourAt,
  complaints,
  dialogOpen,
  importFiles,
  layer,
  makeLayer,
  makeShot,
  media,
  newProject,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
  wish,
} from './helpers';

test('a title is found by a wish, typed, and stands as wide as the browser sets it; keyframes type it', async ({
  page,
}) => {
  await newProject(page, 'Titles');
  await makeShot(page, { width: 640, height: 360, length: '24' });
  await wish(page, 'subtitle');
  await choose(page, 'Preview scale', 'full');
  const text = page.getByRole('textbox', { name: 'Text', exact: true });
  await redrawn(page, () => text.fill('HARBOUR'));
  await redrawn(page, () => typeNumber(page, 'Letter height, px', '60'));
  /** The first and last column and row with letters. */
  const extent = () =>
    picture(page).evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
      const box = [width, height, 0, 0];
      for (let i = 0; i < width * height; i++) {
        if (data[4 * i]! < 128) continue;
        const [x, y] = [i % width, Math.floor(i / width)];
        [box[0], box[1]] = [Math.min(box[0]!, x), Math.min(box[1]!, y)];
        [box[2], box[3]] = [Math.max(box[2]!, x + 1), Math.max(box[3]!, y + 1)];
      }
      return box;
    });
  // the browser's own setting of the same font is the judge
  const judged = await page.evaluate(async () => {
    await document.fonts.load('700 100px "Archivo Variable"');
    const context = document.createElement('canvas').getContext('2d')!;
    context.font = '700 100px "Archivo Variable"';
    const tall = context.measureText('H').actualBoundingBoxAscent;
    const { actualBoundingBoxLeft, actualBoundingBoxRight } = context.measureText('HARBOUR');
    return ((actualBoundingBoxLeft + actualBoundingBoxRight) * 60) / tall;
  });
  const [left, top, right, bottom] = await extent();
  expect(Math.abs(right! - left! - judged)).toBeLessThan(judged * 0.02);
  // round letters reach a little over
  expect(bottom! - top!).toBeGreaterThanOrEqual(60);
  expect(bottom! - top!).toBeLessThanOrEqual(63);
  expect(Math.abs((left! + right!) / 2 - 320)).toBeLessThan(4);

  await redrawn(page, () => typeNumber(page, 'Shown, %', '43'));
  const [first, , part] = await extent();
  expect(first).toBe(left);
  expect(part! - left!).toBeLessThan(0.5 * (right! - left!));
  // letters that rise: none on the first frame, some later, all in their places at the end
  await redrawn(page, () => typeNumber(page, 'Shown, %', '100'));
  await page.getByRole('button', { name: 'Let it arrive ▾' }).click();
  await redrawn(page, () => page.getByText('Letters rise', { exact: true }).click());
  const goTo = (frame: string) =>
    redrawn(page, async () => {
      await page.getByLabel('Go to frame or time').fill(frame);
      await page.keyboard.press('Enter');
    });
  await goTo('8');
  const [from, , until] = await extent();
  expect(from).toBeGreaterThanOrEqual(left! - 1);
  expect(until! - from!).toBeLessThan(0.8 * (right! - left!));
  await goTo('23');
  expect(await extent()).toEqual([left, top, right, bottom]);
  await redrawn(page, () => text.fill('HARBOUR 船'));
  await expect(page.getByText('The font of “title” has no “船”.')).toBeVisible();
});

test('a line is found by a wish and writes itself by two keyframes', async ({ page }) => {
  await newProject(page, 'Lines');
  await makeShot(page, { width: 640, height: 360, length: '25' });
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill('underline');
  await page.keyboard.press('Enter');
  await expect(layer(page, 'line')).toBeVisible();
  await choose(page, 'Preview scale', 'full');
  const dials = page.getByRole('region', { name: 'Dials' });
  await dials.getByRole('button', { name: 'Drawn part' }).click();
  await redrawn(page, () => typeNumber(page, 'To, %', '0'));
  await dials.getByRole('button', { name: 'Add keyframe of To', exact: true }).click();
  await page.getByLabel('Go to frame or time').fill('20');
  await page.keyboard.press('Enter');
  await redrawn(page, () => typeNumber(page, 'To, %', '100'));
  await redrawn(page, async () => {
    await page.getByLabel('Go to frame or time').fill('10');
    await page.keyboard.press('Enter');
  });
  // as wide as the shot; half way it is there as far as the middle
  const bright = async (x: number) => (await colourAt(page, x / 640, 0.5))[0]! > 200;
  expect([await bright(10), await bright(310), await bright(335)]).toEqual([true, true, false]);
});

test('a lower third is put in as layers that belong together, in one step', async ({ page }) => {
  await newProject(page, 'Names');
  await makeShot(page, { width: 640, height: 360, length: '48' });
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Search' }).fill('who is speaking');
  await page.keyboard.press('Enter');
  await expect(layer(page, 'bar')).toBeVisible();
  await expect(layer(page, 'name')).toBeVisible();
  // its text is chosen, to be typed over; it goes along with the bar
  await page.getByRole('textbox', { name: 'Text', exact: true }).fill('The harbour master');
  await pass(page, 'Place').click();
  await expect(page.getByRole('combobox', { name: 'Follows', exact: true })).toHaveValue('bar');
  await page.getByRole('button', { name: /^Undo: / }).click();
  await page.getByRole('button', { name: 'Undo: Add lower third' }).click();
  await expect(layer(page, 'bar')).toHaveCount(0);
  await expect(layer(page, 'name')).toHaveCount(0);
});

test('a title is put behind someone by a wish and typed where it stands', async ({ page }) => {
  await newProject(page, 'Behind');
  await makeShot(page, { width: 1280, height: 720, length: '24' });
  await importFiles(page, 'captain-even.mp4');
  await addToShot(page, 'captain even');
  await pictureShown(page);
  await wish(page, 'title behind');
  const typed = page.getByRole('textbox', { name: 'Text on the picture' });
  await expect(typed).toBeFocused();
  // what stood there is chosen, so that the first letter takes its place
  await redrawn(page, () => page.keyboard.type('HHHHHHHH'));
  const names = page.getByRole('group', { name: /^Layer / });
  await expect(names).toHaveCount(3);
  expect(await names.evaluateAll((rows) => rows.map((row) => row.getAttribute('aria-label')))).toEqual([
    'Layer captain even 2',
    'Layer title',
    'Layer captain even',
  ]);
  /** Where the letters show on a row across the coat: shares of the width. */
  const white = async () => {
    const { data, width } = await picture(page).evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      return { width, data: [...canvas.getContext('2d')!.getImageData(0, Math.round(height * 0.59), width, 1).data] };
    });
    return Array.from({ length: width }, (_, i) => i)
      .filter((i) => Math.min(...data.slice(4 * i, 4 * i + 3)) > 215)
      .map((i) => i / width);
  };
  const seen = await white();
  expect(seen[0]).toBeLessThan(0.2);
  expect(seen.at(-1)).toBeGreaterThan(0.8);
  // the captain's coat hides the middle
  expect(seen.filter((x) => x > 0.45 && x < 0.55)).toEqual([]);

  // a click sets the caret between two letters, a double click takes the word; each word typed is a step
  const box = (await picture(page).boundingBox())!;
  const middle = box.y + box.height / 2;
  await page.mouse.click(box.x + box.width * (seen[0]! - 0.005), middle);
  await page.keyboard.type('I ');
  await expect(typed).toHaveValue('I HHHHHHHH');
  await page.mouse.dblclick(box.x + box.width * 0.85, middle);
  await page.keyboard.type('M');
  await expect(typed).toHaveValue('I M');
  await page.keyboard.press('Escape');
  await expect(typed).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('textbox', { name: 'Text', exact: true })).toHaveValue('I HHHHHHHH');
});

test('several numbers typed in one field go on in those after it', async ({ page }) => {
  await newProject(page, 'Numbers');
  await makeShot(page, { width: 640, height: 360, length: '24' });
  await importFiles(page, 'paper-kite.png');
  await addToShot(page, 'paper kite');
  const number = (name: string) => page.getByRole('textbox', { name, exact: true });
  await typeNumber(page, 'Position x, x', '12; -34,5; 20');
  await expect(number('Scale height, %')).toHaveValue('20');
  await expect(number('Position x, x')).toHaveValue('12');
  await expect(number('Position y, y')).toHaveValue('-34.5');
  // the same stock again has a name of its own
  await addToShot(page, 'paper kite');
  await expect(layer(page, 'paper kite 2')).toBeVisible();
  await typeNumber(page, 'Position x, x', '1; abc');
  await expect(page.getByRole('alert')).toHaveText('“abc” is not a number; 0 stays.');
  await expect(number('Position x, x')).toHaveValue('1');
});

test('layers are kept as a jig, saved as a file and put into another project of another size', async ({ page }) => {
  await newProject(page, 'From');
  await makeShot(page, { width: 640, height: 360, length: '48' });
  await wish(page, 'name card');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('group', { name: /^Layer / })).toHaveCount(2);
  await page.getByRole('slider', { name: 'Playhead' }).focus();
  await page.keyboard.press('Control+a');
  await wish(page, 'keep as a jig');
  await wish(page, 'jigs by their pictures');
  const sheet = await dialogOpen(page, 'Jigs');
  await sheet.getByRole('button', { name: 'name 2 layers' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    sheet.getByRole('button', { name: /^Save .* as a file/ }).click(),
  ]);
  const saved = readFileSync(await file.path());
  expect(file.suggestedFilename()).toBe('name.jig.json');

  await newProject(page, 'To');
  await makeShot(page, { width: 1280, height: 720, length: '48' });
  await wish(page, 'jigs by their pictures');
  const other = await dialogOpen(page, 'Jigs');
  await expect(other.getByRole('button', { name: 'name 2 layers' })).toHaveCount(0);
  const input = page.getByLabel('Jig to open');
  await input.setInputFiles(asFile('words.jig.json', Buffer.from('{}')));
  await expect(page.getByText(/“words.jig.json” is not a jig that can be used/)).toBeVisible();
  await input.setInputFiles(asFile('name.jig.json', saved));
  await other.getByRole('button', { name: 'name 2 layers' }).click();
  const dials = other.getByRole('complementary', { name: 'Dials of the jig' });
  await expect(dials.getByLabel('Text', { exact: true })).toHaveValue('Name');
  // one dial more is wanted, and it is turned with the text
  await dials.getByRole('button', { name: 'Which dials' }).click();
  await dials.getByRole('group', { name: 'Which dials it has' }).getByLabel('Corner radius').check();
  await dials.getByRole('textbox', { name: 'Corner radius' }).fill('90');
  await dials.getByRole('textbox', { name: 'Text' }).fill('Keeper');
  await redrawn(page, () => other.getByRole('button', { name: 'Put in' }).click());
  await expect(page.getByRole('group', { name: /^Layer / })).toHaveCount(2);
  await expect(page.getByRole('region', { name: 'Dials' }).getByLabel('Text', { exact: true })).toHaveValue('Keeper');
  // the card is as large a part of this shot as of the other: 560 of 1280, with its middle in the middle
  await redrawn(page, async () => {
    await page.getByLabel('Go to frame or time').fill('24');
    await page.keyboard.press('Enter');
  });
  const bright = async (x: number) => Math.min(...(await colourAt(page, x, 0.44)).slice(0, 3)) > 150;
  expect(await bright(0.5 - 260 / 1280)).toBe(true);
  expect(await bright(0.5 - 300 / 1280)).toBe(false);
  // round corners that the jig did not have
  const corner = await colourAt(page, 0.5 - 272 / 1280, 0.5 - 82 / 720);
  expect(corner.slice(0, 3)).toEqual((await colourAt(page, 0.02, 0.02)).slice(0, 3));
});

test('a font from a file is stock: a title is set in it, says what no font has, and gets the usual one when it goes', async ({
  page,
}) => {
  const fonts = join(import.meta.dirname, '../node_modules/@fontsource');
  const file = (name: string) => asFile(name.split('/').at(-1)!, readFileSync(join(fonts, name)));
  await newProject(page, 'Fonts');
  await makeShot(page, { width: 640, height: 360, length: '12' });
  await importFiles(
    page,
    file('noto-naskh-arabic/files/noto-naskh-arabic-arabic-700-normal.woff2'),
    asFile('letter.ttf', Buffer.from('\x00\x01\x00\x00 and nothing that a font has')),
    asFile('cut.woff', readFileSync(join(fonts, 'lora/files/lora-latin-400-normal.woff')).subarray(0, 900)),
  );
  const stock = page.getByRole('region', { name: 'Stock' });
  await expect(stock.getByText('“letter.ttf” has no letters.')).toBeVisible();
  await expect(stock.getByText('“cut.woff” is no font that can be read')).toBeVisible();
  const item = stock.getByRole('listitem').filter({ hasText: 'WOFF2' });
  await item.hover();
  await item.getByRole('button', { name: /^Set a title in / }).click();
  const typed = page.getByRole('textbox', { name: 'Text on the picture' });
  await redrawn(page, () => typed.fill('ميناء'));
  await typed.press('Escape');
  /** How many columns of the picture have letters in them. */
  const wide = () =>
    picture(page).evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
      const columns = new Set<number>();
      for (let i = 0; i < width * height; i++) if (data[4 * i]! > 128) columns.add(i % width);
      return columns.size / width;
    });
  const joined = await wide();
  expect(joined).toBeGreaterThan(0.1);
  // Latin letters come from the usual font; what none has is said
  const text = page.getByRole('textbox', { name: 'Text', exact: true });
  await redrawn(page, () => text.fill('ميناء 船 x'));
  await expect(page.getByText('has no “船”.')).toBeVisible();
  await redrawn(page, () => text.fill('ميناء'));
  expect(await wide()).toBeCloseTo(joined, 9);
  // nothing but a font can stand for it
  await item.hover();
  await item.getByRole('button', { name: /^More for / }).click();
  const chooser = page.waitForEvent('filechooser');
  await page.getByText('Link another file…').click();
  await (await chooser).setFiles(media('paper-kite.png'));
  await expect(stock.getByText('only one of them is a font')).toBeVisible();
  await expect(item).toBeVisible();
  // without its font the title stays
  await item.focus();
  await redrawn(page, () => item.press('Delete'));
  await expect(page.getByRole('combobox', { name: 'Font', exact: true })).toHaveValue('Archivo (sans)');
  await expect(page.getByText('has no “ميناء”.')).toBeVisible();
});

test('one layer pushes the other out where they meet, by a wish for the two', async ({ page }) => {
  await newProject(page, 'Push');
  await makeShot(page, { width: 640, height: 360, length: '48' });
  for (const [name, colour] of [
    ['colour', '#ff0000'],
    ['colour 2', '#0000ff'],
  ] as const) {
    await makeLayer(page, 'Colour');
    await expect(layer(page, name)).toBeVisible();
    await redrawn(page, () => page.getByLabel('Colour', { exact: true }).fill(colour));
  }
  // the second begins where the first ends
  await typeNumber(page, 'Start', '24');
  await layer(page, 'colour').getByRole('button', { name: 'colour', exact: true }).click();
  await pass(page, 'Source').click();
  await typeNumber(page, 'Length', '24');
  await layer(page, 'colour 2')
    .getByRole('button', { name: 'colour 2', exact: true })
    .click({ modifiers: ['Control'] });
  await wish(page, 'push out');
  await page.getByLabel('Go to frame or time').fill('24');
  await page.keyboard.press('Enter');
  await pictureShown(page);
  const [left, right] = await Promise.all([colourAt(page, 0.1, 0.5), colourAt(page, 0.9, 0.5)]);
  // half way the red one has gone half out to the left
  expect(left!.slice(0, 3)).toEqual([255, 0, 0]);
  expect(right!.slice(0, 3)).toEqual([0, 0, 255]);
});

test('a free path is drawn on the picture as a line, closed to be filled, saved as SVG and read again', async ({
  page,
}) => {
  await newProject(page, 'Drawing');
  await makeShot(page, { width: 320, height: 180, clear: true });
  await makeLayer(page, 'Free path');
  const box = (await picture(page).boundingBox())!;
  const click = (u: number, v: number) => page.mouse.click(box.x + u * box.width, box.y + v * box.height);
  const alpha = async (u: number, v: number) => (await colourAt(page, u, v))[3]!;
  await expect(page.getByText('Click points on the picture')).toBeVisible();
  await click(0.25, 0.25);
  await click(0.75, 0.25);
  await click(0.75, 0.75);
  await page.keyboard.press('Escape');
  // an open path is a line: along its two sides, not along the third
  await expect.poll(() => alpha(0.5, 0.25)).toBeGreaterThan(200);
  expect([await alpha(0.6, 0.4), await alpha(0.5, 0.5)]).toEqual([0, 0]);
  await page.getByRole('button', { name: 'Close the path' }).click();
  await expect.poll(() => alpha(0.6, 0.4)).toBe(255);
  expect(await alpha(0.4, 0.6)).toBe(0);
  await page.getByRole('button', { name: 'Its fill and line' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as SVG' }).click(),
  ]);
  const svg = readFileSync(await download.path(), 'utf8');
  expect(svg).toMatch(/fill="#db9e4d" stroke="#f5f0e0" stroke-width="6"/);
  // what is read again lies where it lay
  await page.getByRole('button', { name: 'Hide drawing' }).click();
  await expect.poll(() => alpha(0.6, 0.4)).toBe(0);
  await page.getByLabel('Files to import').setInputFiles(asFile('again.svg', Buffer.from(svg)));
  await expect(page.getByText('“again” is on the stack, a shape.')).toBeVisible();
  await expect.poll(() => alpha(0.6, 0.4)).toBe(255);
  expect(await alpha(0.4, 0.6)).toBe(0);
});

test('an SVG file becomes shapes with its colours and holes; scripts and outside references are left out and said', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Drawing');
  await makeShot(page, { width: 320, height: 180, clear: true });
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 320 180">
    <style>.hull { fill: #ff0000 }</style><script>document.title = 'run'</script>
    <path class="hull" d="M40 40H120V140H40ZM60 60V120H100V60Z"/>
    <g fill="blue" transform="translate(200 0)"><circle cx="40" cy="90" r="30"/></g>
    <image href="https://example.org/a.png" width="9" height="9"/></svg>`;
  await page.getByLabel('Files to import').setInputFiles(asFile('hull.svg', Buffer.from(svg)));
  await expect(page.getByText('“hull” is on the stack, a group of 2 shapes. Left out: script, image.')).toBeVisible();
  const at = (x: number, y: number) => colourAt(page, x / 320, y / 180);
  await expect.poll(() => at(50, 90)).toEqual([255, 0, 0, 255]);
  expect([await at(80, 90), await at(240, 90), await at(190, 90)]).toEqual([
    [0, 0, 0, 0],
    [0, 0, 255, 255],
    [0, 0, 0, 0],
  ]);
  await page.getByLabel('Files to import').setInputFiles(asFile('note.svg', Buffer.from('no drawing')));
  await expect(page.getByText('“note.svg” is not an SVG drawing.')).toBeVisible();
  expect(said).toEqual([]);
});

test('snow is found by a wish, falls, and is the same wherever playing begins', async ({ page }) => {
  await newProject(page, 'Winter');
  await makeShot(page, { width: 320, height: 180, length: '72' });
  await wish(page, 'winter');
  await expect(layer(page, 'snow')).toBeVisible();
  /** The whole picture of a frame. */
  const frame = async (at: number) => {
    await page.getByLabel('Go to frame or time').fill(String(at));
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Frame', { exact: true })).toHaveText(String(at));
    await pictureShown(page);
    return picture(page).evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL());
  };
  const [first, later] = [await frame(20), await frame(50)];
  expect(later).not.toBe(first);
  // back from the other side
  await frame(71);
  expect(await frame(50)).toBe(later);
  // none come: the flakes that there were are gone
  await typeNumber(page, 'A second', '0');
  await expect.poll(() => picture(page).evaluate((canvas: HTMLCanvasElement) => canvas.toDataURL())).not.toBe(later);
  const bare = await frame(20);
  expect(await frame(50)).toBe(bare);
});

test('what was done to a layer is kept as a jig, turned and put on another', async ({ page }) => {
  await newProject(page, 'Done again');
  await makeShot(page, { width: 320, height: 180, length: '24' });
  await makeLayer(page, 'Colour');
  await wish(page, 'tint by brightness');
  await makeLayer(page, 'Colour');
  const layers = page.getByRole('group', { name: /^Layer / });
  await expect(layers).toHaveCount(2);
  await layers
    .last()
    .getByRole('button', { name: /^colour/i })
    .first()
    .click();
  await page.getByRole('button', { name: 'Layer ▾' }).click();
  await page.getByText('Keep what was done as a jig…').click();
  await page.getByText('Its passes', { exact: true }).click();
  await expect(page.getByText(/is one of the project’s jigs now/)).toBeVisible();
  await layers
    .first()
    .getByRole('button', { name: /^colour/i })
    .first()
    .click();
  await expect(pass(page, 'Tint by brightness')).toHaveCount(0);
  await wish(page, 'jigs by their pictures');
  const sheet = await dialogOpen(page, 'Jigs');
  await sheet.getByRole('button', { name: /passes$/ }).click();
  await sheet
    .getByRole('complementary', { name: 'Dials of the jig' })
    .getByRole('textbox', { name: 'Strength' })
    .fill('35');
  await page.keyboard.press('Tab');
  await redrawn(page, () => sheet.getByRole('button', { name: 'Put in' }).click());
  await pass(page, 'Tint by brightness').click();
  await expect(page.getByRole('region', { name: 'Dials' }).getByRole('textbox', { name: 'Strength' })).toHaveValue(
    '35',
  );
});
