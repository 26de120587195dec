// Puts the demo project file and the stock stand-in together from the drawn media: build/demo and build/library.
import { cp, mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { partOfWay } from '../src/core/analysis/match';
import { select } from '../src/core/analysis/select';
import { newMask, type Hint, type Mask, type MaskId, type Shape } from '../src/core/document/mask';
import { packMatte } from '../src/core/masks/matte-data';
import { MOVING_FRAMES } from './art/moving';
import { lookPasses, lookTable, putRight } from './graded';
import { effectShots } from './effects';
import { madeShots } from './made';
import { tracked } from './tracked';
import { armOutline } from './art/crane';
import { TOWER_STROKES } from './strokes';
import { newLayer, newSource, stockSource } from '../src/core/document/edits/layers';
import { newPass } from '../src/core/document/edits/passes';
import { newProject } from '../src/core/document/edits/project';
import {
  projectSchema,
  type Layer,
  type LayerId,
  type MediaFacts,
  type Pass,
  type PassId,
  type ProjectId,
  type Shot,
  type ShotId,
  type Stock,
  type StockId,
} from '../src/core/document/schema';
import { framingsOf } from '../src/core/place/framing';
import { wholePlace } from '../src/core/place/place';
import { still } from '../src/core/base/value';
import { EASINGS } from '../src/core/time/easing';
import { sourceFramesTo } from '../src/core/time/speed';
import { PROJECT_ENDING, writeProjectFile } from '../src/core/formats/project-file';

const MEDIA = join(import.meta.dirname, 'media');
const BUILD = join(import.meta.dirname, '../build');
const RATE = { num: 24, den: 1 };

const clip = (codec: string, frames: number, alpha = false, width = 1280, height = 720) => ({
  width,
  height,
  rate: RATE,
  seconds: frames / 24,
  codec,
  alpha,
});
const still2d = (width: number, height: number) => ({ width, height, codec: 'PNG', alpha: true });
const sound = (seconds: number, channels: number) => ({
  codec: 'pcm-s16',
  alpha: false,
  seconds,
  sound: { channels, sampleRate: 48000, codec: 'pcm-s16' },
});

type Entry = { file: string; name: string; kind: Stock['kind']; facts: Omit<MediaFacts, 'bytes'> };
const STOCK: Record<string, Entry> = {
  even: { file: 'captain-even.mp4', name: 'captain even', kind: 'video', facts: clip('avc', 120) },
  uneven: { file: 'captain-uneven.mp4', name: 'captain uneven', kind: 'video', facts: clip('avc', 120) },
  clean: {
    file: 'captain-uneven-clean.webp',
    name: 'uneven sheet, clean',
    kind: 'image',
    facts: { width: 1280, height: 720, codec: 'WebP', alpha: false },
  },
  noisy: { file: 'captain-noisy.mp4', name: 'captain noisy', kind: 'video', facts: clip('avc', 120) },
  deck: { file: 'ferry-deck-night.webm', name: 'ferry deck night', kind: 'video', facts: clip('vp9', 144) },
  rail: { file: 'card-rail.png', name: 'card rail', kind: 'image', facts: still2d(1280, 720) },
  tower: { file: 'signal-tower-day.mp4', name: 'signal tower day', kind: 'video', facts: clip('avc', 120) },
  aurora: { file: 'aurora.webm', name: 'aurora', kind: 'video', facts: clip('vp9', 120) },
  towerStill: {
    file: 'signal-tower-still.webp',
    name: 'signal tower still',
    kind: 'image',
    facts: { width: 1280, height: 720, codec: 'WebP', alpha: false },
  },
  wrong: {
    file: 'tower-taken-wrong.webp',
    name: 'tower, taken wrong',
    kind: 'image',
    facts: { width: 1280, height: 720, codec: 'WebP', alpha: false },
  },
  kite: { file: 'paper-kite.png', name: 'paper kite', kind: 'image', facts: still2d(420, 560) },
  boat: { file: 'wind-up-boat.mp4', name: 'wind-up boat', kind: 'video', facts: clip('avc', 144) },
  crane: { file: 'crane-dusk.mp4', name: 'crane at dusk', kind: 'video', facts: clip('avc', 120) },
  banner: { file: 'harbour-banner.mp4', name: 'harbour banner', kind: 'video', facts: clip('avc', 96) },
  buoy: { file: 'buoy-waves.mp4', name: 'buoy', kind: 'video', facts: clip('avc', 96) },
  flight: { file: 'kite-flight.mp4', name: 'kite in the wind', kind: 'video', facts: clip('avc', 96) },
  byHand: { file: 'tower-by-hand.mp4', name: 'tower by hand', kind: 'video', facts: clip('avc', 96) },
  glow: { file: 'lantern-glow.png', name: 'lantern glow', kind: 'image', facts: still2d(640, 640) },
  bed: { file: 'harbour-bed.wav', name: 'harbour bed', kind: 'sound', facts: sound(6, 2) },
};
const LIBRARY: (Entry & { about: string })[] = [
  {
    file: 'paper-kite.png',
    name: 'Paper kite',
    kind: 'image',
    facts: still2d(420, 560),
    about: 'A red and yellow card kite, cut out',
  },
  {
    file: 'lantern-glow.png',
    name: 'Lantern glow',
    kind: 'image',
    facts: still2d(640, 640),
    about: 'A soft disc of warm light, cut out',
  },
  {
    file: 'paper-scraps.webm',
    name: 'Paper scraps',
    kind: 'video',
    facts: clip('vp9', 96, true, 640, 360),
    about: 'Scraps of paper drifting down, with alpha',
  },
  {
    file: 'aurora.webm',
    name: 'Aurora',
    kind: 'video',
    facts: clip('vp9', 120),
    about: 'Ribbons of green light over a night sky',
  },
  { file: 'ship-horn.wav', name: 'Ship horn', kind: 'sound', facts: sound(2.5, 1), about: 'One long low blast' },
];

let count = 0;
const id = <T extends string>(what: string) => `${what}-${String(++count).padStart(3, '0')}` as T;
const stockId = (key: string) => `stock-${key}` as StockId;
const pass = (type: string, values: Record<string, unknown> = {}): Pass =>
  newPass(id<PassId>('pass'), type, null, values);
function layer(key: string, name: string, length: number, change: Partial<Layer> = {}): Layer {
  return {
    ...newLayer(id<LayerId>('layer'), name, stockSource(stockId(key)), { start: 0, length }),
    ...change,
  };
}
const shot = (name: string, layers: Layer[]): Shot => ({
  id: id<ShotId>('shot'),
  name,
  width: 1280,
  height: 720,
  rate: RATE,
  length: 120,
  background: [0, 0, 0],
  light: 'display',
  markers: [],
  range: null,
  layers,
  within: null,
});

/** The mean colour of the evenly lit felt, as picking it gives. */
const FELT = [0.302, 0.659, 0.353];
/** A key of the captain after a pick, with what is then read from his plate. @param uneven of its light */
const captainKey = (uneven: number, values: Record<string, unknown> = {}): Pass =>
  pass('colour-key', {
    screen: [FELT],
    clipBlack: 0.075,
    clipWhite: 0.97,
    reading: { clear: 0.075, solid: 0.97, noise: 0.0035, uneven, spill: 0, edge: 2.5 },
    ...values,
  });

/** The red of the signal arm, as picking it gives. */
const RED = [0.772, 0.294, 0.235];

const DECK = () =>
  layer('deck', 'ferry deck', 120, {
    passes: [pass('blur', { radius: 1.6 }), pass('adjust', { exposure: 0.2, saturation: 1.1 })],
  });

/** The captain in the light of the deck: six tenths of what Match gives for what lies behind him. */
const TO_DECK = {
  ...partOfWay(
    {
      lift: [-0.032, -0.059, 0.023],
      gamma: [-0.038, -0.047, -0.022],
      gain: [-0.097, -0.071, -0.146],
      saturation: 0.892,
    },
    0.6,
  ),
};
const NIGHT = () => pass('adjust', { exposure: -0.55, contrast: -0.06, saturation: 0.88, temperature: -0.16 });

const nightFerry = shot('Night ferry', [
  layer('glow', 'lantern glow', 120, {
    blend: 'screen',
    opacity: { still: 0.85, drivers: [{ type: 'jitter', amount: 0.12, every: 3, smooth: 0.6, seed: 4 }] },
    place: {
      ...wholePlace(),
      position: still([316, 211] as [number, number]),
      scale: still([0.62, 0.62] as [number, number]),
    },
  }),
  layer('rail', 'card rail', 120),
  layer('even', 'captain', 120, {
    passes: [captainKey(0.006), pass('wheels', TO_DECK)],
    place: {
      ...newLayer('x' as LayerId, 'x', stockSource(stockId('even')), { start: 0, length: 1 }).place,
      position: still([24, 14] as [number, number]),
    },
  }),
  DECK(),
  layer('bed', 'harbour bed', 120),
]);
const toKey = shot('Captain to key', [layer('uneven', 'captain', 120), layer('deck', 'ferry deck', 120)]);

/** The tower on a card: a slow push in, two kites, the second five frames after the first, and a letterbox that opens. */
const SIZE = { w: 1280, h: 720 };
const push = framingsOf('push-in', SIZE, SIZE).map((framing, i) => ({
  ...framing,
  at: i * 119,
  ease: 'linear' as const,
}));
const half = (name: string, side: -1 | 1): Layer => ({
  ...newLayer(id<LayerId>('layer'), name, newSource('colour', { colour: [0.07, 0.065, 0.06], size: [1280, 360] }), {
    start: 0,
    length: 120,
  }),
  place: {
    ...wholePlace(),
    position: {
      keys: [
        { at: 0, value: [0, side * 180], ease: EASINGS.out(0.7) },
        { at: 36, value: [0, side * 462], ease: 'linear' },
      ],
    },
  },
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
      rotation: {
        keys: [
          { at: 0, value: 24, ease: 'smooth' },
          { at: 56, value: 12, ease: 'smooth' },
          { at: 112, value: 30, ease: 'linear' },
        ],
        drivers: [{ type: 'jitter', amount: 4, every: 14, smooth: 1, seed: start + 3 }],
      },
    },
    motionBlur: { shutter: 0.5, samples: 12 },
  });
