// Ways of working that many jobs share: fades, parts of a layer given to others, another source, tracing, the stock.
import { expect } from '@playwright/test';
import { openDemo, test } from './fixtures';
import { choose, colourAt, drag, layer, middle, pass, picture, pictureShown, redrawn, typeNumber } from './helpers';

test.beforeEach(async ({ page }) => {
  await openDemo(page);
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await pictureShown(page);
});

test('a folded corner fades a layer in: nothing of it on the first frame, half of it half way', async ({ page }) => {
  // the captain's coat, with the deck behind it
  const coat = () => colourAt(page, 0.5, 0.7);
  const whole = await coat();
  const corner = page.getByRole('slider', { name: 'Fade in of captain' });
  const from = await middle(corner);
  const ruler = (await page.getByLabel('Ruler').boundingBox())!;
  await redrawn(page, () => drag(page, from, { x: from.x + (20 * ruler.width) / 120, y: from.y }));
  await expect(corner).toHaveAttribute('aria-valuenow', '20');
  const nothing = await coat();
  expect(nothing).not.toEqual(whole);
  const hidden = async () => {
    await redrawn(page, () => page.getByRole('button', { name: 'Hide captain' }).click());
    const behind = await coat();
    await redrawn(page, () => page.getByRole('button', { name: 'Show captain' }).click());
    return behind;
  };
  expect(nothing).toEqual(await hidden());
  await redrawn(page, async () => {
    await page.getByLabel('Go to frame or time').fill('10');
    await page.keyboard.press('Enter');
  });
  const [half, behind] = [await coat(), await hidden()];
  await redrawn(page, () => corner.press('Delete'));
  const full = await coat();
  for (const c of [0, 1, 2]) expect(Math.abs(half[c]! - (full[c]! + behind[c]!) / 2)).toBeLessThanOrEqual(2);
});

test('a copied layer gives its passes to another; a layer shows another source and keeps what was done', async ({
  page,
}) => {
  await page.keyboard.press('Control+c');
  await layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true }).click({ button: 'right' });
  await page.getByText('Paste onto these layers…').click();
  await page.getByText('Its passes', { exact: true }).click();
  for (const title of ['Blur', 'Adjust', 'Colour key', 'Wheels']) await expect(pass(page, title)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(pass(page, 'Wheels')).toHaveCount(0);

  const stock = page.getByRole('region', { name: 'Stock' });
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await stock.getByText('captain noisy').click({ button: 'right' });
  await page.getByText('Instead of captain’s source').click();
  await pass(page, 'Source').click();
  await expect(page.getByRole('region', { name: 'Dials' }).getByText('captain-noisy.mp4')).toBeVisible();
  await expect(pass(page, 'Wheels')).toBeVisible();
});

test('stock is searched; several pieces are chosen and deleted together, and come back', async ({ page }) => {
  const stock = page.getByRole('region', { name: 'Stock' });
  const items = stock.getByRole('listitem');
  const all = await items.count();
  await stock.getByRole('textbox', { name: 'Find stock by name' }).fill('tower');
  await expect(items).toHaveCount(4);
  await items.first().click();
  await items.last().click({ modifiers: ['Shift'] });
  await items.first().click({ button: 'right' });
  await page.getByText('Delete these 4 with their layers').click();
  await expect(stock.getByText('No stock is called that.')).toBeVisible();
  await stock.getByRole('textbox', { name: 'Find stock by name' }).fill('');
  await expect(items).toHaveCount(all - 4);
  await stock.getByRole('textbox', { name: 'Find stock by name' }).blur();
  await page.keyboard.press('Control+z');
  await expect(items).toHaveCount(all);
});

test('while its masks are open a layer can be seen uncut, and what lies above it faintly', async ({ page }) => {
  // the screen behind the captain, which the key takes away
  const screen = () => colourAt(page, 0.75, 0.45);
  const cut = await screen();
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Add a mask' }).click();
  await page.getByText('Ellipse', { exact: true }).click();
  await redrawn(page, () => page.getByLabel('Layer uncut while tracing').check());
  const [r, g, b] = await screen();
  expect(g! - Math.max(r!, b!)).toBeGreaterThan(40);
  await redrawn(page, () => page.getByLabel('Layer uncut while tracing').uncheck());
  expect(await screen()).toEqual(cut);
});

test('markers and the picture have menus; Space with a drag shifts the picture and does not play', async ({ page }) => {
  await page.keyboard.press('n');
  await page.getByRole('button', { name: /^Marker without a name at 0/ }).click({ button: 'right' });
  await page.getByText('Name it…').click();
  await page.getByLabel('Name of the marker').fill('here');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Marker here at 0/ }).click({ button: 'right' });
  await page.getByText('Remove', { exact: true }).click();
  await expect(page.getByRole('button', { name: /^Marker/ })).toHaveCount(0);

  const before = (await picture(page).boundingBox())!;
  const at = { x: before.x + before.width / 2, y: before.y + before.height / 2 };
  await page.mouse.click(at.x, at.y, { button: 'right' });
  await page.locator('.v-list-item').filter({ hasText: 'ferry deck' }).click();
  await expect(layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.keyboard.down('Space');
  await drag(page, at, { x: at.x + 90, y: at.y + 40 });
  await page.keyboard.up('Space');
  const after = (await picture(page).boundingBox())!;
  expect([after.x - before.x, after.y - before.y]).toEqual([90, 40]);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('0');
});

