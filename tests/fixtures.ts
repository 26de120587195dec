// One browser profile for all tests of a worker: each finds it empty, and the demo is unpacked only once.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, test as base, type BrowserContext, type Page } from '@playwright/test';
import { CHROMIUM } from '../scripts/chromium';
import { pictureShown, unpackDemo } from './helpers';

const [STORAGE, ASIDE] = ['jackplane', 'jackplane as the demo was opened'];
/** A page of the same origin that opens nothing. */
const STILL = '/health';

/** Fills one database with what another holds; with nothing, when that is not there. Runs in the page. */
async function refill([from, to]: readonly [string, string]): Promise<void> {
  const done = <T>(request: IDBRequest<T>) =>
    new Promise<T>((resolve, reject) => {
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error);
    });
  const names = (await indexedDB.databases()).map(({ name }) => name);
  if (!names.includes(from) && !names.includes(to)) return;
  const source = names.includes(from) ? await done(indexedDB.open(from)) : null;
  const stores = source ? [...source.objectStoreNames] : [];
  const held = source
    ? await Promise.all(stores.map((store) => done(source.transaction(store).objectStore(store).getAll())))
    : [];
  const opening = indexedDB.open(to);
  opening.onupgradeneeded = () => {
    for (const store of stores) {
      const { keyPath } = source!.transaction(store).objectStore(store);
      opening.result.createObjectStore(store, { keyPath });
    }
  };
  const target = await done(opening);
  const writing = target.transaction([...target.objectStoreNames], 'readwrite');
  for (const store of target.objectStoreNames) writing.objectStore(store).clear();
  stores.forEach((store, i) => held[i]!.forEach((record) => writing.objectStore(store).put(record)));
  await new Promise((resolve) => (writing.oncomplete = resolve));
  source?.close();
  target.close();
}

export const test = base.extend<object, { profile: BrowserContext }>({
  profile: [
    async ({}, use, { project, parallelIndex }) => {
      // a profile on disk keeps the scripts compiled from page to page
      const folder = mkdtempSync(join(tmpdir(), `profile-${parallelIndex}-`));
      const { baseURL, viewport } = project.use;
      const settings = { baseURL: baseURL!, viewport: viewport!, reducedMotion: 'reduce' as const };
      const profile = await chromium.launchPersistentContext(folder, { ...CHROMIUM, ...settings });
      await use(profile);
      await profile.close();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  context: ({ profile }, use) => use(profile),
  page: async ({ profile }, use) => {
    const page = await profile.newPage();
    await page.goto(STILL);
    await page.evaluate(refill, ['nothing', STORAGE] as const);
    await page.evaluate(() => {
      localStorage.clear();
      // frames ahead are for people who will play them
      localStorage.setItem('jackplane frames ahead', 'false');
    });
    await use(page);
    for (const left of profile.pages()) await left.close();
  },
});

/** Where the demo is in a profile, once it has been set aside there. */
const addresses = new WeakMap<BrowserContext, string>();

/** The demo's project, as it is when it has just been opened, on the bench. */
export async function openDemo(page: Page): Promise<void> {
  const known = addresses.get(page.context());
  if (known) {
    await page.goto(STILL);
    await page.evaluate(refill, [ASIDE, STORAGE] as const);
    await page.goto(known);
  } else {
    const link = await unpackDemo(page);
    await page.evaluate(refill, [STORAGE, ASIDE] as const);
    await link.click();
    await page.waitForURL('**/project/**');
    addresses.set(page.context(), new URL(page.url()).pathname);
  }
  await pictureShown(page);
}