const signalTower: Shot = {
  ...shot('Signal tower', [
    half('letterbox above', -1),
    half('letterbox below', 1),
    kite('kite', 0),
    kite('second kite', 5),
    layer('towerStill', 'signal tower', 120, { place: { ...wholePlace(), framing: push } }),
    layer('bed', 'harbour bed', 120),
  ]),
  markers: [{ at: 36, name: 'open', colour: 'moss' }],
};

const effects = effectShots({ shot, layer, pass, id }, nightFerry.layers, kite('kite', 0));

/** The boat: a ramp from fast to slow and back, then the way back, reversed. */
const rush = {
  keys: [
    { at: 0, value: 2, ease: EASINGS.both(0.6) },
    { at: 30, value: 0.25, ease: 'linear' as const },
    { at: 46, value: 0.25, ease: EASINGS.both(0.6) },
    { at: 76, value: 2, ease: 'linear' as const },
  ],
};
const RAMP_LENGTH = 90;
const windUpBoat: Shot = {
  ...shot('Wind-up boat', [
    layer('boat', 'boat, back', 30, {
      span: { start: RAMP_LENGTH, length: 30 },
      time: { offset: sourceFramesTo(rush, RAMP_LENGTH), speed: still(-2), between: 'flow', keepPitch: true },
    }),
    layer('boat', 'boat, ramp', RAMP_LENGTH, { time: { offset: 0, speed: rush, between: 'flow', keepPitch: true } }),
    layer('bed', 'harbour bed', 120),
  ]),
  markers: [
    { at: 30, name: 'slow', colour: 'slate' },
    { at: RAMP_LENGTH, name: 'back', colour: 'rust' },
  ],
};

