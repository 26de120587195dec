// Encodes frames in headless Chromium, and decodes the file again for the truth frames.
import { createServer } from 'node:http';
import { readFile } from 'node:fs/promises';
import type { AddressInfo } from 'node:net';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from '../scripts/chromium';

export interface Job {
  container: 'mp4' | 'webm';
  codec: 'avc' | 'vp9';
  width: number;
  height: number;
  rate: number;
  frames: number;
  bitrate: number;
  alpha?: boolean;
}

const PAGE = `<!doctype html><script type="module">
import * as mb from '/mediabunny.mjs';
window.run = async (job, wanted) => {
  const target = new mb.BufferTarget();
  const output = new mb.Output({ format: job.container === 'mp4' ? new mb.Mp4OutputFormat() : new mb.WebMOutputFormat(), target });
  const source = new mb.VideoSampleSource({ codec: job.codec, bitrate: job.bitrate, keyFrameInterval: 2, alpha: job.alpha ? 'keep' : 'discard' });
  output.addVideoTrack(source, { frameRate: job.rate });
  await output.start();
  for (let i = 0; i < job.frames; i++) {
    const data = new Uint8Array(await (await fetch('/frame/' + i)).arrayBuffer());
    const sample = new mb.VideoSample(data, { format: 'RGBA', codedWidth: job.width, codedHeight: job.height, timestamp: i / job.rate, duration: 1 / job.rate });
    await source.add(sample);
    sample.close();
  }
  await output.finalize();
  await fetch('/out', { method: 'PUT', body: target.buffer });
  const input = new mb.Input({ source: new mb.BufferSource(target.buffer), formats: mb.ALL_FORMATS });
  const sink = new mb.VideoSampleSink(await input.getPrimaryVideoTrack());
  for (const index of wanted) {
    const sample = await sink.getSample((index + 0.5) / job.rate);
    const bytes = new Uint8Array(sample.allocationSize({ format: 'RGBA' }));
    await sample.copyTo(bytes, { format: 'RGBA' });
    sample.close();
    await fetch('/decoded/' + index, { method: 'PUT', body: bytes });
  }
};
</script>`;

/**
 * Opens a page in headless Chromium that has mediabunny at hand, fetches frames from `/frame/N`, and puts what it makes to `/out` and
 * `/decoded/N`. @param frame straight RGBA of a frame @param work with the page, once it has said that it is ready
 */
export async function inBrowser<T>(
  html: string,
  frame: (index: number) => Uint8ClampedArray,
  work: (page: Page, sent: { out: () => Buffer; decoded: ReadonlyMap<number, Buffer> }) => Promise<T>,
): Promise<T> {
  const library = await readFile(new URL('../node_modules/mediabunny/dist/bundles/mediabunny.mjs', import.meta.url));
  let file: Buffer = Buffer.alloc(0);
  const decoded = new Map<number, Buffer>();
  const server = createServer((request, response) => {
    const [, what, index] = request.url!.split('/');
    if (request.method === 'PUT') {
      const chunks: Buffer[] = [];
      request.on('data', (chunk: Buffer) => chunks.push(chunk));
      request.on('end', () => {
        if (what === 'out') file = Buffer.concat(chunks);
        else decoded.set(Number(index), Buffer.concat(chunks));
        response.end();
      });
    } else if (what === 'frame') response.end(Buffer.from(frame(Number(index)).buffer));
    else if (what === 'mediabunny.mjs') response.setHeader('content-type', 'text/javascript').end(library);
    else response.setHeader('content-type', 'text/html').end(html);
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await browser.newPage();
    page.setDefaultTimeout(0);
    await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
    await page.waitForFunction('window.run');
    return await work(page, { out: () => file, decoded });
  } finally {
    await browser.close();
    server.close();
  }
}

/**
 * @param frame straight RGBA of a frame
 * @param wanted frames to decode again @returns the file and the decoded frames
 */
export const encode = (
  job: Job,
  frame: (index: number) => Uint8ClampedArray,
  wanted: readonly number[] = [],
): Promise<{ file: Buffer; decoded: ReadonlyMap<number, Buffer> }> =>
  inBrowser(PAGE, frame, async (page, { out, decoded }) => {
    await page.evaluate(`window.run(${JSON.stringify(job)}, ${JSON.stringify(wanted)})`);
    return { file: out(), decoded };
  });
