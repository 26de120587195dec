// Keys of every kind, and judging them.
import { expect, test, type Page } from '@playwright/test';
import { colourAt, full, layer, makeShot, newProject, openDemo, picture, pictureShown, redrawn, typeNumber, asFile, importFiles, addToShot } from './helpers';
import { quarters } from './media-variants';

async function addPass(page: Page, name: string): Promise<void> {
  await page.getByLabel('Search').fill(name);
  await page.getByRole('option', { name }).first().click();
}
const alpha = async (page: Page, x: number, y: number) => (await colourAt(page, x, y))[3]!;

test('key check counts solid, clear and between, and its islands go away with the tolerance', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Shot', exact: true }).click();
  await page.locator('.v-list-item').getByText('Captain to key', { exact: true }).click();
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await page.keyboard.press('e');
  await typeNumber(page, 'Tolerance, %', '2');
  const box = (await picture(page).boundingBox())!;
  await redrawn(page, () => page.mouse.click(box.x + box.width * 0.2, box.y + box.height * 0.3));
  await page.getByRole('button', { name: 'Key check' }).click();
  const legend = page.getByRole('status', { name: 'Key check' });
  const share = async (kind: string) => Number(new RegExp(`${kind}\\s*([\\d.]+) %`).exec((await legend.textContent()) ?? '')?.[1] ?? NaN);
  await expect(legend).toContainText('islands');
  const [solid, clear, between] = [await share('solid'), await share('clear'), await share('between')];
  expect(solid + clear + between).toBeCloseTo(100, 0);
  // the captain takes about a fifth of the picture
  expect(solid).toBeGreaterThan(15);
  expect(solid).toBeLessThan(25);
  await typeNumber(page, 'Tolerance, %', '25');
  await expect.poll(() => share('between')).toBeLessThan(between);
  await expect.poll(() => share('clear')).toBeGreaterThan(clear);
});

test('a brightness key and a hue key take out what they say', async ({ page }) => {
  await newProject(page, 'Ranges');
  await makeShot(page, { width: 320, height: 180, length: '5f', clear: true });
  await full(page);
  await importFiles(page, asFile('quarters.webp', await quarters('webp')));
  await addToShot(page, 'quarters');
  await pictureShown(page);
  await addPass(page, 'Brightness key');
  // red 21 %, green 72 %, blue 7 %, white 100 %
  await expect.poll(async () => [await alpha(page, 0.25, 0.25), await alpha(page, 0.75, 0.25), await alpha(page, 0.25, 0.75), await alpha(page, 0.75, 0.75)]).toEqual([0, 255, 0, 255]);
  await page.getByLabel('Keep', { exact: true }).selectOption({ label: 'what is dark' });
  await expect.poll(async () => [await alpha(page, 0.25, 0.25), await alpha(page, 0.75, 0.25), await alpha(page, 0.25, 0.75), await alpha(page, 0.75, 0.75)]).toEqual([255, 0, 255, 0]);
  await page.getByRole('button', { name: 'Delete Brightness key' }).click();
  await addPass(page, 'Hue key');
  await typeNumber(page, 'Hue, °', '120');
  await expect.poll(async () => [await alpha(page, 0.25, 0.25), await alpha(page, 0.75, 0.25), await alpha(page, 0.25, 0.75), await alpha(page, 0.75, 0.75)]).toEqual([0, 255, 0, 0]);
});