/** The uneven sheet keyed twice: from a clean plate, and hidden below it from a model of each frame. */
const uneven = shot('Uneven light', [
  layer('uneven', 'captain, clean plate', 120, {
    passes: [
      captainKey(0.325, { plate: { stock: stockId('clean'), seconds: 0, median: false } }),
      NIGHT(),
      pass('light-wrap', { reach: 10, strength: 0.7 }),
    ],
  }),
  layer('uneven', 'captain, modelled', 120, {
    shown: false,
    passes: [captainKey(0.325), NIGHT()],
  }),
  DECK(),
]);

const mask = (name: string, shape: Shape, change: Partial<Mask> = {}): Mask => ({
  ...newMask(id<MaskId>('mask'), name, shape),
  ...change,
});
const pair = (x: number, y: number) => still([x, y] as [number, number]);
/** The title card: a title that is typed behind the crane's arm, which is cut from its own plate by a path with a keyframe every twelve frames and lies over it again. */
const STEP = 12;
const armKeys = Array.from({ length: 11 }, (_, i) => Math.min(119, i * STEP)).map((at) => ({
  at,
  value: armOutline(at / 24).map(([x, y]) => [Math.round(x * 10) / 10, Math.round(y * 10) / 10, 0, 0, 0, 0, 0]) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ][],
  ease: 'smooth' as const,
}));
const paper = (name: string, colour: [number, number, number], masks: Mask[]): Layer => ({
  ...newLayer(id<LayerId>('layer'), name, newSource('colour', { colour, size: [1280, 720] }), {
    start: 0,
    length: 120,
  }),
  masks,
  passes: [pass('mask')],
  place: { ...wholePlace(), position: pair(-110, -40), rotation: still(-2) },
});
const vignette = mask(
  'vignette',
  { kind: 'ellipse', centre: pair(-60, -20), size: pair(1150, 700), rotation: still(0) },
  { feather: still(420), colour: 'slate' },
);
/** The title, typed letter by letter. */
const lettering = newSource('title', {
  text: 'Paper Harbour',
  font: 'zilla-slab',
  colour: [0.2, 0.24, 0.34],
  height: 76,
  size: [1280, 720],
});
const written: Layer = {
  ...paper('title', [0, 0, 0], []),
  source: {
    ...lettering,
    values: {
      ...lettering.values,
      shown: {
        keys: [
          { at: 4, value: 0, ease: 'linear' },
          { at: 40, value: 1, ease: 'linear' },
        ],
      },
    },
  },
  passes: [],
};
const titleCard = shot('Title card', [
  layer('crane', 'crane arm', 120, {
    masks: [
      mask('arm', { kind: 'path', closed: true, path: { keys: armKeys } }, { feather: still(2.5), grow: still(1) }),
    ],
    passes: [pass('mask')],
  }),
  written,
  paper(
    'card',
    [0.93, 0.89, 0.79],
    [
      mask('card', {
        kind: 'rectangle',
        centre: pair(0, 0),
        size: pair(840, 230),
        rotation: still(0),
        radius: still(14),
      }),
    ],
  ),
  layer('crane', 'crane at dusk', 120, {
    masks: [vignette],
    passes: [
      { ...pass('adjust', { exposure: -1.3, saturation: 0.85 }), area: { masks: [vignette.id], side: 'outside' } },
    ],
  }),
  layer('bed', 'harbour bed', 120),
]);

