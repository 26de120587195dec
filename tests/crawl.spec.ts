// Every view, dialog, menu, tool and panel, from a full and from an empty project, looked at as a user meets it.
import { expect, type Page } from '@playwright/test';
import { Crawl } from './audit';
import { openDemo, test } from './fixtures';
import { complaints, importFiles, layer, makeShot, newProject, openShot, pass, pictureShown } from './helpers';

const SIZES = [
  { width: 1280, height: 800, look: 'evening' },
  { width: 1024, height: 700, look: 'daylight' },
] as const;
const DIALS = 'section[aria-label=Dials]';

async function fullProject(page: Page, crawl: Crawl, narrow: boolean): Promise<void> {
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Open the demo' })).toBeVisible();
  await crawl.lookClosely('no projects');
  await openDemo(page);
  await crawl.lookClosely('bench');
  const menu = (where: string, name: string | RegExp) =>
    crawl.overlay(where, () =>
      page
        .getByRole('button', { name, exact: typeof name === 'string' })
        .first()
        .click(),
    );
  await menu('shot menu', /^Shot: /);
  await crawl.overlay('new shot', async () => {
    await page.getByRole('button', { name: /^Shot: / }).click();
    await page.getByText('New shot…').click();
    await expect(page.getByRole('dialog', { name: 'New shot' })).toBeVisible();
  });
  await crawl.overlay('shot settings', async () => {
    await page.getByRole('button', { name: /^Shot: / }).click();
    await page.getByText('Shot settings…').click();
    await expect(page.getByRole('dialog', { name: 'Shot settings' })).toBeVisible();
  });
  await menu('history', 'History');
  await crawl.overlay(
    'render',
    () => page.getByRole('button', { name: 'Render…' }).click(),
    () => crawl.axe('render', '[role=dialog]'),
  );
  await crawl.overlay('shortcuts', () => page.getByRole('button', { name: 'Shortcuts' }).click());
  await menu('layer menu', /^Layer ▾/);
  await menu('add a pass', 'Add a pass');
  await page.getByRole('region', { name: 'Stock' }).getByRole('listitem').first().hover();
  await menu('stock menu', /^More for /);
  await menu('make something', /^\+ make something/);
  await page.getByRole('tab', { name: 'Library' }).click();
  await crawl.look('library');
  await page.getByRole('tab', { name: 'Stock' }).click();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('green');
  await crawl.look('search', '.search');
  await page.keyboard.press('Escape');
  // what the narrow window squeezes is above and in the dials; the rest is looked at once
  for (const view of narrow ? [] : ['Matte', 'Relief', 'Before | After', 'Layer alone', 'Picture']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    await crawl.look(`view ${view}`);
  }
  for (const tile of ['Source', 'Colour key', 'Wheels', 'Place']) {
    await pass(page, tile).click();
    await crawl.look(`dials of ${tile}`);
    if (tile === 'Source' || tile === 'Place') await crawl.axe(`dials of ${tile}`, DIALS);
  }
  for (const made of ['Gradient', 'Adjustment']) {
    await page.getByRole('button', { name: /^\+ make something/ }).click();
    await page.locator('.v-list-item').getByText(made, { exact: true }).click();
    await crawl.look(`dials of ${made}`);
    await page.keyboard.press('Control+z');
  }
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await pass(page, 'Place').click();
  await page.getByRole('button', { name: 'Framing', exact: true }).click();
  await crawl.look('framing');
  await page.getByRole('button', { name: 'Done' }).click();
  await page
    .getByRole('region', { name: 'Dials' })
    .getByRole('button', { name: /^Masks/ })
    .click();
  await crawl.look('masks');
  await crawl.axe('masks', DIALS);
  if (!narrow) await timeAndTools(page, crawl);
  await views(page, crawl);
}

async function timeAndTools(page: Page, crawl: Crawl): Promise<void> {
  await openShot(page, 'Signal tower');
  await layer(page, 'kite').getByRole('button', { name: 'kite', exact: true }).click();
  await page.getByRole('button', { name: 'Grow the rows of the layer into curves' }).click();
  await crawl.look('curves');
  await crawl.axe('curves', 'section[aria-label=Time]');
  await page.getByRole('button', { name: 'Grow the rows of the layer into curves' }).click();
  await page
    .getByRole('button', { name: /^Keyframe of Position at/ })
    .first()
    .click();
  await crawl.look('keyframes');
  await openShot(page, 'Title card');
  await layer(page, 'crane arm').getByRole('button', { name: 'crane arm', exact: true }).click();
  await page.keyboard.press('a');
  await crawl.look('path tool');
}

async function views(page: Page, crawl: Crawl): Promise<void> {
  for (const view of ['Renders', 'Guide', 'Projects']) {
    await page.getByRole('link', { name: view, exact: true }).first().click();
    await expect(
      page
        .getByRole('heading', { name: view })
        .or(page.getByRole('link', { name: view }))
        .first(),
    ).toBeVisible();
    await crawl.lookClosely(view);
  }
  await crawl.overlay('new project', () => page.getByRole('button', { name: 'New project' }).click());
  await crawl.overlay('delete project', () => page.getByRole('button', { name: 'Delete Paper Harbour' }).click());
  crawl.end();
}

