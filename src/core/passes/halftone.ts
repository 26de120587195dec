import { angle } from '../params/angle';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { definePass } from './define';

/** Halftone: dots of ink, the larger the darker the picture is there. */
export const halftone = definePass({
  type: 'halftone',
  title: 'Halftone',
  group: 'texture',
  lots: true,
  words: ['newspaper', 'print dots', 'comic dots', 'printed', 'screen printing', 'dots of ink'],
  help: 'Prints the picture with dots of ink on paper, as a newspaper does. Relatives: Posterise, Tint by brightness.',
  params: {
    apart: number({
      label: 'Dots apart',
      unit: 'px',
      default: 10,
      min: 2,
      max: 400,
      slider: [3, 60],
      help: 'From one dot to the next.',
    }),
    turn: angle({ label: 'Turn', default: 45, help: 'Of the rows of dots.' }),
    ink: colour({ label: 'Ink', default: [0.09, 0.1, 0.14], help: 'Of the dots.' }),
    paper: colour({ label: 'Paper', default: [0.94, 0.92, 0.86], help: 'Between them.' }),
  },
  byColour: false,
  prepare(v, { kernels, size }) {
    const turn = (v.turn * Math.PI) / 180;
    const [c, s] = [Math.cos(turn) / v.apart, Math.sin(turn) / v.apart];
    return (src, dst, n, x, y) =>
      kernels.dotSpan(src, dst, n, x - size.w / 2, y - size.h / 2, c, s, ...v.ink, ...v.paper);
  },
});
