import { angle } from '../params/angle';
import { number } from '../params/number';
import { crossing } from './along';
import { defineTransition } from './define';

/** A straight edge goes across the picture. */
export const wipe = defineTransition({
  type: 'wipe',
  title: 'Wipe',
  words: ['edge across', 'reveal', 'swipe', 'linear'],
  help: 'A straight edge goes across the shot and uncovers the picture, or takes it away.',
  params: {
    angle: angle({ label: 'Goes', default: 0, help: 'Where the edge goes: 0° to the right, 90° down.' }),
    soft: number({
      label: 'Softness',
      unit: 'px',
      default: 40,
      min: 0,
      max: 8192,
      slider: [0, 400],
      help: 'Width of the edge.',
    }),
  },
  rows({ angle, soft, shown, leaving }, tools) {
    const { dx, half, at } = crossing(angle, tools);
    const wide = Math.max(1, soft);
    const way = leaving ? -1 : 1;
    const edge = (half + wide / 2) * (2 * (leaving ? 1 - shown : shown) - 1);
    return (src, dst, n, x, y) =>
      tools.kernels.rampSpan(src, dst, n, 0.5 + (way * (edge - at(x, y))) / wide, (-way * dx) / wide);
  },
});
