import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { multiply, scaling, translation, type Matrix } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Fringes: red and blue lie apart, along a line or outwards as behind a cheap lens. */
export const fringes = definePass({
  type: 'fringes',
  title: 'Fringes',
  group: 'distort',
  words: ['channel shift', 'chromatic aberration', 'rgb split', 'colour fringes', 'glitch', 'misprint', 'anaglyph'],
  help: 'Moves red and blue apart, so that edges get coloured fringes: along a line, or outwards as a cheap lens does. Give the amount a jitter and it flickers. Relatives: Lens.',
  params: {
    way: choice({
      label: 'They lie',
      default: 'line',
      options: [
        { value: 'line', label: 'along a line' },
        { value: 'outwards', label: 'outwards' },
      ],
      help: 'Which way red and blue are moved.',
    }),
    amount: number({
      label: 'Amount',
      unit: 'px',
      default: 6,
      min: -500,
      max: 500,
      slider: [-40, 40],
      help: 'How far red and blue lie apart; outwards, in the corners.',
    }),
    direction: angle({
      label: 'Direction',
      default: 0,
      help: 'Where red goes; blue goes the other way.',
      when: { choice: 'way', is: 'line' },
    }),
  },
  idle: (v) => v.amount === 0,
  // a layer may lie beyond its own border, where it goes further outwards
  reach: (v) => Math.ceil(Math.abs(v.amount) / (v.way === 'line' ? 2 : 1)) + 1,
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const { x, y, w, h } = picture.rect;
    /** where a colour is read from */
    const read = (side: 1 | -1): Matrix => {
      const by = (-side * v.amount) / 2;
      const turn = (v.direction * Math.PI) / 180;
      if (v.way === 'line') return translation(Math.cos(turn) * by, Math.sin(turn) * by);
      const grown = 1 + by / (Math.hypot(size.w, size.h) / 2);
      const [cx, cy] = [size.w / 2, size.h / 2];
      return multiply(multiply(translation(cx, cy), scaling(grown, grown)), translation(-cx, -cy));
    };
    const out = Picture.make(arena, picture.rect);
    // row by row, so that what is read for both colours is at hand for the picture
    const [red, blue] = ([1, -1] as const).map((side) =>
      multiply(multiply(translation(-x, -y), read(side)), translation(x, y)),
    ) as [Matrix, Matrix];
    arena.scratch(2 * w * 16, (rows) => {
      for (let row = 0; row < h; row++) {
        const at = translation(0, row);
        kernels.affine(picture.at, w, h, rows, w, 1, ...multiply(red, at), 1, 1);
        kernels.affine(picture.at, w, h, rows + w * 16, w, 1, ...multiply(blue, at), 1, 1);
        kernels.channelsOf(rows, picture.row(row), rows + w * 16, out.row(row), w);
      }
    });
    return out;
  },
});
