// Layers in the time panel, by mouse and by keys.
import { expect, type Locator, type Page } from '@playwright/test';
import { openDemo, test } from './fixtures';
import { colourAt, dialogOpen, drag, layer, middle, pass, picture, redrawn, typeNumber } from './helpers';

test.beforeEach(({ page }) => openDemo(page));

const field = (page: Page, name: string): Locator => page.getByRole('textbox', { name });
const showSource = (page: Page) => pass(page, 'Source').click();
const edge = (page: Page, which: string) => page.getByLabel(which, { exact: true });

test('a layer is trimmed by its edges and moved by its bar, snapping; stock dropped on the time panel begins where it is dropped', async ({
  page,
}) => {
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await showSource(page);
  const start = await middle(edge(page, 'Start of captain'));
  const end = await middle(edge(page, 'End of captain'));
  const perFrame = (end.x - start.x) / 120;
  await page.getByLabel('Ruler').click({ position: { x: perFrame * 30.5, y: 8 } });
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('30');
  // two pixels short of the playhead: it snaps
  await drag(page, start, { x: start.x + perFrame * 30 - 2, y: start.y });
  await expect(field(page, 'Start, f')).toHaveValue('30');
  await expect(field(page, 'Length, f')).toHaveValue('90');
  await drag(page, end, { x: end.x - perFrame * 20, y: end.y });
  await expect(field(page, 'Length, f')).toHaveValue('70');
  // moved back to the beginning, where it snaps to frame 0
  const bar = { x: start.x + perFrame * 60, y: start.y };
  await drag(page, bar, { x: bar.x - perFrame * 30 + 3, y: bar.y });
  await expect(field(page, 'Start, f')).toHaveValue('0');
  await expect(field(page, 'Length, f')).toHaveValue('70');
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(field(page, 'Start, f')).toHaveValue('0');
  await expect(field(page, 'Length, f')).toHaveValue('120');

  // Alt suspends snapping
  await page.keyboard.down('Alt');
  await drag(page, end, { x: end.x + 5, y: end.y });
  await page.keyboard.up('Alt');
  await expect(field(page, 'Length, f')).toHaveValue('121');

  const ruler = (await page.getByLabel('Ruler').boundingBox())!;
  // the browser's own drag cannot be driven when headless, so its events are sent
  const dataTransfer = await page.evaluateHandle(() => new DataTransfer());
  await page
    .getByRole('region', { name: 'Stock' })
    .getByRole('listitem')
    .filter({ hasText: 'aurora' })
    .dispatchEvent('dragstart', { dataTransfer });
  await layer(page, 'harbour bed').dispatchEvent('drop', {
    dataTransfer,
    clientX: ruler.x + ruler.width * 0.5,
    clientY: ruler.y + 150,
  });
  await expect(layer(page, 'aurora')).toBeVisible();
  await showSource(page);
  await expect(field(page, 'Start, f')).toHaveValue('60');
});

test('wrong input is said at the field; layers are hidden, soloed, locked, renamed and put in another order', async ({
  page,
}) => {
  await typeNumber(page, 'Clear up to, %', 'much');
  await expect(page.getByRole('alert')).toContainText('“much” is not a number; 7.5 stays.');
  await typeNumber(page, 'Clear up to, %', '400');
  await expect(page.getByRole('alert')).toContainText('Clear up to goes from 0 to 99; 7.5 stays.');
  await redrawn(page, () => typeNumber(page, 'Clear up to, %', '12'));
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(field(page, 'Clear up to, %')).toHaveValue('12');

  const at = [0.5, 0.62] as const;
  const coat = await colourAt(page, ...at);
  await layer(page, 'captain').hover();
  await redrawn(page, () => page.getByRole('button', { name: 'Hide captain', exact: true }).click());
  expect(await colourAt(page, ...at)).not.toEqual(coat);
  await redrawn(page, () => page.getByRole('button', { name: 'Show captain', exact: true }).click());
  await layer(page, 'captain').hover();
  await redrawn(page, () => page.getByRole('button', { name: 'Solo captain', exact: true }).click());
  expect(await colourAt(page, 0.05, 0.05)).toEqual([0, 0, 0, 255]);
  await redrawn(page, () => page.getByRole('button', { name: 'Solo captain', exact: true }).click());
  await page.getByRole('button', { name: 'Lock captain', exact: true }).click();
  await expect(page.getByText('captain · locked')).toBeVisible();
  await expect(field(page, 'Clear up to, %')).toBeDisabled();
  await layer(page, 'captain').hover();
  await page.getByRole('button', { name: 'Unlock captain', exact: true }).click();
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).dblclick();
  await page.getByRole('textbox', { name: 'Name of captain' }).fill('fox');
  await page.keyboard.press('Enter');
  await expect(layer(page, 'fox')).toBeVisible();
  // behind the deck he is gone
  const grip = page.getByRole('button', { name: /^Reorder fox/ });
  await redrawn(page, () => grip.press('ArrowDown'));
  await expect(page.getByRole('group', { name: /^Layer/ }).nth(3)).toHaveAccessibleName('Layer fox');
  expect(await colourAt(page, ...at)).not.toEqual(coat);
});

