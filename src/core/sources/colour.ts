import { colour as colourParam } from '../params/colour';
import { size } from '../params/size';
import { Picture } from '../picture/picture';
import { defineSource } from './define';

/** One colour all over. */
export const colour = defineSource({
  type: 'colour',
  title: 'Colour',
  words: ['solid', 'plain', 'flat', 'background', 'card'],
  help: 'One colour all over. Relatives: Gradient.',
  params: {
    colour: colourParam({ label: 'Colour', default: [0.5, 0.5, 0.5], help: 'The colour of every pixel.' }),
    size: size({ label: 'Size', default: [1280, 720], help: 'How large the picture is.' }),
  },
  timed: false,
  draw({ colour: [r, g, b] }, { kernels, arena, size: { w, h } }) {
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    kernels.fill(picture.at, picture.pixels, r, g, b, 1);
    return picture;
  },
});
