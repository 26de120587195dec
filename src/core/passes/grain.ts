import { seedAt } from '../base/lot';
import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { boolean } from '../params/boolean';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { definePass } from './define';

const share = (label: string, begins: number, help: string) =>
  number({ label, unit: '%', default: begins, min: 0, max: 4, slider: [0, 2], help });

const CHANNELS = 'By channel';

/** Below this the noise of single pixels is as fine as it is wanted. */
const FINE = 0.35;
/** Deviation that is left of white noise of deviation 1 blurred by σ: the sum of the squares of its weights each way. */
function left(sigma: number): number {
  const reach = Math.ceil(3 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)));
  const whole = weights.reduce((sum, w) => sum + w);
  return weights.reduce((sum, w) => sum + (w / whole) ** 2, 0);
}

/** How much of grain of a size (in pixels of the plan) is left when so many pixels each way are one: what their mean leaves. */
function seenAt(size: number, by: number): number {
  if (by === 1) return 1;
  const full = size * by;
  return left(Math.max(FINE, Math.hypot(full, Math.sqrt((by * by - 1) / 12)))) / left(Math.max(FINE, full));
}

/** Film grain or a camera's noise: normal, of a size, by brightness; each pixel's by its place, the frame and the seed alone. */
export const grain = definePass({
  type: 'grain',
  title: 'Grain',
  group: 'texture',
  lots: true,
  words: ['film grain', 'noise', 'iso', 'sensor noise', 'match grain', 'texture', 'dither'],
  help: 'Adds grain, so that something drawn or cleaned looks filmed. Match to the surface sets it from what is filmed around it.',
  uses: [
    {
      title: 'Sensor noise',
      words: ['camera noise', 'high iso', 'noisy in the dark', 'colour noise'],
      values: { amount: 0.07, size: 0.4, colour: 1, dark: 1.4, middle: 0.8, bright: 0.3 },
    },
    {
      title: 'Paper grain',
      words: ['paper texture', 'canvas', 'watercolour paper', 'stands still'],
      values: { amount: 0.03, size: 1.6, colour: 0, dark: 0.6, middle: 1, bright: 1, moves: false },
    },
  ],
  params: {
    amount: number({
      label: 'Amount',
      unit: '%',
      default: 0.04,
      min: 0,
      max: 1,
      slider: [0, 0.2],
      help: 'Deviation of the noise, in per cent of white.',
    }),
    size: number({
      label: 'Size',
      unit: 'px',
      default: 0.6,
      min: 0,
      max: 50,
      slider: [0, 5],
      help: 'Softness of the grains; 0 is one grain a pixel.',
    }),
    colour: number({
      label: 'Colour',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How far the channels differ: 0 % is grey, 100 % as a sensor has it.',
    }),
    dark: share('In the dark', 0.8, 'How much of it black has.'),
    middle: share('In the middle', 1, 'How much of it middle grey has.'),
    bright: share('In the bright', 0.4, 'How much of it white has.'),
    red: { ...share('Red', 1, 'How much of it red has.'), group: CHANNELS },
    green: { ...share('Green', 1, 'How much of it green has.'), group: CHANNELS },
    blue: { ...share('Blue', 1, 'How much of it blue has; film and sensors have most of it here.'), group: CHANNELS },
    moves: boolean({ label: 'New on every frame', default: true, help: 'Off, the grain stands still like paper.' }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another grain.' }),
  },
  idle: (v) => v.amount === 0,
  reach: () => 0,
  moment: (v, frame, by) => ({ at: v.moves ? Math.floor(frame) : 0, by }),
  run(picture, v, { kernels, arena }) {
    const reach = v.size < FINE ? 0 : Math.ceil(3 * v.size) + 1;
    const rect = grow(picture.rect, reach);
    const noise = Picture.make(arena, rect);
    const { at = 0, by = 1 } = v as unknown as { at?: number; by?: number };
    const key = seedAt(v.seed, at);
    for (let y = 0; y < rect.h; y++) kernels.grainNoise(noise.row(y), rect.w, rect.x, rect.y + y, key);
    if (reach) gaussian({ kernels, arena }, noise.at, noise.at, rect.w, rect.h, v.size, true);
    const out = Picture.make(arena, picture.rect);
    const scale = (v.amount * seenAt(v.size, by)) / (reach ? left(v.size) : 1);
    // both parts together keep the deviation
    const own = v.colour * scale;
    const all = Math.sqrt(1 - v.colour ** 2) * scale;
    for (let y = 0; y < out.rect.h; y++)
      kernels.grainSpan(
        picture.row(y),
        noise.row(y + reach) + reach * 16,
        out.row(y),
        out.rect.w,
        own,
        all,
        v.dark,
        v.middle,
        v.bright,
        v.red,
        v.green,
        v.blue,
      );
    noise.release();
    return out;
  },
});
