// Playing: what is ready, what is not, and what does not fit, at the sizes that people have.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { newLayer, newSource, stockSource } from '../src/core/document/edits/layers';
import { newPass } from '../src/core/document/edits/passes';
import { newProject, newShot } from '../src/core/document/edits/project';
import type { Layer, LayerId, PassId, Project, ProjectId, ShotId, StockId } from '../src/core/document/schema';
import { still } from '../src/core/base/value';
import { writeProjectFile } from '../src/core/formats/project-file';
import { choose } from '../tests/helpers';
import type { Row } from './kernels';

const MEDIA = join(import.meta.dirname, '../demo/media');
const RATE = { num: 24, den: 1 };

/** A shot of ten layers: two clips, one of them keyed, a still, and seven moving cards. */
function project(width: number, height: number, length: number, layers: number): Project {
  const out = newProject(`playback-${width}` as ProjectId, `Playback ${width} ${length}`, '2026-01-12T18:30:00.000Z');
  const clip = { rate: RATE, width: 1280, height: 720, alpha: false, bytes: 1 };
  out.stock.push(
    {
      id: 'deck' as StockId,
      name: 'deck',
      file: 'deck.webm',
      kind: 'video',
      facts: { ...clip, seconds: 6, codec: 'vp9' },
      line: [],
    },
    {
      id: 'captain' as StockId,
      name: 'captain',
      file: 'captain.mp4',
      kind: 'video',
      facts: { ...clip, seconds: 5, codec: 'avc' },
      line: [],
    },
    {
      id: 'rail' as StockId,
      name: 'rail',
      file: 'rail.png',
      kind: 'image',
      facts: { width: 1280, height: 720, alpha: true, codec: 'PNG', bytes: 1 },
      line: [],
    },
  );
  const of = (id: string, stock: string): Layer =>
    newLayer(`${id}-layer` as LayerId, id, stockSource(stock as StockId), { start: 0, length });
  const key = newPass('key' as PassId, 'colour-key');
  const card = (i: number): Layer => {
    const layer = newLayer(
      `card-${i}` as LayerId,
      `card ${i}`,
      newSource('colour', { colour: [0.1 * i, 0.3, 0.5], size: [120, 80] }),
      { start: 0, length },
    );
    layer.place.position = {
      keys: [
        { at: 0, value: [-500, -300 + 90 * i], ease: 'linear' },
        { at: length, value: [500, -300 + 90 * i], ease: 'linear' },
      ],
    };
    return layer;
  };
  const all = [
    ...Array.from({ length: 7 }, (_, i) => card(i)),
    of('rail', 'rail'),
    {
      ...of('captain', 'captain'),
      passes: [{ ...key, values: { ...key.values, screen: still([[0.302, 0.659, 0.353]]) } }],
    },
    of('deck', 'deck'),
  ];
  out.shots.push({
    ...newShot('shot' as ShotId, {
      name: 'Playback',
      width,
      height,
      rate: RATE,
      length,
      background: [0, 0, 0],
      light: 'display',
    }),
    layers: all.slice(-layers),
  });
  return out;
}

async function openProject(page: Page, made: Project): Promise<void> {
  const media = new Map(
    Object.entries({ deck: 'ferry-deck-night.webm', captain: 'captain-even.mp4', rail: 'card-rail.png' }).map(
      ([id, file]) => [id, new Blob([new Uint8Array(readFileSync(join(MEDIA, file)))])],
    ),
  );
  const file = await writeProjectFile(made, media);
  await page.goto('/');
  await page.getByLabel('Project file').setInputFiles({
    name: 'playback.jackplane',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(await file.arrayBuffer()),
  });
  await page.getByRole('link', { name: `Open ${made.name}`, exact: true }).click({ timeout: 60_000 });
  await page.waitForFunction(() => document.querySelector('canvas[role=img][data-drawn]'));
}
const state = async (page: Page) => {
  const text = (await page.getByText(/^cached \d+ of/).textContent()) ?? '';
  const [cached, of, dropped] = (text.match(/\d+/g) ?? []).map(Number);
  return { cached: cached!, of: of!, dropped: dropped! };
};
/** Waits until what is ready grows no more. */
async function settled(page: Page): Promise<void> {
  for (let last = -1, same = 0; same < 8;) {
    const { cached, of } = await state(page);
    if (cached === of) return;
    same = cached === last ? same + 1 : 0;
    last = cached;
    await page.waitForTimeout(1000);
  }
}
/** Plays for some seconds. @returns frames shown and dropped, and how long the first one took */
async function played(page: Page, seconds: number) {
  const first = page.evaluate(
    () =>
      new Promise<number>((done) => {
        const canvas = document.querySelector<HTMLCanvasElement>('canvas[role=img]')!;
        const begin = performance.now();
        const observer = new MutationObserver(() => {
          observer.disconnect();
          done(performance.now() - begin);
        });
        observer.observe(canvas, { attributes: true, attributeFilter: ['data-drawn'] });
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', bubbles: true }));
      }),
  );
  const drawn = async () => Number(await page.locator('canvas[role=img]').getAttribute('data-drawn'));
  const before = await drawn();
  await page.waitForTimeout(seconds * 1000);
  const [after, { dropped }] = [await drawn(), await state(page)];
  return { first: await first, shown: after - before, dropped };
}
/** Whatever has the focus, Space goes to the page. */
const stop = (page: Page) =>
  page.evaluate(
    () => void document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', bubbles: true })),
  );

export async function playbackRows(page: Page): Promise<Row[]> {
  await openProject(page, project(1280, 720, 240, 10));
  await choose(page, 'Preview scale', '½');
  const cold = await played(page, 10);
  await stop(page);
  await settled(page);
  await page.keyboard.press('Home');
  const warm = await played(page, 10);
  await stop(page);
  await openProject(page, project(1920, 1080, 120, 3));
  await choose(page, 'Preview scale', 'full');
  await settled(page);
  const { cached, of } = await state(page);
  await page.keyboard.press('Home');
  const first = await played(page, 6);
  await page.waitForTimeout(10_000);
  const { dropped } = await state(page);
  await stop(page);
  const row = (what: string, goal: string, got: string, met: boolean): Row => ({ what, goal, got, met });
  return [
    row('240 frames, 720p at ½, ten layers, all ready: dropped in 10 s', '0', String(warm.dropped), warm.dropped === 0),
    row(
      'the same, nothing ready: first frame after Play',
      '≤ 1 s',
      `${(cold.first / 1000).toFixed(2)} s`,
      cold.first <= 1000,
    ),
    row('the same, nothing ready: frames shown a second', '≥ 4', (cold.shown / 10).toFixed(1), cold.shown / 10 >= 4),
    row(
      `1080p at full size, 120 frames looping, ${cached} of ${of} ready: dropped after the first loop`,
      '0 where they fit',
      String(dropped - first.dropped),
      cached < of || dropped === first.dropped,
    ),
  ];
}
