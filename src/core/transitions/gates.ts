import { choice } from '../params/choice';
import { translation } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { blendRows, partOf } from '../picture/rows';
import { intersect, isEmpty } from '../picture/rect';
import { drawnThrough } from './drawn';
import { defineTransition } from './define';

/** Two halves of the picture come together in the middle of the shot, as gates close. */
export const gates = defineTransition({
  type: 'gates',
  title: 'Gates',
  words: ['two halves', 'doors', 'close', 'curtain', 'barn door', 'split'],
  help: 'The picture comes in as two halves that close in the middle of the shot like gates, and opens in two at the end.',
  params: {
    from: choice({
      label: 'From',
      default: 'sides',
      options: [
        { value: 'sides', label: 'left and right' },
        { value: 'ends', label: 'above and below' },
      ],
      help: 'Where the halves come from.',
    }),
  },
  picture(picture, { from, shown }, tools) {
    const { w, h } = tools.size;
    const sides = from === 'sides';
    const out = Picture.make(tools.arena, { x: 0, y: 0, w, h });
    tools.kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    for (const way of [-1, 1]) {
      const [left, top] = [way > 0 && sides ? Math.round(w / 2) : 0, way > 0 && !sides ? Math.round(h / 2) : 0];
      const [right, bottom] = [way < 0 && sides ? Math.round(w / 2) : w, way < 0 && !sides ? Math.round(h / 2) : h];
      const rect = intersect({ x: left, y: top, w: right - left, h: bottom - top }, picture.rect);
      if (isEmpty(rect)) continue;
      const half = partOf(tools, picture, rect);
      const by = (way * (1 - shown)) / 2;
      const moved = drawnThrough(tools, half, translation(sides ? by * w : 0, sides ? 0 : by * h));
      half.release();
      if (!isEmpty(moved.rect)) blendRows(tools, out, moved, moved.rect, 0);
      moved.release();
    }
    return out;
  },
});
