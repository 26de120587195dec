import { intersect } from '../picture/rect';
import { number } from '../params/number';
import { point } from '../params/point';
import { ROUND_AND_SOFT } from './crop';
import { definePass } from './define';

const side = (label: string) =>
  number({
    label,
    unit: 'px',
    default: 0,
    min: 0,
    max: 32768,
    slider: [0, 1920],
    help: `How much of the shot’s ${label.toLowerCase()} the pane takes.`,
  });

/** Shows a layer through a rectangle of the shot that stays where it is while the layer moves behind it. */
export const pane = definePass({
  type: 'pane',
  title: 'Pane',
  group: 'frame',
  space: 'shot',
  words: ['split screen', 'window', 'frame the layer', 'keep inside', 'half', 'panel', 'letterbox'],
  help: 'Shows the layer only within a rectangle of the shot, whatever its place: move the layer and it moves behind its pane. Animate the sides and it opens. Relatives: Crop, which cuts the source and moves along with it.',
  params: {
    centre: point({ label: 'Centre', default: [0, 0], help: 'The middle of the pane in the shot.' }),
    width: side('Width'),
    height: side('Height'),
    ...ROUND_AND_SOFT,
  },
  fitted: ({ w, h }) => ({ width: w, height: h }),
  cover(rect, { centre: [x, y], width, height, feather }) {
    const [halfW, halfH] = [(width + Math.max(1, feather)) / 2, (height + Math.max(1, feather)) / 2];
    const [x0, y0] = [Math.floor(x - halfW), Math.floor(y - halfH)];
    return intersect(rect, { x: x0, y: y0, w: Math.ceil(x + halfW) - x0, h: Math.ceil(y + halfH) - y0 });
  },
  prepare({ centre: [midX, midY], width, height, radius, feather }, { kernels }) {
    const [halfW, halfH] = [width / 2, height / 2];
    const round = Math.min(radius, halfW, halfH);
    return (src, dst, n, x, y) =>
      kernels.cropSpan(src, dst, n, x + 0.5 - midX, y + 0.5 - midY, halfW, halfH, round, feather);
  },
});
