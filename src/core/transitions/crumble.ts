import { number } from '../params/number';
import { seed } from '../params/seed';
import { defineTransition } from './define';

/** Small squares come by lot. */
export const crumble = defineTransition({
  type: 'crumble',
  title: 'Crumble',
  words: ['random', 'noise', 'dissolve', 'pixels', 'sand', 'dust', 'confetti'],
  help: 'The picture comes in small squares, one here and one there, and crumbles away at the end.',
  params: {
    size: number({
      label: 'Size',
      unit: 'px',
      default: 12,
      min: 1,
      max: 2000,
      slider: [1, 200],
      help: 'Side of a square.',
    }),
    soft: number({
      label: 'Softness',
      unit: '%',
      default: 0.15,
      min: 0.001,
      max: 4,
      slider: [0, 1],
      help: 'How long each takes, as a share of the whole.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another order.' }),
  },
  rows({ size, soft, seed, shown }, { kernels, size: { w, h } }) {
    // cells count from the middle, so that a smaller preview has the same ones
    const step = 1 / size;
    return (src, dst, n, x, y) =>
      kernels.crumbleSpan(
        src,
        dst,
        n,
        (x + 0.5 - w / 2) * step,
        (y + 0.5 - h / 2) * step,
        step,
        Math.round(seed),
        shown * (1 + soft),
        soft,
      );
  },
});
