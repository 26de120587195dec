// Files that are damaged, lying or odd, made from small right ones by a seed. What can be right about them is said with each.
import sharp from 'sharp';
import { silentMp3, silentOgg, wrapped } from './media-variants';
import { media } from './helpers';
import { readFileSync } from 'node:fs';

export interface HostileFile {
  name: string;
  buffer: Buffer;
}
const diceOf = (seed: number) => () => (seed = (seed * 16807) % 2147483647) / 2147483647;

/** An EBML header and a segment of unknown content: what a demuxer may try to make sense of for ever. */
export function endlessMkv(seed: number, bytes = 552): Buffer {
  const dice = diceOf(seed);
  const head = Buffer.from(
    '1a45dfa39f4286810142f7810142f2810442f381084282886d6174726f736b6142878104428581021853806701ffffffffffffff',
    'hex',
  );
  return Buffer.concat([
    head,
    Buffer.from(Array.from({ length: bytes - head.length }, () => Math.floor(dice() * 256))),
  ]);
}

/** A WAV of 32-bit floats. */
export function floatWav(samples: readonly number[], sampleRate = 8000, channels = 1): Buffer {
  const data = Buffer.alloc(samples.length * 4);
  samples.forEach((v, i) => data.writeFloatLE(v, i * 4));
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + data.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(3, 20);
  head.writeUInt16LE(channels, 22);
  head.writeUInt32LE(sampleRate, 24);
  head.writeUInt32LE(sampleRate * channels * 4, 28);
  head.writeUInt16LE(channels * 4, 32);
  head.writeUInt16LE(32, 34);
  head.write('data', 36);
  head.writeUInt32LE(data.length, 40);
  return Buffer.concat([head, data]);
}

/** Red, green, blue and white quarters, as they lie in the file; the orientation says how they are to be turned. */
export const orientedPng = (orientation: number): Promise<Buffer> => {
  const [width, height] = [32, 20];
  const pixels = Buffer.alloc(width * height * 3);
  for (let i = 0; i < width * height; i++) {
    const [right, low] = [i % width >= width / 2, i >= (width * height) / 2];
    pixels.set(low ? (right ? [255, 255, 255] : [0, 0, 255]) : right ? [0, 255, 0] : [255, 0, 0], i * 3);
  }
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .withMetadata({ orientation })
    .png()
    .toBuffer();
};

/** A moving picture of flat frames, each shown for a time in milliseconds. */
export function movingPicture(
  format: 'gif' | 'webp',
  colours: readonly [number, number, number][],
  delay: number[],
): Promise<Buffer> {
  const [w, h] = [32, 20];
  const frames = Buffer.concat(
    colours.map((colour) => Buffer.concat(Array.from({ length: w * h }, () => Buffer.from(colour)))),
  );
  return sharp(frames, { raw: { width: w, height: h * colours.length, channels: 3, pageHeight: h } })
    [format]({ delay, ...(format === 'webp' ? { lossless: true } : {}) })
    .toBuffer();
}

/** Small right files of every kind, to be spoilt. */
async function seeds(): Promise<HostileFile[]> {
  const picture = sharp(readFileSync(media('paper-kite.png'))).resize(60);
  const clip = await wrapped('signal-tower-day.mp4', { container: 'mp4' });
  return [
    { name: 'kite.png', buffer: await picture.clone().png().toBuffer() },
    { name: 'kite.jpg', buffer: await picture.clone().flatten().jpeg().toBuffer() },
    { name: 'kite.webp', buffer: await picture.clone().webp().toBuffer() },
    { name: 'kite.avif', buffer: await picture.clone().avif().toBuffer() },
    {
      name: 'moving.gif',
      buffer: await movingPicture(
        'gif',
        [
          [255, 0, 0],
          [0, 0, 255],
          [9, 9, 9],
        ],
        [40, 40, 40],
      ),
    },
    {
      name: 'moving.webp',
      buffer: await movingPicture(
        'webp',
        [
          [255, 0, 0],
          [0, 0, 255],
          [9, 9, 9],
        ],
        [40, 40, 40],
      ),
    },
    { name: 'tower.mp4', buffer: clip },
    { name: 'tower.mkv', buffer: await wrapped('signal-tower-day.mp4', { container: 'mkv' }) },
    { name: 'quiet.ogg', buffer: await silentOgg(1) },
    { name: 'quiet.mp3', buffer: silentMp3(40) },
    { name: 'tone.wav', buffer: floatWav(Array.from({ length: 4000 }, (_, i) => Math.sin(i / 9))) },
  ];
}

/** Some 460 files: cut off, flipped, zeroed, renamed, made of noise, and a few that lie about themselves. */
export async function hostileFiles(seed: number): Promise<HostileFile[]> {
  const dice = diceOf(seed);
  const out: HostileFile[] = [];
  const sources = await seeds();
  for (const { name, buffer } of sources) {
    const [bare, ending] = name.split('.') as [string, string];
    const put = (what: string, data: Buffer, as = ending) => out.push({ name: `${bare} ${what}.${as}`, buffer: data });
    for (let i = 1; i <= 12; i++) put(`cut ${i}`, buffer.subarray(0, Math.floor((buffer.length * i) / 13)));
    for (let i = 0; i < 16; i++) {
      const bent = Buffer.from(buffer);
      // most of them where the headers are
      const at = Math.floor(dice() ** 3 * buffer.length);
      bent[at] = Math.floor(dice() * 256);
      put(`flipped ${i}`, bent);
    }
    for (let i = 0; i < 6; i++) {
      const bent = Buffer.from(buffer);
      const at = Math.floor(dice() * buffer.length * 0.8);
      bent.fill(0, at, at + Math.floor(buffer.length * 0.1));
      put(`zeroed ${i}`, bent);
    }
    for (let i = 0; i < 4; i++)
      put(
        `noise ${i}`,
        Buffer.concat([
          buffer.subarray(0, 40),
          Buffer.from(Array.from({ length: 3000 }, () => Math.floor(dice() * 256))),
        ]),
      );
    put('renamed', buffer, ending === 'png' ? 'mp4' : 'png');
    put('twice', Buffer.concat([buffer, buffer]));
  }
  for (let i = 0; i < 12; i++) out.push({ name: `endless ${i}.mkv`, buffer: endlessMkv(seed + i) });
  out.push(
    { name: 'nothing.wav', buffer: floatWav([]) },
    { name: 'fast.wav', buffer: floatWav([0.1, 0.2], 2_000_000) },
    {
      name: 'wide.wav',
      buffer: floatWav(
        Array.from({ length: 1000 }, () => 0.1),
        8000,
        100,
      ),
    },
  );
  return out;
}
