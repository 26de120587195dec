// Timing and animating as people do it: with the mouse in the time panel, with pegs at the dials, and on the picture.
import { expect, type Page } from '@playwright/test';
import { ease } from '../src/core/time/easing';
import { test } from './fixtures';
import {
  choose,
  addToShot,
  allKept,
  colourAt,
  drag,
  importFiles,
  makeShot,
  middle,
  newProject,
  pass,
  pictureShown,
  typeNumber,
} from './helpers';

const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });
const seek = async (page: Page, frame: number) => {
  await page.getByLabel('Go to frame or time').fill(String(frame));
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText(String(frame));
};
const frameX = async (page: Page, frame: number, length: number) => {
  const ruler = (await page.getByLabel('Ruler').boundingBox())!;
  return ruler.x + ((frame + 0.5) * ruler.width) / length;
};

async function kiteShot(page: Page): Promise<void> {
  await newProject(page, 'Kites');
  await makeShot(page, { width: 640, height: 360, length: '61f' });
  await importFiles(page, 'paper-kite.png');
  await addToShot(page, 'paper kite');
  await pass(page, 'Place').click();
  await pictureShown(page);
}

test('pegs animate a value; the dials, the rows and the picture agree, and all of it is undone and found again', async ({
  page,
}) => {
  await kiteShot(page);
  await typeNumber(page, 'Position x, x', '-200');
  await page.getByRole('button', { name: 'Add keyframe of Position' }).click();
  await seek(page, 40);
  await typeNumber(page, 'Position x, x', '200');
  await seek(page, 20);
  await expect(field(page, 'Position x, x')).toHaveValue('0');
  await page.getByRole('button', { name: 'Animated values of paper kite' }).click();
  const row = page.getByRole('group', { name: 'Position of paper kite' });
  await expect(row.getByRole('button', { name: /^Keyframe of Position at/ })).toHaveCount(2);

  // a keyframe dragged in its row snaps to the playhead
  const peg = await middle(row.getByRole('button', { name: 'Keyframe of Position at 40' }));
  const playhead = await frameX(page, 20, 61);
  await seek(page, 30);
  await drag(page, peg, { x: (await frameX(page, 30, 61)) + 4, y: peg.y });
  await expect(row.getByRole('button', { name: 'Keyframe of Position at 30' })).toBeVisible();
  expect(playhead).toBeGreaterThan(0);
  await expect(field(page, 'Position x, x')).toHaveValue('200');

  // on the picture: the keyframe at the playhead is dragged 40 pixels of the shot down
  const handle = page.getByRole('button', { name: 'Path keyframe at 30' });
  const spot = await middle(handle);
  const width = (await page.getByRole('img', { name: /^Frame \d+ of/ }).boundingBox())!.width;
  await drag(page, spot, { x: spot.x, y: spot.y + (40 * width) / 640 });
  await expect(field(page, 'Position y, y')).toHaveValue(/^(39|40|41)(\.\d)?$/);
  await seek(page, 15);
  await expect(field(page, 'Position y, y')).toHaveValue(/^(19|20|21)(\.\d)?$/);

  // neighbours' keys and the history list
  await page.keyboard.press('.');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('30');
  await page.keyboard.press(',');
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('0');
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByText('Add keyframe: Position of paper kite').click();
  await expect(row.getByRole('button', { name: /^Keyframe of Position at/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByRole('listbox').or(page.locator('.history')).getByText('Move paper kite at a keyframe').click();
  await expect(row.getByRole('button', { name: /^Keyframe of Position at/ })).toHaveCount(2);
  await allKept(page);
  await page.reload();
  // the rows that were open are open again
  await expect(row.getByRole('button', { name: 'Keyframe of Position at 30' })).toBeVisible();
});

test('easing is chosen for several keyframes at once; a curve’s handle is dragged', async ({ page }) => {
  await kiteShot(page);
  await typeNumber(page, 'Rotation, °', '0');
  await page.getByRole('button', { name: 'Add keyframe of Rotation' }).click();
  await seek(page, 40);
  await typeNumber(page, 'Rotation, °', '100');
  await seek(page, 20);
  await expect(field(page, 'Rotation, °')).toHaveValue('50');
  await page.getByRole('button', { name: 'Animated values of paper kite' }).click();
  await page.getByRole('button', { name: 'Keyframe of Rotation at 0' }).click();
  await page.getByRole('button', { name: 'Keyframe of Rotation at 40' }).click({ modifiers: ['Shift'] });
  await choose(page, 'Easing', 'Hold');
  await expect(field(page, 'Rotation, °')).toHaveValue('0');
  await choose(page, 'Easing', 'Ease in');
  // the browser's own animation engine is the judge: cubic-bezier(0.6, 0, 1, 1) half way
  const judged = await page.evaluate(() => {
    const box = document.body.appendChild(document.createElement('div'));
    const animation = box.animate([{ opacity: 0 }, { opacity: 1 }], {
      duration: 1000,
      easing: 'cubic-bezier(0.6, 0, 1, 1)',
    });
    animation.pause();
    animation.currentTime = 500;
    const value = Number(getComputedStyle(box).opacity);
    box.remove();
    return value;
  });
  expect(Math.abs(Number(await field(page, 'Rotation, °').inputValue()) - judged * 100)).toBeLessThan(0.1);

  // its row, dragged by its lower edge, is a curve
  await expect(page.getByRole('button', { name: 'Leaving handle of Rotation at 0' })).toHaveCount(0);
  const edge = await middle(page.getByRole('separator', { name: /^Height of Rotation/ }));
  await drag(page, edge, { x: edge.x, y: edge.y + 70 });
  await page.getByRole('button', { name: 'Keyframe of Rotation at 0' }).click();
  const handle = page.getByRole('button', { name: 'Leaving handle of Rotation at 0' });
  const from = await middle(handle);
  await drag(page, from, { x: from.x, y: from.y - 60 });
  await expect(page.getByLabel('Easing', { exact: true })).toHaveValue('own handles');
  expect(Number(await field(page, 'Rotation, °').inputValue())).toBeGreaterThan(judged * 100 + 3);
  await page.keyboard.press('Control+z');
  expect(Math.abs(Number(await field(page, 'Rotation, °').inputValue()) - judged * 100)).toBeLessThan(0.1);

  // the same by the keyboard alone
  await handle.focus();
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowUp');
  expect(Number(await field(page, 'Rotation, °').inputValue())).toBeGreaterThan(judged * 100 + 1);
  await page.getByRole('button', { name: 'Keyframe of Rotation at 40' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: 'Keyframe of Rotation at 41' })).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await page.getByRole('button', { name: 'Keyframe of Rotation at 41' }).blur();
  await seek(page, 41);
  expect(Number(await field(page, 'Rotation, °').inputValue())).toBeLessThan(100);
});

test('rows are laid over each other, moved at any height and found again; the view follows the playhead', async ({
  page,
}) => {
  await kiteShot(page);
  await typeNumber(page, 'Position x, x', '-200');
  await page.getByRole('button', { name: 'Add keyframe of Position' }).click();
  await typeNumber(page, 'Rotation, °', '0');
  await page.getByRole('button', { name: 'Add keyframe of Rotation' }).click();
  await seek(page, 50);
  await typeNumber(page, 'Position x, x', '200');
  await typeNumber(page, 'Rotation, °', '90');
  await page.keyboard.press('c');
  const rotation = page.getByRole('group', { name: 'Rotation of paper kite' });
  await expect(rotation.getByText('0 … 90 °')).toBeVisible();
  // a keyframe dragged upwards has a greater value, and stands where the pointer left it
  const peg = rotation.getByRole('button', { name: 'Keyframe of Rotation at 0' });
  await peg.hover();
  const from = await middle(peg);
  await drag(page, from, { x: from.x, y: from.y - 20 });
  expect(Math.abs((await middle(peg)).x - from.x)).toBeLessThan(1);
  await seek(page, 0);
  const raised = Number(await field(page, 'Rotation, °').inputValue());
  // of the row's 116 px the curve has all but 28 above and 16 below
  expect(Math.abs(raised - (20 / 72) * 90)).toBeLessThan(1.5);

  // both in one row, from the row's menu
  await rotation.getByText('Rotation', { exact: true }).first().click({ button: 'right' });
  await page.getByText('Lay over…').click();
  await page.getByRole('listitem').filter({ hasText: 'PositionPlace' }).click();
  const both = page.getByRole('group', { name: 'Position, Rotation of paper kite' });
  await expect(both.getByRole('button', { name: 'Keyframe of Rotation at 50' })).toBeVisible();
  await expect(both.getByRole('button', { name: 'Keyframe of Position x at 50' })).toBeVisible();
  await allKept(page);
  await page.reload();
  await expect(both).toBeVisible();
  await both.getByText(/^Position · Rotation/).click({ button: 'right' });
  await page.getByText('Apart again').click();
  await expect(rotation).toBeVisible();

  // a keyframe's own menu
  await rotation.getByRole('button', { name: 'Keyframe of Rotation at 50' }).click({ button: 'right' });
  await page.getByText('Go there').click();
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('50');

  // zoomed in, the end is brought into view
  await page.getByRole('slider', { name: 'Zoom of the time panel' }).focus();
  for (let i = 0; i < 60; i++) await page.keyboard.press('ArrowRight');
  await page.getByRole('slider', { name: 'Zoom of the time panel' }).blur();
  const panel = (await page.getByRole('region', { name: 'Time' }).boundingBox())!;
  const ends = async () => {
    const { x, width } = (await page.getByLabel('Ruler').boundingBox())!;
    return { first: x >= panel.x, last: x + width <= panel.x + panel.width };
  };
  await page.keyboard.press('Home');
  await expect.poll(ends).toEqual({ first: true, last: false });
  await page.keyboard.press('End');
  await expect.poll(async () => (await ends()).first).toBe(false);
  // a page on: the last frame lies well inside
  await expect.poll(async () => (await frameX(page, 60, 61)) < panel.x + panel.width).toBe(true);
});

test('cubic easing is the browser’s own, within a ten-thousandth', async ({ page }) => {
  const curves: [number, number, number, number][] = [
    [0.6, 0, 1, 1],
    [0.25, 0.1, 0.25, 1],
    [0.3, 1.5, 0.6, 1],
    [0, 0, 0.2, 1],
    [0.9, -0.4, 0.1, 1.4],
  ];
  const shares = Array.from({ length: 41 }, (_, i) => i / 40);
  const judged = await page.evaluate(
    ([all, at]) =>
      all.map((curve) =>
        at.map((share) => {
          const effect = new KeyframeEffect(null, [], { duration: 1, easing: `cubic-bezier(${curve.join()})` });
          const animation = new Animation(effect);
          animation.currentTime = share;
          return share >= 1 ? 1 : effect.getComputedTiming().progress!;
        }),
      ),
    [curves, shares] as const,
  );
  curves.forEach((cubic, i) =>
    shares.forEach((share, k) => expect(Math.abs(ease({ cubic }, share) - judged[i]![k]!)).toBeLessThanOrEqual(1e-4)),
  );
});

test('keyframes are copied and pasted reversed; in and out limit playing, and markers are named', async ({ page }) => {
  await kiteShot(page);
  await page.getByRole('button', { name: 'Add keyframe of Position' }).click();
  await seek(page, 10);
  await typeNumber(page, 'Position x, x', '90');
  await page.getByRole('button', { name: 'Animated values of paper kite' }).click();
  await page.getByRole('button', { name: 'Keyframe of Position at 0', exact: true }).click();
  await page.getByRole('button', { name: 'Keyframe of Position at 10' }).click({ modifiers: ['Shift'] });
  await page.keyboard.press('Control+c');
  await seek(page, 20);
  await page.keyboard.press('Control+Shift+v');
  await expect(page.getByRole('button', { name: /^Keyframe of Position at/ })).toHaveCount(4);
  for (const [frame, x] of [
    [20, '90'],
    [25, '45'],
    [30, '0'],
  ] as const) {
    await seek(page, frame);
    await expect(field(page, 'Position x, x')).toHaveValue(x);
  }

  // in and out, markers
  await seek(page, 12);
  await page.keyboard.press('i');
  await page.keyboard.press('n');
  await seek(page, 30);
  await page.keyboard.press('o');
  await page.keyboard.press('Home');
  await page.getByRole('button', { name: 'First frame' }).click();
  await expect(page.getByLabel('Frame', { exact: true })).toHaveText('12');
  await page.getByRole('button', { name: /^Marker without a name at 12/ }).dblclick();
  await page.getByLabel('Name of the marker').fill('wind');
  await page.getByLabel('Name of the marker').press('Enter');
  await expect(page.getByRole('button', { name: 'Marker wind at 12' })).toBeVisible();
  await page.getByRole('button', { name: 'Render…' }).click();
  await expect(page.getByText(/19 frames, from the in point at 12 to the out point at 30/)).toBeVisible();
});

test('split, reverse and speed: three gestures; the source frame that shows is said, and a clip that is too short', async ({
  page,
}) => {
  await newProject(page, 'Speed');
  await makeShot(page, { width: 1280, height: 720, length: '100f' });
  await importFiles(page, 'signal-tower-day.mp4');
  await addToShot(page, 'signal tower day');
  await seek(page, 40);
  await page.keyboard.press('s');
  await expect(page.getByRole('group', { name: 'Layer signal tower day' })).toHaveCount(2);
  const bars = await Promise.all(
    [0, 1].map((i) => page.getByRole('group', { name: 'Layer signal tower day' }).nth(i).locator('.bar').boundingBox()),
  );
  expect(Math.abs(bars[1]!.x + bars[1]!.width - bars[0]!.x)).toBeLessThan(2);

  // the part after the cut, reversed and at double speed
  await page.getByRole('group', { name: 'Layer signal tower day' }).first().locator('.name').click();
  await pass(page, 'Source').click();
  await expect(page.getByLabel('Source frame', { exact: true })).toHaveText('40.00');
  await page.getByRole('button', { name: 'Play backwards' }).click();
  await expect(page.getByLabel('Source frame', { exact: true })).toHaveText('119.00');
  await typeNumber(page, 'Speed, %', '-200');
  await expect(field(page, 'Length, f')).toHaveValue('40');
  await seek(page, 50);
  await expect(page.getByLabel('Source frame', { exact: true })).toHaveText('99.00');

  // a ramp on the part before it: from full speed to none in 20 frames is ten frames of source
  await page.getByRole('group', { name: 'Layer signal tower day' }).last().locator('.name').click();
  await pass(page, 'Source').click();
  await page.getByLabel('Length follows the speed').uncheck();
  await seek(page, 0);
  await page.getByRole('button', { name: 'Add keyframe of Speed' }).click();
  await seek(page, 20);
  await typeNumber(page, 'Speed, %', '0');
  await expect(page.getByLabel('Source frame', { exact: true })).toHaveText('10.00');
  await seek(page, 35);
  await expect(page.getByLabel('Source frame', { exact: true })).toHaveText('10.00');

  // refused at the field
  await typeNumber(page, 'Speed, %', '99999');
  await expect(page.getByText(/Speed goes from -10000 to 10000/)).toBeVisible();

  // a clip that is too short for its speed says so and holds its last frame
  await addToShot(page, 'signal tower day');
  await seek(page, 0);
  await pass(page, 'Source').click();
  await page.getByLabel('Length follows the speed').uncheck();
  await expect(page.getByRole('note')).toHaveCount(0);
  await typeNumber(page, 'Speed, %', '300');
  await expect(page.getByRole('note')).toHaveText('The clip ends before the layer does; its last frame holds.');
  await seek(page, 60);
  await pictureShown(page);
  const late = await colourAt(page, 0.6, 0.4);
  await seek(page, 90);
  await pictureShown(page);
  expect(await colourAt(page, 0.6, 0.4)).toEqual(late);
});

test('a still is framed by stops; they are kept as stops, through other choices and a reload, until keyframes are asked for', async ({
  page,
}) => {
  await kiteShot(page);
  await typeNumber(page, 'Rotation', '10');
  await page.getByRole('button', { name: 'Framing', exact: true }).click();
  await page.getByRole('button', { name: 'Moves' }).click();
  await page.getByText('Slow push in').click();
  await page.getByRole('button', { name: /^Stop 2, frame/ }).press('Enter');
  const box = await middle(page.getByRole('button', { name: 'Size of stop 2' }));
  await drag(page, box, { x: box.x - 30, y: box.y });
  // a third one in the middle
  await page.getByRole('slider', { name: 'Playhead' }).focus();
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Stop here' }).click();
  await page.getByRole('button', { name: /^Stop 2, frame 10/ }).press('Shift+ArrowRight');
  await page.getByRole('button', { name: 'Done' }).click();
  const scale = async () => Number(await field(page, 'Scale width, %').inputValue());
  await page.keyboard.press('End');
  const end = await scale();
  expect(end).toBeGreaterThan(180);
  await page.keyboard.press('Home');
  const begin = await scale();
  expect(begin).toBeGreaterThan(145);
  expect(begin).toBeLessThan(160);
  await expect(field(page, 'Rotation, °')).toHaveValue('10');
  await expect(field(page, 'Scale width, %')).toBeDisabled();
  await expect(page.getByText(/^All kept/)).toBeVisible();
  await page.reload();
  await page.keyboard.press('p');
  expect(await scale()).toBe(begin);
  await page.getByRole('button', { name: 'Framing', exact: true }).click();
  await expect(page.getByRole('button', { name: /^Stop \d, frame/ })).toHaveCount(3);
  await page.getByRole('button', { name: 'Done' }).click();
  await page.getByRole('button', { name: 'As keyframes' }).click();
  await expect(field(page, 'Scale width, %')).toBeEnabled();
  expect(await scale()).toBe(begin);
  await page.keyboard.press('End');
  expect(await scale()).toBe(end);
});
