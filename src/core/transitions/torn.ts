import { angle } from '../params/angle';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { seed } from '../params/seed';
import { crossing } from './along';
import { defineTransition } from './define';

/** Pixels at full size along a tear from one tooth to the next. */
const TOOTH = 90;

/** A tear goes across the picture, with the fibre of the paper along it. */
export const torn = defineTransition({
  type: 'torn',
  title: 'Torn paper',
  words: ['rip', 'tear', 'ragged', 'card', 'collage'],
  help: 'A ragged tear goes across the picture, as if it were paper; the fibre shows along it.',
  params: {
    angle: angle({ label: 'Goes', default: 20, help: 'Where the tear goes: 0° to the right, 90° down.' }),
    rough: number({
      label: 'Raggedness',
      unit: 'px',
      default: 36,
      min: 0,
      max: 2000,
      slider: [0, 200],
      help: 'How far it goes to either side.',
    }),
    tooth: number({
      label: 'Teeth',
      unit: 'px',
      default: TOOTH,
      min: 2,
      max: 4000,
      slider: [10, 400],
      help: 'From one tooth to the next.',
    }),
    rim: number({
      label: 'Fibre',
      unit: 'px',
      default: 10,
      min: 0,
      max: 400,
      slider: [0, 60],
      help: 'How much of the paper’s fibre shows.',
    }),
    colour: colour({ label: 'Colour of the fibre', default: [0.95, 0.93, 0.88], help: 'What the paper is made of.' }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another tear.' }),
  },
  rows({ angle, rough, tooth, rim, colour, seed, shown, leaving }, tools) {
    const { dx, dy, half, at } = crossing(angle, tools);
    const { w, h } = tools.size;
    const way = leaving ? -1 : 1;
    // so far that neither tear nor fibre is in the shot at the ends
    const edge = (half + rough + rim + 1) * (2 * (leaving ? 1 - shown : shown) - 1);
    return (src, dst, n, x, y) =>
      tools.kernels.tornSpan(
        src,
        dst,
        n,
        way * (edge - at(x, y)),
        ((x + 0.5 - w / 2) * -dy + (y + 0.5 - h / 2) * dx) / tooth,
        -way * dx,
        -dy / tooth,
        rough,
        rim,
        Math.round(seed),
        ...colour,
      );
  },
});
