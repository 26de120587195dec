// What people wish for, in their words, and what has to be found for it. The wishes were written before any list of words was looked at.
import { expect, type Page } from '@playwright/test';
import { openDemo, test } from './fixtures';
import { colourAt, layer, pass, pictureShown } from './helpers';

const WISHES: readonly (readonly [wish: string, found: RegExp])[] = [
  ['make it slower', /^Speed/],
  ['slow motion', /^Speed/],
  ['stop the shaking', /^Steady/],
  ['shaky camera', /^(Shake|Steady)/],
  ['border', /^Outline/],
  ['copy this look', /^Copy its grade/],
  ['remove green', /^Colour key/],
  ['get rid of the background', /^(Colour key|Smart selection|Difference key)/],
  ['cut out a person', /^(Smart selection|Colour key)/],
  ['black and white', /^(Colour|Silver)/],
  ['warmer', /^(Balance|Colour|Tint)/],
  ['darker', /^Tone/],
  ['too bright', /^Tone/],
  ['drop shadow', /^Drop shadow/],
  ['freeze frame', /^Freeze from here/],
  ['stop the clip here', /^Freeze from here/],
  ['play backwards', /^Play backwards/],
  ['reverse', /^Play backwards/],
  ['fade in', /^Fade in/],
  ['fade out to nothing', /^Fade out/],
  ['marker', /^Marker at the playhead/],
  ['stick it to something that moves', /^(Tracks|Follow)/],
  ['follow an object', /^(Follow|Tracks)/],
  ['zoom in slowly on a photo', /^Framing/],
  ['pan over a still', /^Framing/],
  ['picture in picture', /^(Scale|Place)/],
  ['old film', /^(Dust and scratches|Grain|Faded print)/],
  ['flip it', /^Flip/],
  ['mirror', /^Flip/],
  ['rotate', /^Rotation/],
  ['make it see-through', /^Opacity/],
  ['transparent', /^Opacity/],
  ['export', /^Render/],
  ['save the video', /^Render/],
  ['take a screenshot', /^Pin this frame/],
  ['undo', /^Undo/],
  ['cut the clip', /^Split/],
  ['delete layer', /^Delete/],
  ['duplicate', /^(Duplicate|Copy)/],
  ['put layers together', /^Group/],
  ['circle', /^(Ellipse|Radial gradient) mask/],
  ['hide part of the picture', /mask|^Crop/i],
  ['draw a shape around it', /^(Path by points|Freehand path) mask/],
  ['motion blur', /^Motion blur/],
  ['ghost trail', /^(Trail|Afterimages)/],
  ['vignette', /^Vignette/],
  ['sharpen', /^Sharpen/],
  ['white balance', /^Balance/],
  ['skin too red', /^(Colour range|Balance|Hue curves)/],
  ['match the colours', /^(Match|Balance)/],
  ['histogram', /^Show scopes/],
  ['lut', /^(Table|Looks)/],
  ['loop', /^Loop/],
  ['louder', /^Level/],
  ['mute', /^Mute/],
  ['cut off the edges', /^Crop/],
  ['clean up the edge of the key', /^(Refine edge|Colour key)/],
  ['plain colour background', /^(Solid|Colour|Plain)/],
  ['keyboard shortcuts', /^List of shortcuts/],
  ['start a new shot', /^New shot/],
];

async function found(page: Page, wish: string): Promise<string[]> {
  await page.getByRole('combobox', { name: 'Search' }).fill(wish);
  return page.getByRole('listbox', { name: 'Found' }).getByRole('option').locator('strong').allTextContents();
}

test('sixty wishes find what does them', async ({ page }) => {
  await openDemo(page);
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await pictureShown(page);
  await page.keyboard.press('Control+k');
  expect(WISHES).toHaveLength(60);
  const missed: string[] = [];
  let first = 0;
  for (const [wish, title] of WISHES) {
    const titles = await found(page, wish);
    if (titles[0] && title.test(titles[0])) first++;
    if (!titles.slice(0, 3).some((one) => title.test(one))) missed.push(`${wish}: ${titles.slice(0, 3).join(', ')}`);
  }
  console.log(`${first} of 60 are first`);
  expect(missed).toEqual([]);
});

test('what is found is done: a dial, a fade, a look; a pass is only tried until it is chosen', async ({ page }) => {
  await openDemo(page);
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await pictureShown(page);
  const search = async (wish: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Search' }).fill(wish);
  };
  const wish = async (text: string) => {
    await search(text);
    await page.keyboard.press('Enter');
  };
  const middle = () => colourAt(page, 0.5, 0.5);
  const ready = async () => Number(/^cached (\d+)/.exec(await page.getByText(/^cached \d+ of 120/).innerText())![1]);
  await page.getByRole('button', { name: 'Frames are computed only when they are shown' }).click();
  await expect.poll(ready).toBeGreaterThan(10);

  // a highlighted pass shows on the picture, and what is ready stays ready
  const plain = await middle();
  await search('vignette');
  await expect.poll(async () => (await colourAt(page, 0.02, 0.03)).join()).not.toBe((await middle()).join());
  const before = await ready();
  await search('blur');
  await expect.poll(middle).not.toEqual(plain);
  expect(await ready()).toBeGreaterThanOrEqual(before);
  await page.keyboard.press('Escape');
  await expect.poll(middle).toEqual(plain);
  expect(await ready()).toBeGreaterThanOrEqual(before);

  await wish('transparent');
  await expect(page.getByRole('textbox', { name: 'Opacity, %' })).toBeFocused();
  await page.keyboard.press('Escape');
  await wish('fade in');
  await expect(page.getByRole('slider', { name: 'Fade in of captain' })).toHaveAttribute('aria-valuenow', '12');
  await wish('sunset');
  await expect(pass(page, 'Balance')).toBeVisible();
  await wish('softness drop shadow');
  await expect(pass(page, 'Drop shadow')).toBeVisible();
  await expect(page.getByRole('textbox', { name: /^Softness/ })).toBeFocused();
});