test('a copied pass is pasted onto another layer; Delete takes the pass that was chosen last, not its layer', async ({
  page,
}) => {
  await pass(page, 'Wheels').click();
  await page.keyboard.press('Control+c');
  await expect(page.getByText('Copied Wheels.')).toBeVisible();
  await layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true }).click();
  await expect(pass(page, 'Wheels')).toHaveCount(0);
  await page.keyboard.press('Control+v');
  await expect(pass(page, 'Wheels')).toBeVisible();
  await pass(page, 'Wheels').click();
  await page.keyboard.press('Delete');
  await expect(pass(page, 'Wheels')).toHaveCount(0);
  // once more: the passes that are left go one by one, and then nothing else
  for (let i = 0; i < 4; i++) await page.keyboard.press('Delete');
  await expect(pass(page, 'Blur')).toHaveCount(0);
  await expect(layer(page, 'ferry deck')).toBeVisible();
});

test('a half is filled and cut at the middle, with a border where one is wanted; a wave has its level in dB', async ({
  page,
}) => {
  await layer(page, 'ferry deck').getByRole('button', { name: 'ferry deck', exact: true }).click();
  for (const other of ['lantern glow', 'card rail', 'captain'])
    await page.getByRole('button', { name: `Hide ${other}` }).click();
  await redrawn(page, () => page.getByRole('button', { name: 'Hide ferry deck' }).click());
  const ground = (await colourAt(page, 0.5, 0.5)).join();
  await redrawn(page, () => page.getByRole('button', { name: 'Show ferry deck' }).click());
  const empty = async (x: number) => (await colourAt(page, x, 0.5)).join() === ground;
  await page.keyboard.press('p');
  await redrawn(page, () => page.getByRole('button', { name: 'Left half' }).click());
  await expect(pass(page, 'Pane')).toBeVisible();
  expect([await empty(0.49), await empty(0.51)]).toEqual([false, true]);
  await page.getByLabel('Border of placements').fill('36');
  await page.keyboard.press('Enter');
  await redrawn(page, () => page.getByRole('button', { name: 'Right half' }).click());
  await expect(pass(page, 'Pane')).toHaveCount(1);
  // 36 of 1280 are 0.028: the right half begins half a border from the middle, and ends one before the edge
  expect([await empty(0.51), await empty(0.52), await empty(0.98)]).toEqual([true, false, true]);

  const level = page.getByRole('slider', { name: 'Level of harbour bed' });
  await expect(level).toHaveAttribute('aria-valuetext', '0.0 dB');
  const box = (await level.boundingBox())!;
  // the line is drawn along the bar, taken hold of anywhere
  const hold = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await drag(page, hold, { x: hold.x, y: hold.y + 24 });
  await expect(level).toHaveAttribute('aria-valuetext', '−6.0 dB');
  await level.press('ArrowUp');
  await expect(level).toHaveAttribute('aria-valuetext', '−5.0 dB');
});

test('a mask is moved by what is within it, a path by its chosen vertices', async ({ page }) => {
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Add a mask' }).click();
  await page.getByText('Ellipse', { exact: true }).click();
  const centre = await middle(page.getByRole('button', { name: /^Centre of/ }));
  const from = { x: centre.x + 30, y: centre.y + 20 };
  await page.keyboard.down('Control'); // no snapping
  await drag(page, from, { x: from.x + 50, y: from.y - 30 });
  await page.keyboard.up('Control');
  const now = await middle(page.getByRole('button', { name: /^Centre of/ }));
  expect(Math.abs(now.x - centre.x - 50)).toBeLessThan(1);
  expect(Math.abs(now.y - centre.y + 30)).toBeLessThan(1);
});

