import { choice } from '../params/choice';
import { number } from '../params/number';
import { bent } from '../picture/bent';
import { gaussian } from '../picture/gaussian';
import { partOf } from '../picture/rows';
import { definePass } from './define';

const shift = (label: string, help: string) =>
  number({ label, unit: '%', default: 0, min: -100, max: 100, slider: [-1, 1], help });

/** Repeat: the picture several times in rows and columns; moved, it rolls. */
export const repeat = definePass({
  type: 'repeat',
  title: 'Repeat',
  group: 'distort',
  words: ['tile', 'grid of copies', 'many times', 'wallpaper', 'pattern', 'roll', 'offset', 'wall of screens'],
  help: 'Shows the picture many times in a grid. Keyframes of what it is moved by let it roll. Relatives: Kaleidoscope.',
  params: {
    columns: number({
      label: 'Columns',
      unit: '',
      default: 3,
      min: 1,
      max: 64,
      slider: [1, 12],
      help: 'How many lie beside each other.',
    }),
    rows: number({
      label: 'Rows',
      unit: '',
      default: 3,
      min: 1,
      max: 64,
      slider: [1, 12],
      help: 'How many lie below each other.',
    }),
    turned: choice({
      label: 'Every other one',
      default: 'same',
      options: [
        { value: 'same', label: 'is the same' },
        { value: 'mirrored', label: 'is mirrored' },
      ],
      help: 'Mirrored ones meet without a seam.',
    }),
    across: shift('Moved across', 'By so much of one picture’s width; keyframes roll it.'),
    down: shift('Moved down', 'By so much of one picture’s height; keyframes roll it.'),
  },
  idle: (v) => v.columns === 1 && v.rows === 1 && v.across === 0 && v.down === 0,
  reach: () => Infinity,
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const { w, h } = tools.size;
    // so many pixels each way become one: softened as much as their mean would be, or fine detail would sparkle
    const many = Math.min(v.columns, v.rows);
    const soft = Math.sqrt(Math.max(0, many * many - 1) / 12);
    const even = soft > 0.05 ? partOf(tools, picture, { x: 0, y: 0, w, h }) : picture.retain();
    if (even !== picture) gaussian(tools, even.at, even.at, w, h, soft, true);
    const folded = (at: number): number => {
      const whole = Math.floor(at);
      const part = at - whole;
      return v.turned === 'mirrored' && whole % 2 ? 1 - part : part;
    };
    const { x, w: wide } = even.rect;
    const across = Float32Array.from({ length: wide }, (_, i) => {
      const at = x + i + 0.5;
      return folded((at / w) * v.columns - v.across) * w - at;
    });
    const out = bent(tools, even, (dx, dy, row) => {
      arena.floats(dx, wide).set(across);
      kernels.slopeSpan(dy, wide, folded(((row + 0.5) / h) * v.rows - v.down) * h - row - 0.5, 0);
    });
    even.release();
    return out;
  },
});
