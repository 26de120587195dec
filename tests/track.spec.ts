import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { buoyAt } from '../demo/art/moving';
import { readTrackCsv } from '../src/core/formats/track-file';
import { openDemo, test } from './fixtures';
import {
  addToShot,
  allKept,
  asFile,
  complaints,
  importFiles,
  layer,
  makeShot,
  middle,
  newProject,
  pass,
  openShot,
  picture,
  pictureShown,
  redrawn,
} from './helpers';

const RATE = 24;
const FRAMES = 96;
const START = 40;

/** A place of the picture on the page, from pixels of the clip. */
async function place(page: Page, x: number, y: number): Promise<[number, number]> {
  const box = (await picture(page).boundingBox())!;
  return [box.x + (x / 1280) * box.width, box.y + (y / 720) * box.height];
}
async function buoy(page: Page): Promise<void> {
  await newProject(page, 'Following');
  await makeShot(page, { width: 1280, height: 720, length: String(FRAMES) });
  await importFiles(page, 'buoy-waves.mp4');
  await addToShot(page, 'buoy waves');
  await pictureShown(page);
  for (let i = 0; i < START / 10; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('t');
}
async function addTrack(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a track' }).click();
  await page.locator('.v-list-item-title').getByText(title, { exact: true }).click();
}
async function stroke(page: Page, from: [number, number], to: [number, number]): Promise<void> {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(from[0], to[1], { steps: 3 });
  await page.mouse.move(...to, { steps: 3 });
  await page.mouse.up();
}
/** Where a spot fixed to the buoy's body is on a frame, seen from its middle on the first one. */
function spotAt(frame: number, from: { x: number; y: number }): [number, number] {
  const first = buoyAt(START / RATE);
  const now = buoyAt(frame / RATE);
  const turn = ((now.turn - first.turn) * Math.PI) / 180;
  const [dx, dy] = [from.x - first.x, from.y - first.y];
  return [now.x + dx * Math.cos(turn) - dy * Math.sin(turn), now.y + dx * Math.sin(turn) + dy * Math.cos(turn)];
}

test('a pattern is drawn, tracked both ways, read, mended, followed by a mask, and all of it undone', async ({
  page,
}) => {
  const said = complaints(page);
  await buoy(page);
  await addTrack(page, 'Point');
  const { x, y } = buoyAt(START / RATE);
  await stroke(page, await place(page, x - 46, y - 56), await place(page, x + 46, y + 46));
  await page.getByRole('button', { name: 'Both ways' }).click();
  await expect(page.getByText(/Forward: \d+ of 55 frames/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Both ways' })).toBeVisible({ timeout: 60_000 });
  const chart = page.getByRole('img', { name: 'Chart of Point: position, speed and confidence' });
  await expect(chart).toBeVisible();

  // what was measured is where the buoy was drawn
  await page.getByRole('button', { name: 'More for this track' }).click();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByText('Save as CSV').click()]);
  const { rows } = readTrackCsv(readFileSync(await file.path(), 'utf8'), 'Point.csv');
  expect(rows.size).toBe(FRAMES);
  // and the chart says it for the frame that the pointer is over
  const reads = page.getByText(/\d+: x -?[\d.]+ y -?[\d.]+ · [\d.]+ px · \d+ %/);
  let right = 120;
  await expect(async () => {
    await chart.hover({ position: { x: right++, y: 60 } });
    await expect(reads).toBeVisible({ timeout: 1000 });
  }).toPass();
  const [frame, x1, y1] = (await reads.innerText()).match(/-?\d[\d.]*/g)!.map(Number) as [number, number, number];
  const way = [0, 1].map((part) => rows.get(frame)!.points[0]![part]! - rows.get(0)!.points[0]![part]!);
  expect([x1, y1]).toEqual(way.map((v) => expect.closeTo(v, 0)));

  const [px, py] = rows.get(START)!.points[0]!;
  const spot = { x: px + 640, y: py + 360 };
  const off = [...rows].map(([frame, { points }]) => {
    const [u, v] = spotAt(frame, spot);
    return Math.hypot(points[0]![0] + 640 - u, points[0]![1] + 360 - v);
  });
  expect(Math.sqrt(off.reduce((sum, d) => sum + d * d, 0) / off.length)).toBeLessThan(0.35);

  // a frame is mended from the keyboard, and says so
  await page.getByRole('button', { name: /^Point of Point on frame/ }).press('ArrowRight');
  await expect(page.getByText('mended by hand.')).toBeVisible();
  await page.getByRole('button', { name: 'Measure it again' }).click();
  await expect(page.getByText('mended by hand.')).toBeHidden();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');

  // a mask goes along
  await page.getByRole('button', { name: 'Mask on it' }).click();
  await page.keyboard.press('a');
  const grip = page.getByRole('button', { name: 'Centre of Point', exact: true });
  const shown = async () => Number(await picture(page).getAttribute('data-frame'));
  const before = { frame: await shown(), at: await middle(grip) };
  for (let i = 0; i < 2; i++) await redrawn(page, () => page.keyboard.press('Shift+ArrowRight'));
  const after = { frame: await shown(), at: await middle(grip) };
  const scale = (await picture(page).boundingBox())!.width / 1280;
  const [from, to] = [spotAt(before.frame, spot), spotAt(after.frame, spot)];
  expect(after.frame).not.toBe(before.frame);
  expect(after.at.x - before.at.x).toBeCloseTo((to[0] - from[0]) * scale, 0);
  expect(after.at.y - before.at.y).toBeCloseTo((to[1] - from[1]) * scale, 0);

  // mask, run, pattern, track: one step each
  for (let i = 0; i < 4; i++) await page.keyboard.press('Control+z');
  await page.keyboard.press('t');
  await expect(page.getByText('Nothing of this clip has been measured.')).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByRole('list', { name: 'Tracks' }).getByText('Point')).toBeVisible();
  await allKept(page);
  expect(said).toEqual([]);
});

