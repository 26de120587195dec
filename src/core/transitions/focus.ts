import { number } from '../params/number';
import { blur } from '../passes/blur';
import type { AreaPass } from '../passes/define';
import { Picture } from '../picture/picture';
import { defineTransition } from './define';

/** Out of focus into focus, while it fades. */
export const focus = defineTransition({
  type: 'focus',
  title: 'Into focus',
  words: ['blur in', 'soft', 'dissolve'],
  help: 'The picture comes out of a blur while it fades in, and goes into one at the end.',
  params: {
    radius: number({
      label: 'Blur',
      unit: 'px',
      default: 40,
      min: 0,
      max: 1000,
      slider: [0, 200],
      help: 'How blurred it is at the beginning.',
    }),
  },
  picture(picture, { radius, shown }, tools) {
    const { kernels, arena } = tools;
    const values = { radius: radius * (1 - shown), edges: 'fade' };
    const soft = (blur as unknown as AreaPass).run(picture, values as never, tools);
    const out = Picture.make(arena, soft.rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    kernels.addScaled(soft.at, out.at, out.pixels, shown);
    soft.release();
    return out;
  },
});
