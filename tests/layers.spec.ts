// Layers that come from no footage, that work on others, and several as one.
import { expect, type Page } from '@playwright/test';
import { openDemo, test } from './fixtures';
import {
  choose,
  colourAt,
  drag,
  layer,
  makeLayer,
  middle,
  openShot,
  pass,
  picture,
  pictureShown,
  redrawn,
  typeNumber,
} from './helpers';

test.beforeEach(({ page }) => openDemo(page));

const pickLayer = (page: Page, name: string, add = false) =>
  layer(page, name)
    .getByRole('button', { name, exact: true })
    .click(add ? { modifiers: ['Control'] } : {});
const make = (page: Page, what: string): Promise<void> => redrawn(page, () => makeLayer(page, what));
/** Colours over the whole picture. */
const sampled = (page: Page) =>
  Promise.all(Array.from({ length: 40 }, (_, i) => colourAt(page, ((i * 7) % 40) / 40 + 0.01, (i + 0.5) / 40)));
const apart = (a: number[][], b: number[][]): number =>
  Math.max(...a.flatMap((colour, i) => colour.map((part, c) => Math.abs(part - b[i]![c]!))));

test('layers become a group, are worked on inside, and come apart with the same picture', async ({ page }) => {
  // the glow follows a track through the captain: a group would tear that, and says so
  await pickLayer(page, 'captain');
  await pickLayer(page, 'card rail', true);
  await page.keyboard.press('Control+g');
  await expect(page.getByText('lantern glow follows a track through captain')).toBeVisible();
  await pickLayer(page, 'lantern glow');
  await redrawn(page, () => page.keyboard.press('Delete'));
  const before = await sampled(page);
  await pickLayer(page, 'captain');
  await pickLayer(page, 'card rail', true);
  await page.keyboard.press('Control+g');
  await expect(layer(page, 'Group 1')).toBeVisible();
  await expect(layer(page, 'captain')).toHaveCount(0);
  await pictureShown(page);
  expect(apart(await sampled(page), before)).toBeLessThanOrEqual(1);

  await page.getByRole('button', { name: 'Layer ▾', exact: true }).click();
  await page.getByText('Open the group').click();
  await expect(layer(page, 'captain')).toBeVisible();
  await pictureShown(page);
  // the deck is outside: nothing is behind the captain here
  expect((await colourAt(page, 0.9, 0.1))[3]).toBe(0);
  await pickLayer(page, 'captain');
  await page.keyboard.press('Delete');
  await expect(layer(page, 'captain')).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to Night ferry' }).click();
  await pictureShown(page);
  expect(apart(await sampled(page), before)).toBeGreaterThan(30);

  // undo in the shot takes back nothing that was done inside
  await expect(layer(page, 'Group 1').getByRole('button', { name: 'Group 1', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByRole('button', { name: 'Layer ▾', exact: true }).click();
  await page.getByText('Open the group').click();
  await page.keyboard.press('Control+z');
  await expect(layer(page, 'captain')).toBeVisible();
  await page.getByRole('button', { name: 'Back to Night ferry' }).click();
  await pickLayer(page, 'Group 1');
  await page.keyboard.press('Control+Shift+g');
  await expect(layer(page, 'captain')).toBeVisible();
  await pictureShown(page);
  expect(apart(await sampled(page), before)).toBeLessThanOrEqual(1);
});

test('an adjustment layer works on what lies below or on layers that it names; a shadow is moved across Place; a gradient has dials', async ({
  page,
}) => {
  const sky = await colourAt(page, 0.9, 0.05);
  const coat = await colourAt(page, 0.53, 0.69);
  await make(page, 'Adjustment');
  await page.getByRole('region', { name: 'Passes' }).getByText('Adjust', { exact: true }).click();
  await redrawn(page, () => typeNumber(page, 'Exposure', '-3'));
  const dark = await colourAt(page, 0.9, 0.05);
  expect(dark[2]!).toBeLessThan(sky[2]! * 0.6);
  await pass(page, 'Source').click();
  await page.getByRole('combobox', { name: 'Works on' }).press('Enter');
  await redrawn(page, () => page.getByRole('option', { name: 'captain' }).click());
  await page.keyboard.press('Escape');
  expect(await colourAt(page, 0.9, 0.05)).toEqual(sky);
  expect((await colourAt(page, 0.53, 0.69))[2]!).toBeLessThan(coat[2]! * 0.6);

  await pickLayer(page, 'captain');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('shadow');
  await redrawn(page, () => page.keyboard.press('Enter'));
  const after = page.getByRole('group', { name: 'After Place' });
  await expect(after.getByRole('button', { name: 'Drop shadow', exact: true })).toBeVisible();
  await typeNumber(page, 'Distance', '60');
  await expect(page.getByRole('textbox', { name: 'Distance' })).toHaveValue('60');
  await pass(page, 'Drop shadow').focus();
  await page.keyboard.press('Control+ArrowLeft');
  await expect(
    page.getByRole('group', { name: 'Before Place' }).getByRole('button', { name: 'Drop shadow', exact: true }),
  ).toBeVisible();

  await openShot(page, 'Captain to key');
  await pictureShown(page);
  await make(page, 'Gradient');
  const [top, bottom] = [await colourAt(page, 0.5, 0.02), await colourAt(page, 0.5, 0.98)];
  expect(bottom[0]! - top[0]!).toBeGreaterThan(120);
  await choose(page, 'Form', 'about a point');
  await redrawn(page, () => typeNumber(page, 'From y', '0'));
  await pictureShown(page);
  const centre = await colourAt(page, 0.5, 0.5);
  expect(Math.abs(centre[0]! - top[0]!)).toBeLessThan(6);
  // its places are dragged on the picture
  const grip = await middle(page.getByRole('button', { name: 'Gradient: from' }));
  const { width } = (await picture(page).boundingBox())!;
  await drag(page, grip, { x: grip.x - width / 4, y: grip.y });
  await expect(page.getByRole('textbox', { name: 'From x' })).toHaveValue('-320');
  await expect(page.getByRole('textbox', { name: 'From y' })).toHaveValue('0');
});