/** The tower's sky taken out twice: by a brightness key above a soft line, less the bright parts of the tower, and by three strokes. */
const aurora = () => layer('aurora', 'aurora', 120);
const skyMasks = [
  mask('sky', { kind: 'line', centre: pair(0, 190), rotation: still(180) }, { feather: still(60), colour: 'slate' }),
  mask(
    'house',
    { kind: 'rectangle', centre: pair(202, -144), size: pair(146, 78), rotation: still(0), radius: still(4) },
    { mode: 'subtract', feather: still(3), colour: 'rust' },
  ),
  mask(
    'stripe',
    { kind: 'rectangle', centre: pair(90, -132), size: pair(32, 30), rotation: still(30), radius: still(2) },
    { mode: 'subtract', feather: still(2), colour: 'rust' },
  ),
];
const skyByLine = shot('Aurora, by line', [
  layer('towerStill', 'signal tower', 120, {
    masks: skyMasks,
    passes: [
      {
        ...pass('brightness-key', { keep: 'dark', threshold: 0.765, softness: 0.07 }),
        area: { masks: skyMasks.map(({ id: own }) => own), side: 'inside' },
      },
      pass('refine-edge', { shrink: 0.6, edgeColour: 6 }),
      pass('adjust', { exposure: -1.4, temperature: -0.3, saturation: 0.8 }),
    ],
  }),
  aurora(),
]);
const still8 = await sharp(join(MEDIA, 'signal-tower-still.webp'))
  .ensureAlpha()
  .raw()
  .toBuffer({ resolveWithObject: true });
