// Draws and encodes the Paper Harbour media and its ground truth. `npm run demo:media [name …]` draws all, or those named.
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { boatParts, drawBoat } from './art/boat';
import { ferryParts, drawFerry, drawRail } from './art/ferry';
import { craneParts, drawCrane } from './art/crane';
import { FRAMES, glow, kite, litScreen, plateMaker, RATE, scraps, TRUTH_FRAMES, type Lighting } from './art/plates';
import { bytes, random, type Sheet } from './art/raster';
import { harbourBed, horn, wav } from './art/sound';
import { bannerClip, buoyClip, handHeldClip, kiteClip, MOVING_FRAMES } from './art/moving';
import { drawAurora, drawTower, towerParts } from './art/tower';
import { toDisplay, toLinear } from '../src/core/picture/light';
import { encode, type Job } from './encode';

const MEDIA = join(import.meta.dirname, 'media');
const TRUTH = join(import.meta.dirname, 'truth');
const PLATE: Job = {
  container: 'mp4',
  codec: 'avc',
  width: 1280,
  height: 720,
  rate: RATE,
  frames: FRAMES,
  bitrate: 4_200_000,
};

/** How the tower was taken wrong: turned by so many degrees, in the light of a lamp, more than a stop too dark. */
const WRONG = { tilt: 4, light: [0.3, 0.24, 0.14] };

const png = (data: Uint8ClampedArray | Buffer, width: number, height: number) =>
  sharp(Buffer.from(data.buffer, data.byteOffset, data.byteLength), { raw: { width, height, channels: 4 } });

async function captain(lighting: Lighting): Promise<void> {
  const make = await plateMaker(lighting);
  const dice = random(200);
  const noise = lighting === 'noisy' ? 5 : 0.8;
  const folder = join(TRUTH, lighting);
  await mkdir(folder, { recursive: true });
  const pending: Promise<unknown>[] = [];
  const frame = (index: number) => {
    const plate = make(index);
    if (TRUTH_FRAMES.includes(index)) {
      const file = join(folder, `${String(index).padStart(3, '0')}-foreground.png`);
      pending.push(png(bytes(plate.truth), 1280, 720).png({ compressionLevel: 9 }).toFile(file));
    }
    return bytes(plate.frame, noise, dice);
  };
  const { file, decoded } = await encode(PLATE, frame, TRUTH_FRAMES);
  await writeFile(join(MEDIA, `captain-${lighting}.mp4`), file);
  for (const [index, data] of decoded) {
    pending.push(
      png(data, 1280, 720)
        .removeAlpha()
        .png({ compressionLevel: 9 })
        .toFile(join(folder, `${String(index).padStart(3, '0')}-frame.png`)),
    );
  }
  await Promise.all(pending);
}

async function clip(name: string, job: Job, frame: (index: number) => Sheet, noise: number): Promise<void> {
  const dice = random(name.length * 77);
  const { file } = await encode(job, (index) => bytes(frame(index), noise, dice));
  await writeFile(join(MEDIA, `${name}.${job.container}`), file);
}

const moving = async (name: string, made: Promise<(seconds: number) => Sheet>): Promise<void> => {
  const frame = await made;
  await clip(name, { ...PLATE, frames: MOVING_FRAMES, bitrate: 2_600_000 }, (i) => frame(i / RATE), 0.8);
};

const still = async (name: string, svg: string) =>
  sharp(Buffer.from(svg))
    .png({ compressionLevel: 9 })
    .toFile(join(MEDIA, `${name}.png`));

