import { expect, type BrowserContext, type Page } from '@playwright/test';
import { layer, pass, pictureShown } from './helpers';

/** What a person sees of the document: a dial, and the layers in their order. */
interface Seen {
  state: string;
  kept: boolean;
}

/** Tells every change of what is seen, and whether it is said to be kept, until the tab dies. */
async function watch(page: Page, tell: (seen: Seen) => void): Promise<void> {
  await page.exposeFunction('seen', tell);
  await page.evaluate(() => {
    let last = '';
    const look = () => {
      const end = document.querySelector('[aria-label="Clear up to on the drawing"]');
      const dial = end?.getAttribute('aria-valuenow') ?? '';
      const layers = [...document.querySelectorAll('[aria-label^="Layer "][role=group]')]
        .map((row) => row.getAttribute('aria-label'))
        .join();
      const kept = /^All kept/.test(document.querySelector('.kept')?.textContent ?? '');
      const now = `${dial} ${layers} ${kept}`;
      if (now !== last && dial)
        (window as unknown as { seen(seen: Seen): void }).seen({ state: `${dial} ${layers}`, kept });
      last = now;
    };
    new MutationObserver(look).observe(document.body, {
      subtree: true,
      childList: true,
      attributes: true,
      characterData: true,
    });
    look();
  });
}

/** So many layers at most, so that all of them have rows. */
const MOST_LAYERS = 8;
const rows = (page: Page) => page.getByRole('group', { name: /^Layer / });

/** Works on the demo for a while: a dial typed and dragged, layers copied, undo and redo. */
async function work(page: Page, dice: () => number, until: () => boolean, begun: () => void): Promise<void> {
  const end = page.getByRole('slider', { name: 'Clear up to on the drawing' });
  const field = page.getByRole('textbox', { name: 'Clear up to, %' });
  while (!until()) {
    begun();
    const what = dice();
    if (what < 0.4) {
      await field.fill(String(Math.floor(dice() * 60)));
      await field.press('Enter');
    } else if (what < 0.6) {
      const box = (await end.boundingBox())!;
      await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
      await page.mouse.down();
      for (let i = 0; i < 12 && !until(); i++) await page.mouse.move(box.x + 150 * dice(), box.y + box.height / 2);
      await page.mouse.up();
    } else if (what < 0.75) await page.keyboard.press('Control+z');
    else if (what < 0.85) await page.keyboard.press('Control+Shift+z');
    else await page.keyboard.press(what < 0.95 && (await rows(page).count()) < MOST_LAYERS ? 'd' : 'Control+z');
  }
}

/**
 * Kills the tab at random moments of the work and opens the project anew: what is there is what was last shown as kept, or something
 * that was seen after it, or the outcome of what was being done in the instant of the kill. @returns the tab that is alive at the end
 */
export async function killAndReopen(
  context: BrowserContext,
  address: string,
  first: Page,
  kills: number,
  seed: number,
  tell: (told: number, rounds: number) => void = () => {},
): Promise<Page> {
  let tab = first;
  const dice = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  // a kill in the instant of an edit that nobody has seen says nothing, and does not count
  let told = 0;
  for (let round = 0; told < kills; round++) {
    expect(round, 'kills, most of which say nothing').toBeLessThan(4 * kills);
    await layer(tab, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
    await pass(tab, 'Colour key').click();
    let allowed: string[] = [];
    // the last thing that was begun has not been seen to have done anything
    let open = false;
    await watch(tab, ({ state, kept }) => {
      open = false;
      if (kept) allowed = [state];
      else allowed.push(state);
    });
    const end = performance.now() + 300 + dice() * 1500;
    await work(
      tab,
      dice,
      () => performance.now() > end,
      () => (open = true),
    ).catch(() => undefined);
    // the process is killed, not closed: no page event runs
    const client = await context.newCDPSession(tab);
    void client.send('Page.crash').catch(() => undefined);
    const known = [...allowed];
    const undecided = open;
    tab = await context.newPage();
    await tab.goto(address);
    await pictureShown(tab);
    await layer(tab, 'captain').getByRole('button', { name: 'captain', exact: true }).click();
    await pass(tab, 'Colour key').click();
    const found = await tab.evaluate(() => {
      const end = document.querySelector('[aria-label="Clear up to on the drawing"]')!;
      const dial = end.getAttribute('aria-valuenow')!;
      return `${dial} ${[...document.querySelectorAll('[aria-label^="Layer "][role=group]')].map((row) => row.getAttribute('aria-label')).join()}`;
    });
    if (undecided && ![...known, ...allowed].includes(found)) continue;
    expect([...known, ...allowed], `kill ${round + 1}`).toContain(found);
    told++;
    tell(told, round + 1);
  }
  return tab;
}