const found = select({ w: still8.info.width, h: still8.info.height, data: still8.data }, TOWER_STROKES);
const hints: Hint[] = TOWER_STROKES.map(({ keep, radius, points }) => ({
  at: 0,
  keep,
  size: radius * 2,
  points: points.map(([x, y]) => [x - found.w / 2, y - found.h / 2]),
}));
const skyByStrokes = shot('Aurora, by strokes', [
  layer('towerStill', 'signal tower', 120, {
    masks: [
      mask(
        'Selection',
        {
          kind: 'matte',
          matte: still(packMatte(found.matte, found.w, found.h)),
          hints,
          confidence: still(found.confidence),
        },
        { colour: 'moss' },
      ),
    ],
    passes: [
      pass('mask'),
      pass('adjust', { exposure: -1.4, temperature: -0.3, saturation: 0.8 }),
      pass('light-wrap', { reach: 8, strength: 0.8 }),
    ],
  }),
  aurora(),
]);

/** Only what is red keeps its colour. */
const redOnly = shot('Only the red', [
  layer('tower', 'signal tower', 120, {
    passes: [
      pass('colour-range', {
        colours: [RED],
        outSaturation: 0,
        outExposure: -0.25,
        inSaturation: 1.1,
        hueSpare: 9,
        hueSoft: 10,
      }),
      pass('vignette', { amount: -0.8 }),
    ],
  }),
]);
/** The crane at dusk as a crime film would show it: cold dark parts, warm light, little colour, grain. */
const crimeLook = shot('Crane, crime film', [
  layer('crane', 'crane', 120, {
    passes: [
      pass('tone', { exposure: -0.35, contrast: 0.22, shoulder: 0.5, darkColour: 0.7 }),
      pass('wheels', { lift: [-0.14, -0.12, 0.01], gain: [0.14, 0.1, 0], gamma: [-0.04, -0.02, 0] }),
      pass('colour', { saturation: 0.72, vibrance: 0.15 }),
      pass('vignette', { amount: -1.4, soft: 0.9 }),
      pass('grain', { amount: 0.035, size: 0.7 }),
    ],
  }),
]);

