import { angle } from '../params/angle';
import { number } from '../params/number';
import { crossing } from './along';
import { defineTransition } from './define';

/** Slats that turn open one beside the other. */
export const slats = defineTransition({
  type: 'slats',
  title: 'Slats',
  words: ['blinds', 'venetian', 'stripes', 'shutters'],
  help: 'The picture opens in stripes beside each other, as through the slats of a blind.',
  params: {
    count: number({
      label: 'Slats',
      unit: '',
      default: 9,
      min: 1,
      max: 400,
      slider: [1, 40],
      help: 'How many of them cross the shot.',
    }),
    angle: angle({ label: 'Open to', default: 90, help: 'Where each opens to: 0° to the right, 90° down.' }),
    soft: number({
      label: 'Softness',
      unit: '%',
      default: 0.1,
      min: 0,
      max: 4,
      slider: [0, 1],
      help: 'Width of their edges, in slats.',
    }),
  },
  rows({ count, angle, soft, shown, leaving }, tools) {
    const { dx, half, at } = crossing(leaving ? angle + 180 : angle, tools);
    const per = count / (2 * half);
    const wide = Math.max(per, soft);
    return (src, dst, n, x, y) =>
      tools.kernels.slatSpan(src, dst, n, (at(x, y) + half) * per, dx * per, shown, wide, per);
  },
});
