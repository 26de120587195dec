import { choice } from '../params/choice';
import { number } from '../params/number';
import { bentAbout } from '../picture/bent';
import { definePass } from './define';

/** How often a bend is looked for backwards; it is found to far less than a hundredth of a pixel. */
const TURNS = 12;
/** In half diagonals: nothing is seen further out. */
const FURTHEST = 1.5;

/** Lens: straight lines bow as a lens bows them, or bows are taken out again. */
export const lens = definePass({
  type: 'lens',
  title: 'Lens',
  group: 'distort',
  words: [
    'barrel',
    'fisheye',
    'lens distortion',
    'remove lens distortion',
    'wide angle',
    'pincushion',
    'straight lines',
  ],
  help: 'Bows straight lines as a lens does, or takes such bows out so that what is put in fits. With the same amount the one undoes the other. Relatives: Straighten, Bulge.',
  params: {
    way: choice({
      label: 'Bows',
      default: 'put',
      options: [
        { value: 'put', label: 'are put in' },
        { value: 'take', label: 'are taken out' },
      ],
      help: 'Whether it bends as a lens does, or undoes that.',
    }),
    amount: number({
      label: 'Amount',
      unit: '%',
      default: 0.25,
      min: -0.6,
      max: 1,
      slider: [-0.6, 1],
      help: 'How much: positive bows lines outwards as a wide lens does, negative inwards.',
    }),
    size: number({
      label: 'Size',
      unit: '%',
      default: 1,
      min: 0.1,
      max: 10,
      slider: [0.5, 2],
      help: 'Of the whole picture, to fill the corners or to see them.',
    }),
  },
  idle: (v) => v.amount === 0 && v.size === 1,
  reach: () => Infinity,
  run(picture, v, tools) {
    const { w, h } = tools.size;
    const half = Math.hypot(w, h) / 2;
    /** how far from the middle a place is seen that lies at a distance, both in half diagonals */
    const bowed = (far: number): number => far / (1 + v.amount * far * far);
    const bows = (seen: number): number => {
      // where bows end nothing is seen further out
      let far = seen;
      for (let i = 0; i < TURNS; i++) {
        const over = 1 + v.amount * far * far;
        const slope = (1 - v.amount * far * far) / (over * over);
        if (slope < 0.02) return Infinity;
        far -= (bowed(far) - seen) / slope;
      }
      return far;
    };
    return bentAbout(
      tools,
      picture,
      [w / 2, h / 2],
      FURTHEST * half,
      (far) => {
        const seen = far / (v.size * half);
        return { size: Math.min(1e4, (v.way === 'put' ? bows(seen) : bowed(seen)) / seen) / v.size };
      },
      'clear',
    );
  },
});
