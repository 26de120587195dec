import { number } from '../params/number';
import { definePass } from './define';

/** Posterise: only so many steps of each colour are left. */
export const posterise = definePass({
  type: 'posterise',
  title: 'Posterise',
  group: 'texture',
  words: ['few colours', 'steps of colour', 'poster', 'banding on purpose', 'comic', 'screen print', 'threshold'],
  help: 'Leaves only some steps of red, green and blue; two steps are a threshold for each. Relatives: Tint by brightness, Mosaic.',
  uses: [
    {
      title: 'Threshold',
      words: ['two steps', 'pure colours', 'stencil', 'black or white'],
      values: { steps: 2, soft: 0.04 },
    },
  ],
  params: {
    steps: number({
      label: 'Steps',
      unit: '',
      default: 5,
      min: 2,
      max: 64,
      slider: [2, 16],
      help: 'How many of each colour are left.',
    }),
    soft: number({
      label: 'Soft',
      unit: '%',
      default: 0.08,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of a step its edge is soft over; 0 % is hard and flickers where a picture has noise.',
    }),
  },
  idle: (v) => v.soft >= 1,
  prepare(v, { kernels }) {
    const last = Math.max(1, Math.round(v.steps) - 1);
    return (src, dst, n) => kernels.stepSpan(src, dst, n, last, Math.max(1e-3, v.soft));
  },
});
