// Scenes as a camera's file gives them: encoded by the browser, decoded again, and converted as the application does it.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { inBrowser } from '../demo/encode';
import { rgbaOf } from '../src/core/picture/fetched';
import type { TestRig } from '../src/core/testing/rig';
import type { TruthFrame } from '../src/core/testing/key-truth';
import { sceneOf, SIZE, type Traits } from '../src/core/testing/plates/scene';

/** Raised when scenes change, so that what was kept of them is made anew. */
const EDITION = 2;
const KEPT = join(import.meta.dirname, '../build/plates');
const RATE = 24;

export interface CodedPlate {
  seed: number;
  traits: Traits;
  frames: TruthFrame[];
}

const PAGE = `<!doctype html><script type="module">
import * as mb from '/mediabunny.mjs';
window.run = async ({ codec, bitrate, count, w, h, rate }) => {
  const target = new mb.BufferTarget();
  const output = new mb.Output({ format: codec === 'avc' ? new mb.Mp4OutputFormat() : new mb.WebMOutputFormat(), target });
  const source = new mb.VideoSampleSource({ codec, bitrate, keyFrameInterval: 2 });
  output.addVideoTrack(source, { frameRate: rate });
  await output.start();
  for (let i = 0; i < count; i++) {
    const data = new Uint8Array(await (await fetch('/frame/' + i)).arrayBuffer());
    const sample = new mb.VideoSample(data, { format: 'RGBA', codedWidth: w, codedHeight: h, timestamp: i / rate, duration: 1 / rate });
    await source.add(sample);
    sample.close();
  }
  await output.finalize();
  const input = new mb.Input({ source: new mb.BufferSource(target.buffer), formats: mb.ALL_FORMATS });
  const sink = new mb.VideoSampleSink(await input.getPrimaryVideoTrack());
  const said = [];
  for (let i = 0; i < count; i++) {
    const sample = await sink.getSample((i + 0.5) / rate);
    const bytes = new Uint8Array(sample.allocationSize());
    await sample.copyTo(bytes);
    said.push({ format: sample.format, matrix: sample.colorSpace.matrix, full: sample.colorSpace.fullRange });
    sample.close();
    await fetch('/decoded/' + i, { method: 'PUT', body: bytes });
  }
  return said;
};
</script>`;

/** Plates by their seeds; those that were made before are read again. */
export async function codedPlates(bench: TestRig, seeds: readonly number[]): Promise<CodedPlate[]> {
  mkdirSync(KEPT, { recursive: true });
  const missing = seeds.filter((seed) => !existsSync(fileOf(seed, 'traits.json')));
  if (missing.length) await make(bench, missing);
  return Promise.all(seeds.map(kept));
}
const fileOf = (seed: number, what: string): string => join(KEPT, `${EDITION}-${seed}-${what}`);

async function kept(seed: number): Promise<CodedPlate> {
  const { traits, count } = JSON.parse(readFileSync(fileOf(seed, 'traits.json'), 'utf8')) as {
    traits: Traits;
    count: number;
  };
  const read = (what: string) => sharp(fileOf(seed, what)).ensureAlpha().raw().toBuffer();
  const frames = await Promise.all(
    Array.from({ length: count }, async (_, i) => ({
      width: SIZE.w,
      height: SIZE.h,
      frame: await read(`${i}-frame.png`),
      foreground: await read(`${i}-truth.png`),
    })),
  );
  return { seed, traits, frames };
}

async function make(bench: TestRig, seeds: readonly number[]): Promise<void> {
  let scene = sceneOf(seeds[0]!);
  await inBrowser(
    PAGE,
    (index) => scene.frames[index]!.pixels,
    async (page, { decoded }) => {
      for (const seed of seeds) {
        scene = sceneOf(seed);
        const { codec, bitrate } = scene.traits;
        const job = { codec, bitrate, count: scene.frames.length, w: SIZE.w, h: SIZE.h, rate: RATE };
        const said: Said[] = await page.evaluate(`window.run(${JSON.stringify(job)})`);
        const pictures = said.map((facts, i) => seen(bench, decoded.get(i)!, facts));
        await keep(seed, scene, pictures);
      }
    },
  );
}

interface Said {
  format: string;
  matrix: string;
  full: boolean;
}
/** A decoded frame as straight RGBA. */
function seen(bench: TestRig, data: Buffer, { format, matrix, full }: Said): Uint8Array | Uint8ClampedArray {
  if (format !== 'I420') throw new Error(`frames are decoded as ${format}`);
  const luma = SIZE.w * SIZE.h;
  const meaning = { matrix: matrix === 'bt709' ? ('bt709' as const) : ('bt601' as const), full };
  const planes = { u: luma, v: luma * 1.25, step: 1 as const, a: 0, ...meaning };
  return rgbaOf(bench, { data, width: SIZE.w, height: SIZE.h, planes });
}

async function keep(
  seed: number,
  { traits, frames }: ReturnType<typeof sceneOf>,
  pictures: readonly (Uint8Array | Uint8ClampedArray)[],
): Promise<void> {
  const raw = { raw: { width: SIZE.w, height: SIZE.h, channels: 4 as const } };
  for (const [i, frame] of frames.entries()) {
    await sharp(pictures[i]!, raw)
      .png({ compressionLevel: 3 })
      .toFile(fileOf(seed, `${i}-frame.png`));
    await sharp(frame.truth, raw)
      .png({ compressionLevel: 3 })
      .toFile(fileOf(seed, `${i}-truth.png`));
  }
  // last, so that what is half done counts as not there
  writeFileSync(fileOf(seed, 'traits.json'), JSON.stringify({ traits, count: frames.length }));
}
