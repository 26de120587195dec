import { number } from '../params/number';
import { definePass } from './define';

/** Scan lines: rows of a tube, which may wander. */
export const scanLines = definePass({
  type: 'scan-lines',
  title: 'Scan lines',
  group: 'texture',
  words: ['old screen', 'television', 'monitor', 'crt', 'interlace', 'hologram', 'video lines'],
  help: 'Darkens the picture in lines, as on an old screen. Relatives: Grain, Fringes.',
  params: {
    apart: number({
      label: 'Apart',
      unit: 'px',
      default: 4,
      min: 1,
      max: 500,
      slider: [2, 40],
      help: 'From one line to the next.',
    }),
    dark: number({
      label: 'Dark',
      unit: '%',
      default: 0.45,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much light is missing between the lines.',
    }),
    moved: number({
      label: 'Moved',
      unit: 'px',
      default: 0,
      min: -1e5,
      max: 1e5,
      slider: [-100, 100],
      help: 'Downwards; keyframes let them wander.',
    }),
  },
  byColour: false,
  idle: (v) => v.dark === 0,
  prepare:
    (v, { kernels }) =>
    (src, dst, n, _, y) => {
      // the mean of a wave over the height of the row, so that lines finer than pixels do not beat
      const turn = (2 * Math.PI) / v.apart;
      const low = (at: number) => Math.sin(turn * (at - v.moved)) / turn;
      const wave = low(y + 1) - low(y);
      const gain = 1 - v.dark * (0.5 - 0.5 * wave);
      kernels.dimSpan(src, dst, n, gain);
    },
});