/** The ferry by moonlight: the look as dials, and once more as a table, switched off. */
const moonlight = (name: string): Layer => ({
  ...newLayer(id<LayerId>('layer'), name, newSource('adjustment'), { start: 0, length: 120 }),
  passes: [
    ...lookPasses('Moonlight').map(([type, values]) => pass(type, values)),
    { ...pass('table', { table: lookTable('Moonlight') }), on: false },
  ],
});
const ferryByMoon = shot('Ferry, moonlight', [
  moonlight('moonlight'),
  layer('rail', 'card rail', 120),
  layer('even', 'captain', 120, {
    passes: [captainKey(0.006), pass('wheels', TO_DECK)],
    place: { ...wholePlace(), position: pair(24, 14) },
  }),
  DECK(),
]);

/** A picture of the tower that was taken crooked, too dark and in the light of a lamp, put right by a line and the automatics. */
const right = await putRight(join(MEDIA, 'tower-taken-wrong.webp'));
/** Along the tower's gallery. */
const GALLERY = { from: [-200, 0], to: [200, 28] };
const towerRight = shot('Tower, put right', [
  layer('wrong', 'tower', 120, {
    passes: [pass('straighten', GALLERY), pass('balance', right.balance), pass('tone', right.tone)],
  }),
]);

const long = <T extends Shot>(item: T): T => ({ ...item, length: MOVING_FRAMES });
const MOVING = {
  banner: long(
    shot('Banner', [
      layer('kite', 'kite on the banner', MOVING_FRAMES, { blend: 'multiply' }),
      layer('banner', 'banner', MOVING_FRAMES),
    ]),
  ),
  buoy: long(shot('Buoy', [layer('buoy', 'buoy', MOVING_FRAMES)])),
  flight: long(shot('Kite trail', [layer('flight', 'kite', MOVING_FRAMES)])),
  byHand: long(shot('Tower, hand-held', [layer('byHand', 'tower', MOVING_FRAMES)])),
};
const MOVING_SHOTS = Object.values(MOVING);

const facts = async ({ file, facts: known }: Entry): Promise<MediaFacts> => ({
  ...known,
  bytes: (await stat(join(MEDIA, file))).size,
});

const project = newProject('paper-harbour' as ProjectId, 'Paper Harbour', '2026-01-12T18:30:00.000Z');
for (const [key, entry] of Object.entries(STOCK)) {
  project.stock.push({
    id: stockId(key),
    name: entry.name,
    file: entry.file,
    kind: entry.kind,
    facts: await facts(entry),
    line: [],
  });
}
project.shots.push(
  nightFerry,
  effects.magic,
  effects.tape,
  effects.smoke,
  effects.scraps,
  toKey,
  uneven,
  titleCard,
  skyByLine,
  skyByStrokes,
  signalTower,
  windUpBoat,
  redOnly,
  crimeLook,
  ferryByMoon,
  towerRight,
  ...madeShots(shot, layer('tower', 'signal tower', 120), () => id('made')),
  ...MOVING_SHOTS,
);
const whole = await tracked(project, { lantern: nightFerry, magic: effects.magic, ...MOVING });
const media = new Map<string, Blob>();
for (const [key, { file }] of Object.entries(STOCK))
  media.set(stockId(key), new Blob([new Uint8Array(await readFile(join(MEDIA, file)))]));

await mkdir(join(BUILD, 'demo'), { recursive: true });
await writeFile(
  join(BUILD, 'demo', `paper-harbour${PROJECT_ENDING}`),
  Buffer.from(await (await writeProjectFile(projectSchema.parse(whole), media)).arrayBuffer()),
);

await mkdir(join(BUILD, 'library'), { recursive: true });
const catalogue = await Promise.all(
  LIBRARY.map(async (entry) => ({
    file: entry.file,
    name: entry.name,
    kind: entry.kind,
    about: entry.about,
    facts: await facts(entry),
    line: [],
  })),
);
await writeFile(join(BUILD, 'library', 'catalogue.json'), JSON.stringify(catalogue, null, 1));
for (const { file } of LIBRARY) await cp(join(MEDIA, file), join(BUILD, 'library', file));
console.log(`Demo project and ${LIBRARY.length} library items are in build/.`);
