import { colour } from '../params/colour';
import { Picture } from '../picture/picture';
import { blendRows, copyInto } from '../picture/rows';
import { defineTransition } from './define';

/** Through a colour: that comes over the shot, then goes and leaves the picture. */
export const dip = defineTransition({
  type: 'dip',
  title: 'Dip to colour',
  words: ['black', 'white', 'flash', 'fade through', 'dip'],
  help: 'A colour comes over the whole shot, and the picture out of it; at the end the picture goes into it.',
  params: {
    colour: colour({ label: 'Colour', default: [0, 0, 0], help: 'What it goes through.' }),
  },
  picture(picture, { colour, shown }, tools) {
    const rect = { x: 0, y: 0, ...tools.size };
    const out = Picture.make(tools.arena, rect);
    if (shown > 0.5) copyInto(tools, picture, out);
    else tools.kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const cover = 1 - Math.abs(2 * shown - 1);
    const over = Picture.make(tools.arena, rect);
    tools.kernels.fill(over.at, over.pixels, ...(colour.map((v) => v * cover) as [number, number, number]), cover);
    blendRows(tools, out, over, rect, 0);
    over.release();
    return out;
  },
});
