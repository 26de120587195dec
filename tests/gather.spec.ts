// Files of every kind that people have: what they are is read rightly, and their pictures stand where they should.
import { expect, type Page } from '@playwright/test';
import { test } from './fixtures';
import {
  allKept,
  addToShot,
  asFile,
  colourAt,
  importFiles,
  makeShot,
  newProject,
  pictureShown,
  redrawn,
  typeNumber,
} from './helpers';
import { endlessMkv, floatWav, movingPicture, orientedPng } from './hostile';
import { quarters, silentMp3, silentOgg, wrapped } from './media-variants';

const stock = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Stock' }).getByRole('listitem').filter({ hasText: name });

/** Largest difference between a few places of the picture and the given colours. */
async function near(page: Page, places: [number, number, number[]][]): Promise<number> {
  let worst = 0;
  for (const [x, y, colour] of places) {
    const got = await colourAt(page, x, y);
    colour.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - got[i]!))));
  }
  return worst;
}

test('JPEG and WebP stills, OGG and MP3 sounds', async ({ page }) => {
  await newProject(page, 'Stills');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  for (const format of ['jpeg', 'webp'] as const) {
    await importFiles(page, asFile(`quarters.${format}`, await quarters(format)));
    await expect(stock(page, 'quarters').last()).toContainText('still');
    await redrawn(page, () =>
      stock(page, 'quarters')
        .last()
        .getByRole('button', { name: /^Add quarters/ })
        .click(),
    );
    await expect
      .poll(() =>
        near(page, [
          [0.25, 0.25, [255, 0, 0]],
          [0.75, 0.25, [0, 255, 0]],
          [0.25, 0.75, [0, 0, 255]],
          [0.75, 0.75, [255, 255, 255]],
        ]),
      )
      .toBeLessThanOrEqual(8);
    await page.keyboard.press('Delete');
  }
  await importFiles(page, asFile('quiet.ogg', await silentOgg(2)), asFile('hush.mp3', silentMp3(115)));
  await expect(stock(page, 'quiet')).toContainText('sound · 2.0 s');
  await expect(stock(page, 'hush')).toContainText('sound · 3.0 s');
  await addToShot(page, 'quiet');
  await addToShot(page, 'hush');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(page.locator('.problem')).toHaveCount(0);
});

test('MOV; phone footage that is turned by its file; a clip of variable rate; one that begins late', async ({
  page,
}) => {
  await newProject(page, 'Phone');
  await makeShot(page, { width: 1280, height: 720, length: '60f' });
  await importFiles(
    page,
    asFile('plain.mov', await wrapped('signal-tower-day.mp4', { container: 'mov' })),
    asFile('turned.mp4', await wrapped('signal-tower-day.mp4', { container: 'mp4', rotation: 90 })),
  );
  await addToShot(page, 'plain');
  await pictureShown(page);
  await expect(stock(page, 'plain')).toContainText('24');
  const sky = await colourAt(page, 0.1, 0.1);
  const ground = await colourAt(page, 0.1, 0.95);
  expect(Math.abs(sky[0]! - ground[0]!)).toBeGreaterThan(20);
  await addToShot(page, 'turned');
  await page.getByRole('button', { name: 'Centre', exact: true }).click();
  await expect(page.getByTitle(/720×1280/)).toBeVisible();
  // turned a quarter clockwise: what was on the left at the top is now on the right at the top; 720 wide in the middle of 1280
  await redrawn(page, () => typeNumber(page, 'Scale width, %', '56.25'));
  const place = (u: number, v: number): [number, number] => [0.5 + (u - 0.5) * ((720 * 0.5625) / 1280), v];
  await expect.poll(() => near(page, [[...place(0.9, 0.1), sky.slice(0, 3)]])).toBeLessThanOrEqual(6);
  await expect.poll(() => near(page, [[...place(0.05, 0.1), ground.slice(0, 3)]])).toBeLessThanOrEqual(6);
  for (let i = 0; i < 2; i++) await page.keyboard.press('Delete');
  await expect(page.getByRole('group', { name: /^Layer / })).toHaveCount(0);

  // frame 1 comes half a second late, all others as before but later by that
  const late = (t: number) => ({ timestamp: t < 1 / 48 ? t : t + 0.5, duration: t < 1 / 48 ? 13 / 24 : 1 / 24 });
  await importFiles(
    page,
    'captain-even.mp4',
    asFile('uneven.mkv', await wrapped('captain-even.mp4', { container: 'mkv', stamp: late })),
  );
  await expect(stock(page, 'uneven')).toContainText('variable rate');
  const spots: [number, number][] = [
    [0.42, 0.5],
    [0.5, 0.35],
    [0.56, 0.6],
    [0.47, 0.72],
  ];
  const look = async (frame: number) => {
    await page.keyboard.press('Home');
    for (let i = 0; i < frame; i++) await page.keyboard.press('ArrowRight');
    await pictureShown(page);
    return Promise.all(spots.map(([x, y]) => colourAt(page, x, y)));
  };
  await addToShot(page, 'captain even');
  const [first, twelfth] = [await look(0), await look(12)];
  await page.keyboard.press('Delete');
  await addToShot(page, 'uneven');
  expect(await look(12)).toEqual(first);
  expect(await look(24)).toEqual(twelfth);
  await page.keyboard.press('Delete');
  await page.keyboard.press('Home');

  // one that begins late is as long as it is, and shows its first frame first
  const begins = { container: 'mkv', stamp: (at: number) => ({ timestamp: at + 3, duration: 1 / 24 }) } as const;
  await importFiles(page, asFile('late.mkv', await wrapped('signal-tower-day.mp4', begins)), 'signal-tower-day.mp4');
  await expect(stock(page, 'late')).toContainText('5.0 s');
  await addToShot(page, 'signal tower day');
  await page.keyboard.press('ArrowRight');
  await pictureShown(page);
  const want = await Promise.all([0.2, 0.4, 0.6].map((x) => colourAt(page, x, 0.5)));
  await redrawn(page, () => addToShot(page, 'late'));
  const got = await Promise.all([0.2, 0.4, 0.6].map((x) => colourAt(page, x, 0.5)));
  got.forEach((colour, i) => colour.forEach((v, c) => expect(Math.abs(v - want[i]![c]!)).toBeLessThanOrEqual(2)));
});

