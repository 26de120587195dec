// Files of every kind that people have: what they are is read rightly, and their pictures stand where they should.
import { expect, test, type Page } from '@playwright/test';
import { addToShot, asFile, colourAt, drawn, importFiles, makeShot, newProject, pictureShown, redrawn, typeNumber } from './helpers';
import { quarters, silentMp3, silentOgg, wrapped } from './media-variants';

const stock = (page: Page, name: string) => page.getByRole('region', { name: 'Stock' }).getByRole('listitem').filter({ hasText: name });

/** Largest difference between a few places of the picture and the given colours. */
async function near(page: Page, places: [number, number, number[]][]): Promise<number> {
  let worst = 0;
  for (const [x, y, colour] of places) {
    const got = await colourAt(page, x, y);
    colour.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - got[i]!))));
  }
  return worst;
}

test('JPEG and WebP stills', async ({ page }) => {
  await newProject(page, 'Stills');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  for (const format of ['jpeg', 'webp'] as const) {
    await importFiles(page, asFile(`quarters.${format}`, await quarters(format)));
    await expect(stock(page, 'quarters').last()).toContainText('still');
    await redrawn(page, () => stock(page, 'quarters').last().getByRole('button', { name: /^Add quarters/ }).click());
    await expect.poll(() => near(page, [[0.25, 0.25, [255, 0, 0]], [0.75, 0.25, [0, 255, 0]], [0.25, 0.75, [0, 0, 255]], [0.75, 0.75, [255, 255, 255]]])).toBeLessThanOrEqual(8);
    await page.keyboard.press('Delete');
  }
});

test('OGG and MP3 sounds', async ({ page }) => {
  await newProject(page, 'Sounds');
  await makeShot(page, { width: 320, height: 180, length: '10f' });
  await importFiles(page, asFile('quiet.ogg', await silentOgg(2)), asFile('still.mp3', silentMp3(115)));
  await expect(stock(page, 'quiet')).toContainText('sound · 2.0 s');
  await expect(stock(page, 'still')).toContainText('sound · 3.0 s');
  await addToShot(page, 'quiet');
  await addToShot(page, 'still');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(page.locator('.problem')).toHaveCount(0);
});

test('MOV; and phone footage that is turned by its file stands upright', async ({ page }) => {
  await newProject(page, 'Phone');
  await makeShot(page, { width: 1280, height: 720, length: '10f' });
  await importFiles(page, asFile('plain.mov', await wrapped('signal-tower-day.mp4', { container: 'mov' })), asFile('turned.mp4', await wrapped('signal-tower-day.mp4', { container: 'mp4', rotation: 90 })));
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
});

test('a clip of variable rate is sampled by its time stamps', async ({ page }) => {
  await newProject(page, 'Variable');
  await makeShot(page, { width: 1280, height: 720, length: '60f' });
  // frame 1 comes half a second late, all others as before but later by that
  const late = (t: number) => ({ timestamp: t < 1 / 48 ? t : t + 0.5, duration: t < 1 / 48 ? 13 / 24 : 1 / 24 });
  await importFiles(page, 'captain-even.mp4', asFile('late.mkv', await wrapped('captain-even.mp4', { container: 'mkv', stamp: late })));
  await expect(stock(page, 'late')).toContainText('variable rate');
  const spots: [number, number][] = [[0.42, 0.5], [0.5, 0.35], [0.56, 0.6], [0.47, 0.72]];
  const look = async (frame: number) => {
    await page.keyboard.press('Home');
    for (let i = 0; i < frame; i++) await page.keyboard.press('ArrowRight');
    await pictureShown(page);
    return Promise.all(spots.map(([x, y]) => colourAt(page, x, y)));
  };
  await addToShot(page, 'captain even');
  const before = await drawn(page);
  await expect.poll(() => drawn(page)).toBeGreaterThanOrEqual(before);
  const [first, twelfth] = [await look(0), await look(12)];
  await page.keyboard.press('Delete');
  await addToShot(page, 'late');
  expect(await look(12)).toEqual(first);
  expect(await look(24)).toEqual(twelfth);
});