test('files that are no tracks say the line and the column, and good ones come in', async ({ page }) => {
  await buoy(page);
  const input = page.getByLabel('CSV or JSON file with a track');
  await input.setInputFiles(asFile('drift.csv', Buffer.from('frame,x1,y1\n0,1,2\n1,abc,2\n')));
  await expect(page.getByRole('alert')).toContainText('line 3, column “x1”: “abc” is not a number');
  await input.setInputFiles(asFile('drift.csv', Buffer.from('frame,x1,y1\n0.5,1,2\n')));
  await expect(page.getByRole('alert')).toContainText('multiply them by the clip’s frames a second');
  await input.setInputFiles(asFile('drift.csv', Buffer.from('frame,x1,y1\n0,-200,0\n95,200,0\n')));
  await expect(page.getByRole('list', { name: 'Tracks' }).getByText('drift')).toBeVisible();
  await expect(page.getByRole('alert')).toBeHidden();
});

test('a run is stopped and what it measured stays; a followed track asks before it goes', async ({ page }) => {
  await buoy(page);
  const input = page.getByLabel('CSV or JSON file with a track');
  await input.setInputFiles(asFile('drift.csv', Buffer.from('frame,x1,y1\n0,-200,0\n95,200,0\n')));
  await page.getByRole('button', { name: 'Mask on it' }).click();
  await page.getByRole('button', { name: 'Delete track drift' }).click();
  const asked = page.getByRole('dialog');
  await expect(asked).toContainText('It is followed by buoy waves');
  await asked.getByRole('button', { name: 'Keyframes, then delete' }).click();
  await expect(page.getByText('Nothing of this clip has been measured.')).toBeVisible();
  // a straight way needs no more keyframes than its ends
  await page.keyboard.press('a');
  await page.getByRole('button', { name: 'Animated values of buoy waves' }).click();
  await expect(page.getByRole('button', { name: /^Keyframe of Centre at/ })).toHaveCount(2);

  await page.keyboard.press('t');
  await addTrack(page, 'Sway');
  await page.getByRole('button', { name: 'Forward', exact: true }).click();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByText('Stopped; what was measured is kept.')).toBeVisible();

  // looking only where the pattern is not
  await page.keyboard.press('Home');
  await addTrack(page, 'Point');
  await page.getByRole('combobox', { name: 'Looks' }).click({ force: true });
  await page.getByRole('option', { name: 'only inside masks' }).click();
  await expect(page.getByRole('group', { name: 'Masks of where it looks' }).getByText('drift')).toBeVisible();
  await page.getByRole('button', { name: 'Forward', exact: true }).click();
  await expect(page.getByText('The masks of where it looks leave too little of it.')).toBeVisible();
});

test('a layer is pinned on a plane and matched to it; the project’s tracks are listed beside the stock', async ({
  page,
}) => {
  const said = complaints(page);
  await newProject(page, 'Pinned');
  await makeShot(page, { width: 1280, height: 720, length: '48' });
  await importFiles(page, 'harbour-banner.mp4', 'paper-kite.png');
  await addToShot(page, 'harbour banner');
  await addToShot(page, 'paper kite');
  const choose = (name: string) => layer(page, name).getByRole('button', { name, exact: true }).click();
  await choose('harbour banner');
  await page.keyboard.press('t');
  const file = join(import.meta.dirname, '../demo/tracks/harbour-banner.csv');
  await page.getByLabel('CSV or JSON file with a track').setInputFiles(file);
  await page.getByRole('button', { name: 'Pin a layer on it' }).click();
  await page.locator('.v-list-item').getByText('paper kite').click();
  await expect(page.getByRole('button', { name: 'Corner pin: upper left' })).toBeVisible();
  // each corner can be let go by itself
  await page.getByRole('combobox', { name: 'Which values' }).click({ force: true });
  await expect(page.getByRole('option', { name: 'Upper left → harbour banner' })).toBeVisible();
  await page.keyboard.press('Escape');

  await page.getByRole('tab', { name: 'Tracks' }).click();
  await page.getByRole('list', { name: 'Tracks of the project' }).getByText('harbour banner').last().click();
  await page.getByRole('button', { name: 'Match what is pinned' }).click();
  await page.locator('.v-list-item').getByText('paper kite').click();
  await expect(page.getByText(/^Reading the surface/)).toBeVisible();
  await expect(page.getByText(/^Reading the surface/)).toBeHidden({ timeout: 60_000 });
  // a clean drawing is sharper than what a camera and an encoder have seen
  const radius = page.getByRole('spinbutton', { name: 'Radius' }).or(page.getByRole('textbox', { name: 'Radius' }));
  await choose('paper kite');
  await pass(page, 'Blur').click();
  expect(Number(await radius.inputValue())).toBeGreaterThan(0.2);
  await page.keyboard.press('Control+z');
  await expect(pass(page, 'Blur')).toBeHidden();
  expect(said).toEqual([]);
});

test('the demo’s kite stays on its banner', async ({ page }) => {
  await openDemo(page);
  await openShot(page, 'Banner');
  await layer(page, 'kite on the banner').getByRole('button', { name: 'kite on the banner', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Corner pin: upper left' })).toBeVisible();
  const grip = page.getByRole('button', { name: 'Corner pin: upper right' });
  const before = await middle(grip);
  for (let i = 0; i < 3; i++) await redrawn(page, () => page.keyboard.press('Shift+ArrowRight'));
  const after = await middle(grip);
  expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeGreaterThan(5);
});