const WORKS: Record<string, () => Promise<unknown>> = {
  'captain-even': () => captain('even'),
  'captain-uneven': () => captain('uneven'),
  'captain-noisy': () => captain('noisy'),
  'captain-uneven-clean': async () =>
    png(bytes(await litScreen('uneven'), 0.8, random(201)), 1280, 720)
      .webp({ quality: 88 })
      .toFile(join(MEDIA, 'captain-uneven-clean.webp')),
  'crane-dusk': async () => {
    const parts = await craneParts();
    await clip('crane-dusk', { ...PLATE, bitrate: 2_600_000 }, (i) => drawCrane(parts, i / RATE), 0.8);
  },
  'ferry-deck-night': async () => {
    const parts = await ferryParts();
    await clip(
      'ferry-deck-night',
      { ...PLATE, container: 'webm', codec: 'vp9', frames: 144, bitrate: 3_000_000 },
      (i) => drawFerry(parts, i / RATE),
      0.8,
    );
  },
  'signal-tower-day': async () => {
    const parts = await towerParts();
    await clip(
      'signal-tower-day',
      { ...PLATE, frames: 120, bitrate: 3_000_000 },
      (i) => drawTower(parts, i / RATE),
      0.8,
    );
  },
  'signal-tower-still': async () => {
    const parts = await towerParts();
    await png(bytes(drawTower(parts, 0.4)), 1280, 720)
      .webp({ quality: 92 })
      .toFile(join(MEDIA, 'signal-tower-still.webp'));
    await mkdir(join(TRUTH, 'tower'), { recursive: true });
    await png(bytes(drawTower(parts, 0.4, false)), 1280, 720)
      .extractChannel(3)
      .png({ compressionLevel: 9 })
      .toFile(join(TRUTH, 'tower', 'matte.png'));
  },
  'tower-taken-wrong': async () => {
    const drawn = png(bytes(drawTower(await towerParts(), 1.7)), 1280, 720);
    const turned = await drawn.rotate(WRONG.tilt).raw().toBuffer({ resolveWithObject: true });
    const { width, height } = turned.info;
    // the largest part of the same shape that has no corner of the turning in it
    const [w, h] = [1120, 630];
    const part = await png(turned.data, width, height)
      .extract({ left: Math.round((width - w) / 2), top: Math.round((height - h) / 2), width: w, height: h })
      .resize(1280, 720)
      .removeAlpha()
      .raw()
      .toBuffer();
    const wrong = part.map((v, i) => Math.round(255 * toDisplay(toLinear(v / 255) * WRONG.light[i % 3]!)));
    await sharp(wrong, { raw: { width: 1280, height: 720, channels: 3 } })
      .webp({ quality: 92 })
      .toFile(join(MEDIA, 'tower-taken-wrong.webp'));
  },
  'wind-up-boat': async () => {
    const parts = await boatParts();
    await clip('wind-up-boat', { ...PLATE, frames: 144, bitrate: 2_600_000 }, (i) => drawBoat(parts, i / RATE), 0.8);
  },
  aurora: () =>
    clip(
      'aurora',
      { ...PLATE, container: 'webm', codec: 'vp9', frames: 120, bitrate: 2_000_000 },
      (i) => drawAurora(i / RATE),
      0.8,
    ),
  'harbour-banner': () => moving('harbour-banner', bannerClip()),
  'buoy-waves': () => moving('buoy-waves', buoyClip()),
  'kite-flight': () => moving('kite-flight', kiteClip()),
  'tower-by-hand': () => moving('tower-by-hand', handHeldClip()),
  'card-rail': async () =>
    png(bytes(await drawRail()), 1280, 720)
      .png({ compressionLevel: 9 })
      .toFile(join(MEDIA, 'card-rail.png')),
  'paper-kite': () => still('paper-kite', kite()),
  'lantern-glow': () => still('lantern-glow', glow()),
  'paper-scraps': async () => {
    const frame = await scraps();
    await clip(
      'paper-scraps',
      {
        container: 'webm',
        codec: 'vp9',
        width: 640,
        height: 360,
        rate: RATE,
        frames: 96,
        bitrate: 1_500_000,
        alpha: true,
      },
      frame,
      0,
    );
  },
  'harbour-bed': () => writeFile(join(MEDIA, 'harbour-bed.wav'), wav(harbourBed())),
  'ship-horn': () => writeFile(join(MEDIA, 'ship-horn.wav'), wav(horn())),
};

await mkdir(MEDIA, { recursive: true });
const names = process.argv.slice(2);
for (const name of names.length ? names : Object.keys(WORKS)) {
  const work = WORKS[name];
  if (!work) throw new Error(`no demo media called ${name}; there are: ${Object.keys(WORKS).join(', ')}`);
  const start = performance.now();
  await work();
  console.log(`${name}: ${((performance.now() - start) / 1000).toFixed(0)} s`);
}
