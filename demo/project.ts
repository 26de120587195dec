// Puts the demo project file and the stock stand-in together from the drawn media: build/demo and build/library.
import { cp, mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { newLayer } from '../src/core/document/edits/layers';
import { newPass } from '../src/core/document/edits/passes';
import { newProject } from '../src/core/document/edits/project';
import { projectSchema, type Layer, type LayerId, type MediaFacts, type Pass, type PassId, type ProjectId, type Shot, type ShotId, type Stock, type StockId } from '../src/core/document/schema';
import { framingKeys, framingsOf } from '../src/core/document/framing';
import { wholePlace } from '../src/core/document/place';
import { still } from '../src/core/document/value';
import { EASINGS } from '../src/core/time/easing';
import { sourceFramesTo } from '../src/core/time/speed';
import { PROJECT_ENDING, writeProjectFile } from '../src/core/formats/project-file';

const MEDIA = join(import.meta.dirname, 'media');
const BUILD = join(import.meta.dirname, '../build');
const RATE = { num: 24, den: 1 };

const clip = (codec: string, frames: number, alpha = false, width = 1280, height = 720) => ({ width, height, rate: RATE, seconds: frames / 24, codec, alpha });
const still2d = (width: number, height: number) => ({ width, height, codec: 'PNG', alpha: true });
const sound = (seconds: number, channels: number) => ({ codec: 'pcm-s16', alpha: false, seconds, sound: { channels, sampleRate: 48000, codec: 'pcm-s16' } });

type Entry = { file: string; name: string; kind: Stock['kind']; facts: Omit<MediaFacts, 'bytes'> };
const STOCK: Record<string, Entry> = {
  even: { file: 'captain-even.mp4', name: 'captain even', kind: 'video', facts: clip('avc', 120) },
  uneven: { file: 'captain-uneven.mp4', name: 'captain uneven', kind: 'video', facts: clip('avc', 120) },
  noisy: { file: 'captain-noisy.mp4', name: 'captain noisy', kind: 'video', facts: clip('avc', 120) },
  deck: { file: 'ferry-deck-night.webm', name: 'ferry deck night', kind: 'video', facts: clip('vp9', 144) },
  rail: { file: 'card-rail.png', name: 'card rail', kind: 'image', facts: still2d(1280, 720) },
  tower: { file: 'signal-tower-day.mp4', name: 'signal tower day', kind: 'video', facts: clip('avc', 120) },
  aurora: { file: 'aurora.webm', name: 'aurora', kind: 'video', facts: clip('vp9', 120) },
  towerStill: { file: 'signal-tower-still.webp', name: 'signal tower still', kind: 'image', facts: { width: 1280, height: 720, codec: 'WebP', alpha: false } },
  kite: { file: 'paper-kite.png', name: 'paper kite', kind: 'image', facts: still2d(420, 560) },
  boat: { file: 'wind-up-boat.mp4', name: 'wind-up boat', kind: 'video', facts: clip('avc', 144) },
  bed: { file: 'harbour-bed.wav', name: 'harbour bed', kind: 'sound', facts: sound(6, 2) },
};
const LIBRARY: (Entry & { about: string })[] = [
  { file: 'paper-kite.png', name: 'Paper kite', kind: 'image', facts: still2d(420, 560), about: 'A red and yellow card kite, cut out' },
  { file: 'lantern-glow.png', name: 'Lantern glow', kind: 'image', facts: still2d(640, 640), about: 'A soft disc of warm light, cut out' },
  { file: 'paper-scraps.webm', name: 'Paper scraps', kind: 'video', facts: clip('vp9', 96, true, 640, 360), about: 'Scraps of paper drifting down, with alpha' },
  { file: 'aurora.webm', name: 'Aurora', kind: 'video', facts: clip('vp9', 120), about: 'Ribbons of green light over a night sky' },
  { file: 'ship-horn.wav', name: 'Ship horn', kind: 'sound', facts: sound(2.5, 1), about: 'One long low blast' },
];

let count = 0;
const id = <T extends string>(what: string) => `${what}-${String(++count).padStart(3, '0')}` as T;
const stockId = (key: string) => `stock-${key}` as StockId;
const pass = (type: string, values: Record<string, unknown> = {}): Pass => {
  const made = newPass(id<PassId>('pass'), type);
  for (const [name, value] of Object.entries(values)) made.values[name] = still(value) as never;
  return made;
};
function layer(key: string, name: string, length: number, change: Partial<Layer> = {}): Layer {
  return { ...newLayer(id<LayerId>('layer'), name, { kind: 'stock', stock: stockId(key) }, { start: 0, length }), ...change };
}
const shot = (name: string, layers: Layer[]): Shot => ({ id: id<ShotId>('shot'), name, width: 1280, height: 720, rate: RATE, length: 120, background: [0, 0, 0], light: 'display', markers: [], range: null, layers });

/** The mean colour of the evenly lit felt, as picking it gives. */
const FELT = [0.302, 0.659, 0.353];

const nightFerry = shot('Night ferry', [
  layer('rail', 'card rail', 120),
  layer('even', 'captain', 120, {
    passes: [
      pass('colour-key', { screen: [FELT] }),
      pass('adjust', { exposure: -0.55, contrast: -0.06, saturation: 0.88, temperature: -0.16 }),
    ],
    place: { ...newLayer('x' as LayerId, 'x', { kind: 'stock', stock: stockId('even') }, { start: 0, length: 1 }).place, position: still([24, 14] as [number, number]) },
  }),
  layer('deck', 'ferry deck', 120, { passes: [pass('blur', { radius: 1.6 }), pass('adjust', { exposure: 0.2, saturation: 1.1 })] }),
  layer('bed', 'harbour bed', 120),
]);
const toKey = shot('Captain to key', [layer('uneven', 'captain', 120), layer('deck', 'ferry deck', 120)]);

/** The tower on a card: a slow push in, two kites, the second five frames after the first, and a letterbox that opens. */
const SIZE = { w: 1280, h: 720 };
const push = framingKeys(framingsOf('push-in', SIZE, SIZE).map((framing, i) => ({ at: i * 119, framing })), SIZE);
const half = (name: string, side: -1 | 1): Layer => ({
  ...newLayer(id<LayerId>('layer'), name, { kind: 'colour', colour: still([0.07, 0.065, 0.06] as [number, number, number]), width: 1280, height: 360 }, { start: 0, length: 120 }),
  place: { ...wholePlace(), position: { keys: [{ at: 0, value: [0, side * 180], ease: EASINGS.out(0.7) }, { at: 36, value: [0, side * 462], ease: 'linear' }] } },
});
const kite = (name: string, start: number): Layer =>
  layer('kite', name, 120, {
    span: { start, length: 120 },
    passes: [pass('adjust', { exposure: -0.1 })],
    place: {
      ...wholePlace(),
      position: {
        keys: [
          { at: 0, value: [-760, 40], ease: 'smooth', bend: { in: [0, 0], out: [180, -170] } },
          { at: 52, value: [-150, -150], ease: 'smooth', bend: { in: [-170, 60], out: [170, -60] } },
          { at: 112, value: [420, -250], ease: 'linear', bend: { in: [-190, 130], out: [0, 0] } },
        ],
      },
      scale: still([0.34, 0.34] as [number, number]),
      rotation: { keys: [{ at: 0, value: 24, ease: 'smooth' }, { at: 56, value: 12, ease: 'smooth' }, { at: 112, value: 30, ease: 'linear' }], jitter: { amount: 4, every: 14, smooth: 1, seed: start + 3 } },
    },
    motionBlur: { shutter: 180, samples: 12 },
  });
const signalTower: Shot = {
  ...shot('Signal tower', [half('letterbox above', -1), half('letterbox below', 1), kite('kite', 0), kite('second kite', 5), layer('towerStill', 'signal tower', 120, { place: { ...wholePlace(), position: { keys: push.position }, scale: { keys: push.scale } } }), layer('bed', 'harbour bed', 120)]),
  markers: [{ at: 36, name: 'open', colour: 'moss' }],
};

/** The boat: a ramp from fast to slow and back, then the way back, reversed. */
const rush = { keys: [{ at: 0, value: 2, ease: EASINGS.both(0.6) }, { at: 30, value: 0.25, ease: 'linear' as const }, { at: 46, value: 0.25, ease: EASINGS.both(0.6) }, { at: 76, value: 2, ease: 'linear' as const }] };
const RAMP_LENGTH = 90;
const windUpBoat: Shot = {
  ...shot('Wind-up boat', [
    layer('boat', 'boat, back', 30, { span: { start: RAMP_LENGTH, length: 30 }, time: { offset: sourceFramesTo(rush, RAMP_LENGTH), speed: still(-2), between: 'flow', keepPitch: true } }),
    layer('boat', 'boat, ramp', RAMP_LENGTH, { time: { offset: 0, speed: rush, between: 'flow', keepPitch: true } }),
    layer('bed', 'harbour bed', 120),
  ]),
  markers: [{ at: 30, name: 'slow', colour: 'slate' }, { at: RAMP_LENGTH, name: 'back', colour: 'rust' }],
};

const facts = async ({ file, facts: known }: Entry): Promise<MediaFacts> => ({ ...known, bytes: (await stat(join(MEDIA, file))).size });

const project = newProject('paper-harbour' as ProjectId, 'Paper Harbour', '2026-01-12T18:30:00.000Z');
for (const [key, entry] of Object.entries(STOCK)) {
  project.stock.push({ id: stockId(key), name: entry.name, file: entry.file, kind: entry.kind, facts: await facts(entry) });
}
project.shots.push(nightFerry, toKey, signalTower, windUpBoat);
const media = new Map<string, Uint8Array>();
for (const [key, { file }] of Object.entries(STOCK)) media.set(stockId(key), await readFile(join(MEDIA, file)));

await mkdir(join(BUILD, 'demo'), { recursive: true });
await writeFile(join(BUILD, 'demo', `paper-harbour${PROJECT_ENDING}`), await writeProjectFile(projectSchema.parse(project), media));

await mkdir(join(BUILD, 'library'), { recursive: true });
const catalogue = await Promise.all(LIBRARY.map(async (entry) => ({ file: entry.file, name: entry.name, kind: entry.kind, about: entry.about, facts: await facts(entry) })));
await writeFile(join(BUILD, 'library', 'catalogue.json'), JSON.stringify(catalogue, null, 1));
for (const { file } of LIBRARY) await cp(join(MEDIA, file), join(BUILD, 'library', file));
console.log(`Demo project and ${LIBRARY.length} library items are in build/.`);