test('pictures stand as their file says, pictures that move are clips, and sound without end or sense is told', async ({
  page,
}) => {
  await newProject(page, 'Odd');
  await makeShot(page, { width: 320, height: 200, length: '24f' });
  // as it lies in the file: red and green over blue and white; 6 = a quarter clockwise, 3 = upside down
  const [red, green, blue, white] = [
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
    [255, 255, 255],
  ];
  for (const [orientation, want] of [
    [6, [blue, red, white, green]],
    [3, [white, blue, green, red]],
  ] as const) {
    await importFiles(page, asFile(`turned ${orientation}.png`, await orientedPng(orientation)));
    await redrawn(page, () => addToShot(page, `turned ${orientation}`));
    await redrawn(page, () => page.getByRole('button', { name: 'Fit', exact: true }).last().click());
    const [wide, tall] = orientation === 6 ? [(200 * 20) / 32 / 320, 1] : [1, 1];
    const at = (u: number, v: number): [number, number] => [0.5 + (u - 0.5) * wide, 0.5 + (v - 0.5) * tall];
    await expect
      .poll(() =>
        near(page, [
          [...at(0.2, 0.2), want[0]!],
          [...at(0.8, 0.2), want[1]!],
          [...at(0.2, 0.8), want[2]!],
          [...at(0.8, 0.8), want[3]!],
        ]),
      )
      .toBeLessThanOrEqual(4);
    await page.keyboard.press('Delete');
  }
  for (const format of ['gif', 'webp'] as const) {
    await importFiles(
      page,
      asFile(
        `moving-${format}.${format}`,
        await movingPicture(
          format,
          [
            [255, 0, 0],
            [0, 0, 255],
          ],
          [500, 500],
        ),
      ),
    );
    await expect(stock(page, `moving ${format}`)).toContainText('1.0 s');
    await addToShot(page, `moving ${format}`);
    const asks = page.getByRole('dialog', { name: 'The clip differs from the shot' });
    await expect(asks).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(asks).toHaveCount(0);
    await expect.poll(() => near(page, [[0.5, 0.5, [255, 0, 0]]])).toBeLessThanOrEqual(6);
    for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => near(page, [[0.5, 0.5, [0, 0, 255]]])).toBeLessThanOrEqual(6);
    await page.keyboard.press('Home');
    await page.keyboard.press('Delete');
  }
  await importFiles(
    page,
    asFile('nothing.wav', floatWav([])),
    asFile('fast.wav', floatWav([0.1, 0.2], 2_000_000)),
    asFile('no-number.wav', floatWav([0.1, NaN, Infinity, 0.5, ...Array.from({ length: 4000 }, () => 0)])),
    asFile('phone.heic', Buffer.from('\0\0\0\u0018ftypheic\0\0\0\0mif1heic')),
    asFile('_.png', await orientedPng(1)),
  );
  const region = page.getByRole('region', { name: 'Stock' });
  await expect(region.getByText(/“nothing\.wav” (is empty|is damaged)/)).toBeVisible();
  await expect(region.getByText(/“fast\.wav” has 1 channels at 2000000 Hz/)).toBeVisible();
  await expect(region.getByText(/“phone\.heic” is a HEIC picture/)).toBeVisible();
  await expect(stock(page, 'no number')).toContainText('sound');
  // a name that is nothing but signs
  await expect(stock(page, 'untitled')).toContainText('still');
  await allKept(page);
  await page.reload();
  await expect(stock(page, 'untitled')).toContainText('still');
});

test('a file that keeps the decoder busy for ever is given up by name, and what comes after it is taken in', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await newProject(page, 'Endless');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  await importFiles(page, asFile('endless.mkv', endlessMkv(1)), asFile('after.webp', await quarters('webp')));
  await expect(
    page
      .getByRole('region', { name: 'Stock' })
      .getByText(
        /“endless\.mkv” (kept the decoder busy for 20 seconds|is damaged|is not a kind of file|holds neither)/,
      ),
  ).toBeVisible({ timeout: 40_000 });
  await expect(stock(page, 'after')).toContainText('still', { timeout: 20_000 });
});
