// `npm run bench [-- kernels browser cutout keys unseen boiling cuts made tracks]`: measures all, or the named parts, and writes docs/performance.md.
// SEEDS_FROM=20261126 judges the key on 24 other plates from that seed on.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { boilingTable } from './boiling';
import { browserRows } from './browser';
import { cutoutRows } from './cutout';
import { cutsTable } from './cuts';
import { kernelRows, type Row } from './kernels';
import { keyTable } from './keys';
import { madeTable } from './made';
import { trackTable } from './tracks';
import { unseenTable } from './unseen';

const table = (rows: Row[]) =>
  [
    '| what | goal | measured | |',
    '|---|---|---|---|',
    ...rows.map((row) => `| ${row.what} | ${row.goal} | ${row.got} | ${row.met ? 'met' : 'missed'} |`),
  ].join('\n');

const named = process.argv.slice(2);
/** The part's table, or a line saying that this run left it out. */
async function part(name: string, measure: () => Promise<string>): Promise<string> {
  if (named.length && !named.includes(name)) return 'Not measured in this run.';
  const text = await measure();
  console.log(text);
  return text;
}
const kernels = await part('kernels', async () => table(await kernelRows()));
const browser = await part('browser', async () => table(await browserRows()));
const cutout = await part('cutout', async () => table(await cutoutRows()));
const keys = await part('keys', keyTable);
const unseen = await part('unseen', () => unseenTable(Number(process.env['SEEDS_FROM'] ?? 1)));
const boiling = await part('boiling', () => boilingTable(Number(process.env['SEEDS_FROM'] ?? 31)));
const cuts = await part('cuts', () => cutsTable(Number(process.env['SEEDS_FROM'] ?? 500)));
const made = await part('made', madeTable);
const tracks = await part('tracks', () => trackTable(Number(process.env['SEEDS_FROM'] ?? 11)));
const text = `# Performance

Written by \`npm run bench\` after a build. Every ratio is taken in one run on one machine, against copying the same buffer or against another program doing the same work, because absolute times say little about another machine.

## One 1920×1080 float32 buffer, one thread

${kernels}

sharp works on 8-bit pixels and does its own work of the same name; ours works on 32-bit floats.

## In the application

Headless Chromium without a graphics processor, two cores, the demo's Night ferry shot.

${browser}

## Cutting out

One 1280×720 picture, one thread.

${cutout}

## Colour key on plates with known truth

Six decoded frames of each 4:2:0 plate, a new key after one pick of 24×24 pixels. The edge band is where the true matte is between 0.02 and 0.98. Solid and clear are measured four pixels away from any edge. The last column but one is the mean error, in the edge band, of what was cut out over three new backgrounds; the plain keys keep the frame's own colours.

${keys}

## Colour key on plates that nobody drew

24 scenes from seeds: cloth, skin, wood, print, bright, dark, grey and olive subjects; hair, holes, glass; motion, defocus; uneven, wrinkled, marked screens, green and blue; spill and noise; encoded and decoded in 4:2:0. Two frames each, one pick.

${unseen}

## Edges that boil

${boiling}

## Cutting out without a screen’s colour, on scenes that nobody drew

24 scenes from seeds as above, one frame each, with the camera’s noise but not coded. The brightness key gets bright subjects before a black ground and dark ones before a white one; *Automatic* sets its ramp. Glass counts as edge, and a difference key cannot know it.

${cuts}

## Made layers and effects

Milliseconds of a frame, and times a copy of the same buffer. A transition and a pass are what a frame costs more than the same without them; what is less than nothing is the spread of the measurement. One thread; nothing is cached but the picture that passes and transitions work on; the least of nine runs, as whatever else a machine does only adds to them.

${made}

## Point tracks

A print of 64×56 pixels on a moving ground, 400×240, encoded with H.264 and decoded; a pattern of 40×40. The library is a general vision library's pyramidal Lucas–Kanade with the same window, from frame to frame. A frame is wrong when the point is said to be found and is more than two pixels off, or more than half hidden.

${tracks}
`;
writeFileSync(join(import.meta.dirname, '../docs/performance.md'), text);
