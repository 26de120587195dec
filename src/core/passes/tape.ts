import { lotOf, seedAt } from '../base/lot';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { Picture } from '../picture/picture';
import { union } from '../picture/rect';
import { partOf } from '../picture/rows';
import { definePass } from './define';

const pixels = (label: string, initial: number, most: number, help: string) =>
  number({ label, unit: 'px', default: initial, min: 0, max: 1000, slider: [0, most], help });
const share = (label: string, initial: number, help: string) =>
  number({ label, unit: '%', default: initial, min: 0, max: 1, slider: [0, 1], help });

/** How tall the torn band is, as a share of the picture. */
const BAND = 0.07;
/** Frames in which the band goes once through the picture, and the hum's bars once by a bar. */
const [BAND_WAY, HUM_WAY] = [90, 40];
/** Length of a drop-out as shares of the picture's width. */
const SHORTEST = 0.01;
const LONGEST = 0.12;

/** Tape: what old magnetic tape does to a picture, row by row. */
export const tape = definePass({
  type: 'tape',
  title: 'Tape wear',
  group: 'texture',
  lots: true,
  words: [
    'vhs',
    'video tape',
    'analog',
    'old video',
    'tracking error',
    'chroma bleeding',
    'worn',
    'glitch',
    'drop-outs',
    'camcorder',
  ],
  help: 'Wears the picture as an old tape does: rows tremble, colours run and lie beside their things, a torn band wanders, light hums, spots drop out. Relatives: Scan lines, Grain, Fringes.',
  params: {
    jitter: pixels('Rows tremble by', 1.2, 4, 'How far rows lie beside where they belong, most often.'),
    bleed: pixels('Colours run over', 8, 60, 'How far colours are smeared to the sides.'),
    beside: number({
      label: 'Colours lie beside by',
      unit: 'px',
      default: 4,
      min: -1000,
      max: 1000,
      slider: [-40, 40],
      help: 'How far right of their things colours lie.',
    }),
    band: pixels('Torn band', 8, 80, 'How far rows are torn in a band that wanders through.'),
    hum: share('Hum', 0.12, 'How much darker the bars are that run through the picture.'),
    drops: number({
      label: 'Drop-outs',
      unit: '',
      default: 4,
      min: 0,
      max: 200,
      slider: [0, 40],
      help: 'How many spots drop out on a frame, about.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is other trembling and other spots.' }),
  },
  idle: (v) => v.jitter + v.bleed + Math.abs(v.beside) + v.band + v.hum + v.drops === 0,
  reach: (v) => Math.ceil(v.jitter + v.band + v.bleed + Math.abs(v.beside)) + 1,
  moment: (_, frame, by) => ({ at: Math.floor(frame), by }),
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const { at = 0, by = 1 } = v as unknown as { at?: number; by?: number };
    const { x, y, w, h } = picture.rect;
    const read = partOf(tools, picture, union(picture.rect, { x: 0, y, w: size.w, h }));
    const out = Picture.make(arena, picture.rect);
    const own = seedAt(v.seed, at);
    const bandAt = ((at / BAND_WAY) % 1) * (1 + 2 * BAND) - BAND;
    for (let row = 0; row < h; row++) {
      const place = y + row;
      // rows of the full picture tremble, however small it is looked at
      const lot = lotOf(Math.floor(place * by), own) * 2 - 1;
      const near = Math.max(0, 1 - Math.abs((place + 0.5) / size.h - bandAt) / BAND);
      const moved = lot * Math.abs(lot) * v.jitter + lot * near * v.band;
      kernels.tapeRow(
        read.row(row),
        read.rect.w,
        x - read.rect.x,
        out.row(row),
        w,
        moved,
        moved - v.beside,
        Math.round(v.bleed),
      );
      const wave = Math.sin(2 * Math.PI * ((1.5 * (place + 0.5)) / size.h - at / HUM_WAY));
      if (v.hum > 0) kernels.dimSpan(out.row(row), out.row(row), w, 1 - v.hum * (0.5 + 0.5 * wave));
    }
    for (let k = 0; k < Math.round(v.drops); k++) {
      const lots = [0, 1, 2, 3].map((question) => lotOf(4 * k + question, own + 31));
      const [from, to] = [
        Math.floor(lots[0]! * size.w),
        Math.floor((lots[0]! + SHORTEST + (LONGEST - SHORTEST) * lots[1]!) * size.w),
      ];
      const row = Math.floor(lots[2]! * size.h) - y;
      const [first, end] = [Math.max(0, x - from), Math.min(to, x + w) - from];
      if (row < 0 || row >= h || end <= first) continue;
      kernels.dropOut(out.row(row) + (from + first - x) * 16, first, end, to - from, 0.6 + 0.4 * lots[3]!);
    }
    read.release();
    return out;
  },
});
