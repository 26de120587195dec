// Files of every wrong kind: each is answered in a sentence that names it, and the rest goes on.
import { expect } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { encodePng } from '../src/core/formats/png';
import { openDemo, test } from './fixtures';
import { addToShot, asFile, colourAt, cut, drawn, importFiles, layer, makeShot, media, newProject } from './helpers';

/** A small PNG whose header claims an enormous size. */
function hugePng(): Buffer {
  const png = Buffer.from(encodePng(new Uint8Array(4), 1, 1));
  png.writeUInt32BE(60000, 16);
  png.writeUInt32BE(60000, 20);
  return png;
}

test('media', async ({ page }) => {
  await newProject(page, 'Trouble');
  await makeShot(page);
  await importFiles(
    page,
    asFile('empty.mp4', Buffer.alloc(0)),
    asFile('notes.mov', Buffer.from('these are only notes, whatever the name says')),
    asFile('cut.png', cut('card-rail.png', 0.02).subarray(0, 60)),
    asFile('huge.png', hugePng()),
    asFile('half.mp4', cut('captain-even.mp4', 0.4)),
    asFile('really-a-png.mp4', cut('paper-kite.png', 1)),
    'lantern-glow.png',
  );
  const stock = page.getByRole('region', { name: 'Stock' });
  await expect(stock.getByText('“empty.mp4” is empty (0 bytes).')).toBeVisible();
  await expect(stock.getByText('“notes.mov” is not a kind of file that Jackplane opens')).toBeVisible();
  await expect(stock.getByText(/“cut.png” is damaged or cut off/)).toBeVisible();
  await expect(stock.getByText('“huge.png” is 60000×60000 pixels')).toBeVisible();
  await expect(stock.getByText(/“half.mp4” is (damaged or cut off|not a kind of file)/)).toBeVisible();
  // content counts, not the name; and what is fine arrives all the same
  await expect(stock.getByRole('listitem')).toHaveCount(2);
  await addToShot(page, 'really a png');
  await expect.poll(async () => (await colourAt(page, 0.5, 0.4)).slice(0, 3).some((v) => v > 60)).toBe(true);
  await stock.getByRole('button', { name: 'Close' }).first().click();
  await expect(stock.getByText('“empty.mp4” is empty')).toHaveCount(0);
});

test('project files; a full storage is said, and what was there stays', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('link', { name: 'Projects' }).click();
  const open = (name: string, bytes: Uint8Array) =>
    page.getByLabel('Project file').setInputFiles(asFile(name, Buffer.from(bytes)));
  const cases: [string, Uint8Array, RegExp][] = [
    ['a.jackplane', strToU8('hello'), /“a\.jackplane” is not a project file: it is not a zip/],
    [
      'b.jackplane',
      zipSync({ 'project.json': strToU8('{"format":1,"name":5}') }),
      /“b\.jackplane” does not follow the project format/,
    ],
    [
      'c.jackplane',
      zipSync({ 'project.json': strToU8('{"format":7}') }),
      /“c\.jackplane” was written by a newer Jackplane/,
    ],
    ['d.jackplane', zipSync({ '../up': strToU8('x') }), /“d\.jackplane” holds a path that leads out of it/],
    [
      'e.jackplane',
      zipSync({ 'project.json': [new Uint8Array(70e6), { level: 9 }] }),
      /“e\.jackplane” unpacks to more than 64 MB/,
    ],
  ];
  for (const [name, bytes, sentence] of cases) {
    await open(name, bytes);
    await expect(page.getByRole('status').getByText(sentence)).toBeVisible();
  }
  await page.getByRole('link', { name: 'Open Paper Harbour' }).click();
  await expect(layer(page, 'captain')).toBeVisible();

  // a full storage
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await importFiles(page, 'paper-kite.png');
  await expect(page.getByText('“paper-kite.png” could not be stored: the storage is full.')).toBeVisible();
  await page.getByRole('button', { name: 'Hide captain', exact: true }).click();
  await expect(page.getByText('The last edit could not be kept: the storage is full.')).toBeVisible();
  await expect(page.getByText('Not kept')).toBeVisible();
  await page.reload();
  await expect(layer(page, 'captain')).toBeVisible();
});

test('missing media is a named placeholder that can be linked again', async ({ page }) => {
  await newProject(page, 'Half');
  await makeShot(page, { width: 420, height: 560 });
  await importFiles(page, 'paper-kite.png');
  await addToShot(page, 'paper kite');
  // take the media out of the browser's storage behind the page's back
  await page.evaluate(async () => {
    const request = indexedDB.open('jackplane');
    const db = await new Promise<IDBDatabase>((done) => (request.onsuccess = () => done(request.result)));
    const tx = db.transaction('media', 'readwrite');
    tx.objectStore('media').clear();
    await new Promise((done) => (tx.oncomplete = done));
    db.close();
  });
  await page.reload();
  await expect(page.getByText('paper kite: media missing')).toBeVisible();
  await expect(
    page.getByText('The media of “paper kite” is missing. Link it again from the stock list.'),
  ).toBeVisible();
  const before = await drawn(page);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Link…' }).click(),
  ]);
  await chooser.setFiles(media('paper-kite.png'));
  await expect(page.getByText('media missing')).toHaveCount(0);
  await expect.poll(() => drawn(page)).toBeGreaterThan(before);
  await expect.poll(async () => (await colourAt(page, 0.4, 0.45))[0]! > 150).toBe(true);
});

test('a browser without WebCodecs is told what it lacks', async ({ page }) => {
  await page.addInitScript(() => Reflect.deleteProperty(globalThis, 'VideoDecoder'));
  await page.goto('/');
  await expect(page.getByText('This browser has no WebCodecs')).toBeVisible();
});
