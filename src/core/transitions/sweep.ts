import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { defineTransition } from './define';

/** A hand goes round a place and uncovers what it has gone over. */
export const sweep = defineTransition({
  type: 'sweep',
  title: 'Sweep',
  words: ['clock', 'radial', 'round', 'hand', 'angle'],
  help: 'A hand goes round a place, clockwise, and uncovers the picture or takes it away.',
  params: {
    middle: point({ label: 'About', default: [0, 0], help: 'What it goes round.' }),
    from: angle({ label: 'From', default: -90, help: 'Where it begins: 0° is right, −90° up.' }),
    soft: number({
      label: 'Softness',
      unit: 'px',
      default: 4,
      min: 0,
      max: 2000,
      slider: [0, 200],
      help: 'Width of its edges.',
    }),
  },
  rows({ middle: [cx, cy], from, soft, shown, leaving }, { kernels }) {
    const wide = Math.max(1, soft);
    // what leaves is what the hand has not gone over yet
    const begin = leaving ? from + 360 * (1 - shown) : from;
    const angle = 2 * Math.PI * shown;
    // so turned that the beginning points up
    const back = ((-90 - begin) * Math.PI) / 180;
    const [cos, sin] = [Math.cos(back), Math.sin(back)];
    return (src, dst, n, x, y) => {
      const [u, v] = [x + 0.5 - cx, y + 0.5 - cy];
      if (shown <= 0) return kernels.rampSpan(src, dst, n, 0, 0);
      kernels.sweepSpan(
        src,
        dst,
        n,
        u * cos - v * sin,
        u * sin + v * cos,
        cos,
        sin,
        Math.sin(angle),
        Math.cos(angle),
        shown > 0.5 ? 1 : 0,
        wide,
      );
    };
  },
});
