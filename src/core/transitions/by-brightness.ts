import { choice } from '../params/choice';
import { number } from '../params/number';
import { defineTransition } from './define';

/** Bright or dark parts come first. */
export const byBrightness = defineTransition({
  type: 'by-brightness',
  title: 'By brightness',
  words: ['luma', 'dissolve', 'burn', 'bright first', 'dark first', 'melt'],
  help: 'The bright parts of the picture come first, or the dark ones, and go first at the end.',
  params: {
    first: choice({
      label: 'First',
      default: 'bright',
      options: [
        { value: 'bright', label: 'bright parts' },
        { value: 'dark', label: 'dark parts' },
      ],
      help: 'What comes first, and goes first.',
    }),
    soft: number({
      label: 'Softness',
      unit: '%',
      default: 0.25,
      min: 0.01,
      max: 4,
      slider: [0.01, 1],
      help: 'Range of brightness that is under way at a time.',
    }),
  },
  rows({ first, soft, shown, leaving }, { kernels }) {
    const dark = (first === 'dark') !== leaving ? 1 : 0;
    return (src, dst, n) => kernels.byBrightnessSpan(src, dst, n, shown * (1 + soft), soft, dark);
  },
});