for (const { look, ...size } of SIZES) {
  test(`a full project at ${size.width}×${size.height} in the ${look} look`, async ({ page }) => {
    test.setTimeout(240_000);
    const said = complaints(page);
    await page.addInitScript((name) => localStorage.setItem('jackplane look', name), look);
    await page.setViewportSize(size);
    // the looks differ in their colours alone
    await fullProject(page, new Crawl(page, look === 'daylight' ? ['color-contrast'] : null), look === 'daylight');
    expect(said).toEqual([]);
  });

  test(`an empty project at ${size.width}×${size.height}`, async ({ page }) => {
    const said = complaints(page);
    const crawl = new Crawl(page);
    await page.setViewportSize(size);
    await page.goto('/');
    await crawl.look('no projects');
    await newProject(page, 'Empty');
    await crawl.look('first shot');
    await makeShot(page);
    await crawl.look('empty shot');
    await crawl.overlay('new shot', async () => {
      await page.getByRole('button', { name: /^Shot: / }).click();
      await page.getByText('New shot…').click();
    });
    await crawl.overlay('render', () => page.getByRole('button', { name: 'Render…' }).click());
    await page.keyboard.press('Control+k');
    await crawl.look('search', '.search');
    await page.keyboard.press('Escape');
    // a clip of another size and rate asks what should follow
    await importFiles(page, 'captain-even.mp4');
    await expect(page.getByRole('region', { name: 'Stock' }).getByRole('listitem')).toHaveCount(1);
    await page.getByRole('button', { name: /^Shot: / }).click();
    await page.getByText('Shot settings…').click();
    await page.getByLabel('Width, px').fill('640');
    await page.getByRole('button', { name: 'Change it' }).click();
    await page.getByRole('region', { name: 'Stock' }).getByRole('listitem').first().hover();
    await crawl.overlay('the clip differs', () => page.getByRole('button', { name: /^Add .* to the shot$/ }).click());
    await crawl.look('one clip');
    crawl.end();
    expect(said).toEqual([]);
  });
}

test('with text at twice its size everything can still be reached', async ({ page }) => {
  test.setTimeout(240_000);
  await page.addInitScript(() =>
    document.addEventListener('DOMContentLoaded', () => (document.documentElement.style.fontSize = '32px')),
  );
  await page.setViewportSize({ width: 1280, height: 800 });
  const crawl = new Crawl(page);
  await page.goto('/');
  await crawl.look('no projects');
  await openDemo(page);
  await crawl.look('bench');
  await crawl.overlay('shot settings', async () => {
    await page.getByRole('button', { name: /^Shot: / }).click();
    await page.getByText('Shot settings…').click();
  });
  await crawl.overlay('render', () => page.getByRole('button', { name: 'Render…' }).click());
  await pass(page, 'Place').click();
  await crawl.look('dials of Place');
  crawl.end();
});

test('the bench is worked by keyboard alone', async ({ page }) => {
  await openDemo(page);
  const focused = () => page.evaluate(() => document.activeElement?.closest('section')?.getAttribute('aria-label'));
  // from panel to panel
  for (const panel of ['Stock', 'Viewer', 'Passes', 'Dials', 'Time', 'Stock']) {
    await page.keyboard.press('F6');
    expect(await focused()).toBe(panel);
  }
  await page.keyboard.press('Shift+F6');
  expect(await focused()).toBe('Time');
  // bars and their ends
  const bar = page.getByRole('group', { name: /^Bar of card rail/ });
  await bar.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('slider', { name: 'Start of card rail' })).toHaveAttribute('aria-valuenow', '10');
  await page.getByRole('slider', { name: 'Start of card rail' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('slider', { name: 'Start of card rail' })).toHaveAttribute('aria-valuenow', '11');
  await page.getByRole('slider', { name: 'End of card rail' }).focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.getByRole('slider', { name: 'End of card rail' })).toHaveAttribute('aria-valuenow', '119');
  // in and out, markers
  await page.keyboard.press('i');
  await page.getByRole('slider', { name: 'In point' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('slider', { name: 'In point' })).toHaveAttribute('aria-valuenow', '10');
  await page.keyboard.press('n');
  await page.getByRole('button', { name: /^Marker without a name at 0/ }).focus();
  await page.keyboard.press('ArrowRight');
  const moved = page.getByRole('button', { name: /^Marker without a name at 1$/ });
  await expect(moved).toBeFocused();
  // Delete on a marker takes the marker and leaves the layer
  await page.keyboard.press('Delete');
  await expect(moved).toHaveCount(0);
  await expect(layer(page, 'card rail')).toBeVisible();
  // place handles, dividers
  await layer(page, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
  await page.keyboard.press('p');
  await pictureShown(page);
  await page.getByRole('button', { name: /^Layer on the picture/ }).focus();
  const x = Number(await page.getByRole('textbox', { name: 'Position x' }).inputValue());
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('textbox', { name: 'Position x' })).toHaveValue(String(x + 10));
  const divider = page.getByRole('separator', { name: 'Width of the dials' });
  const width = async () => (await page.getByRole('region', { name: 'Dials' }).boundingBox())!.width;
  const before = await width();
  await divider.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(width).toBeGreaterThan(before);
});
