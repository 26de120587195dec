import { choice } from '../params/choice';
import { translation } from '../picture/matrix';
import { drawnThrough } from './drawn';
import { defineTransition } from './define';

export const SIDES = {
  left: [-1, 0],
  right: [1, 0],
  top: [0, -1],
  bottom: [0, 1],
} as const;
export const side = (label: string, help: string) =>
  choice({ label, default: 'left', options: Object.keys(SIDES).map((value) => ({ value, label: value })), help });

/** The picture comes in from a side, and leaves to it. */
export const slide = defineTransition({
  type: 'slide',
  title: 'Slide',
  words: ['push', 'fly in', 'move in', 'enter', 'from the side'],
  help: 'The picture comes in from a side, and leaves to one at the end. Let one layer leave to the side that is opposite to where the next comes from, and that one pushes it out.',
  params: { side: side('Side', 'Where it comes from; at the end where it goes.') },
  picture(picture, { side, shown }, tools) {
    const [x, y] = SIDES[side as keyof typeof SIDES];
    const { w, h } = tools.size;
    return drawnThrough(tools, picture, translation(x * w * (1 - shown), y * h * (1 - shown)));
  },
});