test('passes are reordered, switched off and deleted; a crop is dragged on the picture; keys are listed', async ({
  page,
}) => {
  const tile = pass(page, 'Wheels').locator('canvas');
  const sum = () =>
    tile.evaluate((canvas: HTMLCanvasElement) =>
      canvas
        .getContext('2d')!
        .getImageData(0, 0, canvas.width, canvas.height)
        .data.reduce((total, v) => total + v, 0),
    );
  await expect.poll(sum).toBeGreaterThan(0);
  const before = await sum();
  await pass(page, 'Colour key').press('Control+ArrowRight');
  const names = page
    .getByRole('region', { name: 'Passes' })
    .getByRole('button', { name: /^(Source|Colour key|Wheels)/ });
  await expect(names.nth(1)).toHaveAccessibleName('Wheels');
  await page.keyboard.press('Control+z');
  await expect(names.nth(1)).toHaveAccessibleName('Colour key');
  await expect.poll(sum).toBe(before);
  await pass(page, 'Wheels').click();
  await redrawn(page, () => typeNumber(page, 'Saturation, %', '300'));
  await expect.poll(sum).toBeGreaterThan(before);
  await pass(page, 'Wheels').hover();
  await redrawn(page, () => page.getByRole('button', { name: 'Switch off Wheels' }).click());
  await expect(pass(page, 'Wheels, off')).toBeVisible();
  await page.getByRole('button', { name: 'Delete Wheels' }).click();
  await expect(pass(page, 'Wheels, off')).toHaveCount(0);

  await layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true }).click();
  await page.getByRole('button', { name: 'Add a pass' }).click();
  await page.getByText('Crop', { exact: true }).click();
  const box = (await picture(page).boundingBox())!;
  const grip = page.getByRole('button', { name: 'Crop: left', exact: true });
  const from = await middle(grip);
  await drag(page, from, { x: from.x + box.width / 4, y: from.y });
  await expect(field(page, 'Left, px')).toHaveValue('320');
  await expect.poll(async () => (await colourAt(page, 0.1, 0.5)).slice(0, 3)).toEqual([0, 0, 0]);
  await grip.press('ArrowLeft');
  await expect(field(page, 'Left, px')).toHaveValue('319');

  // on a tilted layer the grip still lies on the edge of what is left
  await page.keyboard.press('p');
  await redrawn(page, () => typeNumber(page, 'Tilt y', '35'));
  await pass(page, 'Crop').click();
  const at = await middle(grip);
  const beside = async (by: number) =>
    (await colourAt(page, (at.x + by - box.x) / box.width, (at.y - box.y) / box.height)).slice(0, 3);
  expect(await beside(-8)).toEqual([0, 0, 0]);
  expect(await beside(8)).not.toEqual([0, 0, 0]);

  // the shortcut list opens with a question mark; views follow their numbers
  await page.keyboard.press('?');
  await expect(await dialogOpen(page, 'Shortcuts')).toContainText('Play or stop');
  await page.keyboard.press('Escape');
  // as long as it is there, keys belong to it
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toHaveCount(0);
  await page.keyboard.press('5');
  await expect(page.getByRole('button', { name: 'Layer alone' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('End');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('119');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('109');
});

test('a click on the picture chooses its layer; the other button opens menus; the time is typed', async ({ page }) => {
  const dials = page.getByRole('region', { name: 'Dials' });
  const box = (await picture(page).boundingBox())!;
  const click = (x: number, y: number) => page.mouse.click(box.x + box.width * x, box.y + box.height * y);
  await click(0.3, 0.85);
  await expect(dials).toContainText('card rail');
  await click(0.5, 0.4);
  await expect(dials).toContainText('captain');
  // once more at the same place: what lies below
  await click(0.5, 0.4);
  await expect(dials).toContainText('ferry deck');

  const time = page.getByRole('textbox', { name: 'Go to frame or time' });
  const frame = page.getByRole('status', { name: 'Frame' });
  for (const [text, at] of [
    ['2.5s', '60'],
    ['+6', '66'],
    ['−16', '50'],
    ['0:01.12', '36'],
  ] as const) {
    await time.fill(text);
    await time.press('Enter');
    await expect(frame).toHaveText(at);
  }
  await time.fill('soon');
  await time.press('Enter');
  await expect(page.getByText('“soon” is no frame or time.')).toBeVisible();
  await expect(frame).toHaveText('36');

  await layer(page, 'captain').click({ button: 'right' });
  await page.getByText('Play backwards').click();
  await expect(layer(page, 'captain').getByRole('button', { name: 'captain', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await pass(page, 'Wheels').click({ button: 'right' });
  await page.getByText('Duplicate', { exact: true }).click();
  await expect(pass(page, 'Wheels')).toHaveCount(2);
  await page.getByRole('region', { name: 'Stock' }).getByText('paper kite').click({ button: 'right' });
  await page.getByText('Add to the shot', { exact: true }).click();
  await expect(layer(page, 'paper kite')).toBeVisible();
});
