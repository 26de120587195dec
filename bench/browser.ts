// What a person feels, measured in the built application with the demo's heaviest shot.
import { spawn } from 'node:child_process';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from '../scripts/chromium';
import { choose, openFreshDemo } from '../tests/helpers';
import { pathRow } from './cutout';
import type { Row } from './kernels';
import { playbackRows } from './playback';
import { evaluationRow, timePanelRows } from './time';

const PORT = 4695;
const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
/** The range of sorted values without the outermost tenth on either side. */
const range = (values: number[], digits = 0) =>
  `${values[Math.floor(values.length * 0.1)]!.toFixed(digits)}–${values[Math.floor(values.length * 0.9)]!.toFixed(digits)}`;

export async function browserRows(): Promise<Row[]> {
  const server = spawn('node', ['--import', 'tsx', 'src/server/main.ts'], {
    env: { ...process.env, PORT: String(PORT) },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise((ready) => server.stdout.once('data', ready));
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage({ baseURL: `http://localhost:${PORT}`, viewport: { width: 1280, height: 800 } });
    // functions sent to the page carry a helper of the bundler's with them
    await page.addInitScript('globalThis.__name = (f) => f');
    const start = await startRows(page);
    await openFreshDemo(page);
    return [
      ...start,
      ...(await benchRows(page)),
      await renderRow(page),
      await pathRow(page),
      evaluationRow(),
      ...(await timePanelRows(page)),
      ...(await playbackRows(page)),
    ];
  } finally {
    await browser.close();
    server.kill();
  }
}

async function startRows(page: Page): Promise<Row[]> {
  let scripts = 0;
  const client = await page.context().newCDPSession(page);
  await client.send('Network.enable');
  const kinds = new Map<string, string>();
  client.on('Network.responseReceived', (event) => kinds.set(event.requestId, event.type));
  client.on('Network.loadingFinished', (event) => {
    if (kinds.get(event.requestId) === 'Script') scripts += event.encodedDataLength;
  });
  const begin = performance.now();
  await page.goto('/');
  await page.getByRole('button', { name: 'New project' }).click({ trial: true });
  const seconds = (performance.now() - begin) / 1000;
  return [
    {
      what: 'start: first load until a button can be pressed',
      goal: '≤ 2 s',
      got: `${seconds.toFixed(2)} s`,
      met: seconds <= 2,
    },
    {
      what: 'scripts of the first load, compressed',
      goal: '≤ 450 kB',
      got: `${Math.round(scripts / 1000)} kB`,
      met: scripts <= 450_000,
    },
  ];
}

/** Milliseconds from an input event until the viewer has drawn again, in the page's own clock. */
const untilDrawn = (page: Page, act: 'dial' | 'seek') =>
  page.evaluate(
    (what) =>
      new Promise<number>((done) => {
        const canvas = document.querySelector<HTMLCanvasElement>('canvas[role=img]')!;
        const observer = new MutationObserver(() => {
          observer.disconnect();
          done(performance.now() - begin);
        });
        observer.observe(canvas, { attributes: true, attributeFilter: ['data-drawn'] });
        const begin = performance.now();
        if (what === 'seek')
          document.body.dispatchEvent(
            new KeyboardEvent('keydown', { key: 'ArrowRight', code: 'ArrowRight', bubbles: true }),
          );
        else {
          const end = document.querySelector('[aria-label="Clear up to on the drawing"]')!;
          end.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
        }
      }),
    act,
  );

async function benchRows(page: Page): Promise<Row[]> {
  await choose(page, 'Preview scale', '½');
  await page.getByRole('button', { name: 'Colour key', exact: true }).click();
  const dials: number[] = [];
  for (let i = 0; i < 25; i++) dials.push(await untilDrawn(page, 'dial'));
  await page.keyboard.press('Control+z');
  await page.getByText('cached 120 of 120').waitFor({ timeout: 120_000 });
  const seeks: number[] = [];
  for (let i = 0; i < 40; i++) seeks.push(await untilDrawn(page, 'seek'));
  await page.keyboard.press('Home');
  await page.keyboard.press('Space');
  await page.waitForFunction(() => Number(document.querySelector('[aria-label=Frame]')!.textContent) > 100, undefined, {
    timeout: 30_000,
  });
  const state = await page.getByText(/^cached \d+ of/).innerText();
  await page.keyboard.press('Space');
  const dropped = Number(/dropped (\d+)/.exec(state)![1]);
  const turned = dials.slice(3);
  const [dial, seek] = [median(turned), median(seeks)];
  return [
    {
      what: 'one dial turned, Night ferry at ½: event → new picture, median (10th to 90th percentile)',
      goal: '≤ 80 ms',
      got: `${dial.toFixed(0)} (${range(turned)}) ms`,
      met: dial <= 80,
    },
    {
      what: 'seek to a cached frame → picture, median (10th to 90th percentile)',
      goal: '≤ 16 ms',
      got: `${seek.toFixed(1)} (${range(seeks, 1)}) ms`,
      met: seek <= 16,
    },
    { what: 'frames dropped while playing 100 cached frames', goal: '0', got: String(dropped), met: dropped === 0 },
  ];
}

/** A 720p render of the demo shot, against encoding as many frames of what the viewer shows, moving, and decoding that twice. */
async function renderRow(page: Page): Promise<Row> {
  await choose(page, 'Preview scale', 'full');
  await page.locator('canvas[data-frame][aria-busy=false][width="1280"]').waitFor();
  await page.getByRole('button', { name: 'Render…' }).click();
  await page.getByRole('combobox', { name: 'Format' }).press('Enter');
  await page.getByRole('option', { name: 'WebM, VP8 and Opus' }).click();
  const begin = performance.now();
  await page.getByRole('button', { name: 'Start' }).click();
  await page.getByText(/is written and checked: 120 frames/).waitFor({ timeout: 300_000 });
  const whole = performance.now() - begin;
  const alone = await page.evaluate(async () => {
    const shown = await createImageBitmap(document.querySelector<HTMLCanvasElement>('canvas[data-frame]')!);
    const still = new OffscreenCanvas(1280, 720).getContext('2d', { willReadFrequently: true })!;
    // the picture goes over its own border, two pixels a frame
    const pictures = Array.from({ length: 24 }, (_, i) => {
      still.drawImage(shown, -2 * i, 0);
      still.drawImage(shown, 1280 - 2 * i, 0);
      return still.getImageData(0, 0, 1280, 720).data;
    });
    const start = performance.now();
    const chunks: EncodedVideoChunk[] = [];
    const encoder = new VideoEncoder({ output: (chunk) => chunks.push(chunk), error: () => undefined });
    encoder.configure({ codec: 'vp8', width: 1280, height: 720, bitrate: 3_000_000 });
    for (let i = 0; i < 120; i++) {
      const frame = new VideoFrame(pictures[i % 24]!, {
        format: 'RGBX',
        codedWidth: 1280,
        codedHeight: 720,
        timestamp: i * 41_667,
      });
      encoder.encode(frame, { keyFrame: i % 48 === 0 });
      frame.close();
    }
    await encoder.flush();
    encoder.close();
    for (let clip = 0; clip < 2; clip++) {
      const decoder = new VideoDecoder({ output: (frame) => frame.close(), error: () => undefined });
      decoder.configure({ codec: 'vp8' });
      chunks.forEach((chunk) => decoder.decode(chunk));
      await decoder.flush();
      decoder.close();
    }
    return performance.now() - start;
  });
  const ratio = whole / alone;
  return {
    what: 'render of Night ferry, 720p, 120 frames, against decoding two clips and encoding alone',
    goal: '≤ 2.2 ×',
    got: `${ratio.toFixed(1)} ×`,
    met: ratio <= 2.2,
  };
}