test('a corner becomes a wipe that is seen before it is chosen; it is dragged, shown in its dials and undone', async ({
  page,
}) => {
  // the captain's face, left and right of where an edge half way across stands
  const face = async () => [await colourAt(page, 0.46, 0.3), await colourAt(page, 0.54, 0.3)] as const;
  const goTo = (frame: string) =>
    redrawn(page, async () => {
      await page.getByLabel('Go to frame or time').fill(frame);
      await page.keyboard.press('Enter');
    });
  await goTo('20');
  const whole = await face();
  const corner = page.getByRole('slider', { name: 'Fade in of captain' });
  await corner.click({ button: 'right' });
  await redrawn(page, () => page.getByText('Wipe', { exact: true }).hover());
  const tried = await face();
  expect(tried[0]).toEqual(whole[0]);
  expect(tried[1]).not.toEqual(whole[1]);
  await page.getByText('Wipe', { exact: true }).click();
  const wiped = page.getByRole('slider', { name: 'Wipe in of captain' });
  await expect(wiped).toHaveAttribute('aria-valuenow', '12');
  await expect(page.getByRole('combobox', { name: 'Begins with' })).toBeVisible();
  // nothing is left of the one that was tried: the wipe is over by now
  await expect.poll(face).toEqual(whole);

  await wiped.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(wiped).toHaveAttribute('aria-valuenow', '22');
  await goTo('11');
  expect((await face())[1]).not.toEqual(whole[1]);
  await redrawn(page, () => typeNumber(page, 'Goes, °', '180'));
  const other = await face();
  expect(other[0]).not.toEqual(tried[0]);

  await redrawn(page, () => choose(page, 'Begins with', 'Iris'));
  await expect(page.getByRole('slider', { name: 'Iris in of captain' })).toHaveAttribute('aria-valuenow', '22');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('slider', { name: 'Wipe in of captain' })).toBeVisible();
  await wiped.press('Delete');
  await expect(page.getByRole('slider', { name: 'Fade in of captain' })).toHaveAttribute('aria-valuenow', '0');
});

test('a layer is aligned with the shot and with others, and keeps to their lines when it is dragged', async ({
  page,
}) => {
  await page.keyboard.press('p');
  const x = page.getByRole('textbox', { name: 'Position x, x' });
  await redrawn(page, () => typeNumber(page, 'Position x, x', '90'));
  await redrawn(page, () => page.getByRole('button', { name: 'Left edges to the shot' }).click());
  await expect(x).toHaveValue('0');
  const from = await middle(picture(page));
  await redrawn(page, () => drag(page, from, { x: from.x + 3, y: from.y + 60 }));
  await expect(x).toHaveValue('0');
  await expect(page.getByRole('textbox', { name: 'Position y, y' })).not.toHaveValue('0');
  await page.keyboard.down('Control');
  await redrawn(page, () => drag(page, from, { x: from.x + 4, y: from.y - 8 }));
  await page.keyboard.up('Control');
  await expect(x).not.toHaveValue('0');
  // two layers: the captain's right edge lies beyond the deck's, and stays
  await typeNumber(page, 'Position x, x', '200');
  await layer(page, 'ferry deck')
    .getByRole('button', { name: 'ferry deck', exact: true })
    .click({ modifiers: ['Shift'] });
  await page.keyboard.press('p');
  await redrawn(page, () => page.getByRole('button', { name: 'Right edges of the chosen layers in line' }).click());
  // the deck came to it
  await expect(x).toHaveValue('200');
});

test('a guide is dragged out of a ruler, moved by keys, kept, and met by a layer that is dragged', async ({ page }) => {
  await page.getByRole('button', { name: 'Lines on the picture' }).click();
  const lines = page.getByRole('group', { name: 'Which lines are on the picture' });
  await lines.getByLabel('Rulers and guides').check();
  await page.keyboard.press('Escape');
  const shown = (await picture(page).boundingBox())!;
  const perPixel = shown.width / 1280;
  // out of the ruler at the left, to 40 pixels right of the middle
  const stage = (await page.getByRole('group', { name: 'Lines on the picture' }).boundingBox())!;
  const to = { x: shown.x + shown.width / 2 + 40 * perPixel, y: shown.y + shown.height * 0.8 };
  await drag(page, { x: stage.x + 6, y: to.y }, to);
  const guide = page.getByRole('slider', { name: 'Upright guide' });
  const place = async () => Number(await guide.getAttribute('aria-valuenow'));
  expect(Math.abs((await place()) - 40)).toBeLessThanOrEqual(1);
  const first = await place();
  await guide.press('Shift+ArrowRight');
  await guide.press('ArrowLeft');
  expect(await place()).toBe(first + 9);
  // the captain's middle comes to lie on it
  await page.keyboard.press('p');
  const x = page.getByRole('textbox', { name: 'Position x, x' });
  await redrawn(page, () => typeNumber(page, 'Position x, x', '0'));
  const from = await middle(picture(page));
  await redrawn(page, () => drag(page, from, { x: from.x + (first + 9) * perPixel + 2, y: from.y + 55 }));
  await expect(x).toHaveValue(String(first + 9));
  await page.keyboard.press('Control+z');
  await expect(x).toHaveValue('0');
  await guide.press('Delete');
  await expect(guide).toHaveCount(0);
  await page.getByRole('button', { name: 'Lines on the picture' }).click();
  await page.getByLabel('Safe areas, 93 % and 90 %').check();
  await page.keyboard.press('Escape');
  // text in the outer area: its right edge comes to 90 % of the width
  const edge = 0.45 * 1280;
  await typeNumber(page, 'Scale width', '25');
  await redrawn(page, () => typeNumber(page, 'Position x, x', String(edge - 160 - 20)));
  const now = await middle(page.getByRole('button', { name: /^Layer on the picture/ }));
  await redrawn(page, () => drag(page, now, { x: now.x + 18 * perPixel, y: now.y }));
  await expect(x).toHaveValue(String(edge - 160));
});
