import { intersect } from '../picture/rect';
import { number } from '../params/number';
import { definePass } from './define';

const side = (label: string, edge: 'left' | 'top' | 'right' | 'bottom') =>
  number({
    label,
    unit: 'px',
    default: 0,
    min: 0,
    max: 16384,
    slider: [0, 640],
    edge,
    help: `How much is cut from the ${label.toLowerCase()} edge of the source.`,
  });

/** What the corners and the edge of a rectangle look like. */
export const ROUND_AND_SOFT = {
  radius: number({
    label: 'Corner radius',
    unit: 'px',
    default: 0,
    min: 0,
    max: 8192,
    slider: [0, 200],
    help: 'Radius of the corners.',
  }),
  feather: number({
    label: 'Feather',
    unit: 'px',
    default: 0,
    min: 0,
    max: 2000,
    slider: [0, 100],
    help: 'Width of the soft edge, half inside and half outside of the rectangle.',
  }),
};

/** Keeps a rectangle of the source. Its coverage is the exact distance to a rounded rectangle, so corners stay round and edges smooth. */
export const crop = definePass({
  type: 'crop',
  title: 'Crop',
  group: 'frame',
  words: ['trim edges', 'cut off', 'letterbox', 'rounded corners', 'garbage'],
  help: 'Keeps a rectangle of the picture, with round corners and a soft edge if wanted. Relatives: Place for fitting a picture into the shot.',
  params: {
    left: side('Left', 'left'),
    top: side('Top', 'top'),
    right: side('Right', 'right'),
    bottom: side('Bottom', 'bottom'),
    ...ROUND_AND_SOFT,
  },
  idle: (v) => !(v.left || v.top || v.right || v.bottom || v.radius || v.feather),
  cover(rect, v, size) {
    const spread = Math.max(1, v.feather) / 2;
    const x0 = Math.floor(v.left - spread);
    const y0 = Math.floor(v.top - spread);
    const x1 = Math.ceil(size.w - v.right + spread);
    const y1 = Math.ceil(size.h - v.bottom + spread);
    return intersect(rect, { x: x0, y: y0, w: Math.max(0, x1 - x0), h: Math.max(0, y1 - y0) });
  },
  prepare(v, { kernels, size }) {
    const halfW = Math.max(0, size.w - v.left - v.right) / 2;
    const halfH = Math.max(0, size.h - v.top - v.bottom) / 2;
    const midX = v.left + halfW;
    const midY = v.top + halfH;
    const radius = Math.min(v.radius, halfW, halfH);
    return (src, dst, n, x, y) =>
      kernels.cropSpan(src, dst, n, x + 0.5 - midX, y + 0.5 - midY, halfW, halfH, radius, v.feather);
  },
});
