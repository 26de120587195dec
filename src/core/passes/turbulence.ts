import { number } from '../params/number';
import { seed } from '../params/seed';
import { cloudPlane } from '../picture/noise';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Turbulence: every pixel is taken from a little elsewhere, as through hot air or water. */
export const turbulence = definePass({
  type: 'turbulence',
  title: 'Turbulence',
  group: 'distort',
  words: [
    'heat haze',
    'heat',
    'ripple',
    'water',
    'wobble',
    'distort',
    'displace',
    'warp',
    'under water',
    'dream',
    'wave',
  ],
  help: 'Bends the picture as hot air, water or a dream would, and goes on changing by itself. In an area it stays there. Relatives: Shake, Clouds.',
  params: {
    amount: number({
      label: 'Amount',
      unit: 'px',
      default: 14,
      min: 0,
      max: 1000,
      slider: [0, 120],
      help: 'How far pixels are moved.',
    }),
    grain: number({
      label: 'Grain',
      unit: 'px',
      default: 120,
      min: 12,
      max: 4096,
      slider: [12, 600],
      help: 'How large the bends are.',
    }),
    stretch: number({
      label: 'Stretch',
      unit: '%',
      default: 1,
      min: 0.05,
      max: 20,
      slider: [0.2, 5],
      help: 'How much wider than tall the bends are: more for water, less for flames.',
    }),
    detail: number({
      label: 'Detail',
      unit: '',
      default: 2,
      min: 1,
      max: 8,
      slider: [1, 6],
      help: 'How many finer layers bend the larger ones.',
    }),
    changes: number({
      label: 'Change',
      unit: '%',
      default: 0.6,
      min: -20,
      max: 20,
      slider: [0, 3],
      help: 'How much the bends change in 24 frames; 100 is other bends altogether.',
    }),
    rise: number({
      label: 'Rises by',
      unit: 'px',
      default: 40,
      min: -4096,
      max: 4096,
      slider: [-300, 300],
      help: 'How far the bends rise in 24 frames.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number, other bends.' }),
  },
  idle: (v) => v.amount === 0,
  // noise stays within ±1
  reach: (v) => Math.ceil(v.amount) + 1,
  moment: (_, frame) => ({ beat: frame / 24 }),
  run(picture, v, tools) {
    const { beat = 0 } = v as unknown as { beat?: number };
    const { kernels, arena, scratch } = tools;
    const { x, y, w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    const planes = scratch(2 * w * h * 4 + 16);
    const form = {
      grain: [v.grain * Math.sqrt(v.stretch), v.grain / Math.sqrt(v.stretch)] as const,
      from: [x, y] as const,
      moved: [0, -v.rise * beat] as const,
      turned: v.changes * beat,
      layers: v.detail,
      rough: 0.5,
      veins: false,
    };
    cloudPlane(tools, planes, w, h, { ...form, seed: 2 * v.seed });
    cloudPlane(tools, planes + w * h * 4, w, h, { ...form, seed: 2 * v.seed + 1 });
    for (let row = 0; row < h; row++) {
      const dx = planes + row * w * 4;
      kernels.displacedRow(picture.at, w, h, out.row(row), w, 0, row, dx, dx + w * h * 4, v.amount);
    }
    return out;
  },
});
