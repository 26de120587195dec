import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { definePass } from './define';

/** What a blur finds beyond the picture. */
export const EDGES = choice({
  label: 'Edges',
  default: 'extend',
  options: [
    { value: 'extend', label: 'extend the border' },
    { value: 'fade', label: 'fade to clear' },
  ],
  help: 'What lies beyond the picture: its border repeated, or nothing.',
});

/** Gaussian blur on premultiplied values. Error against a true Gaussian ≤ 1 % of range. */
export const blur = definePass({
  type: 'blur',
  title: 'Blur',
  group: 'focus',
  words: ['soften', 'out of focus', 'gaussian', 'defocus', 'smooth'],
  help: 'Softens the picture evenly. The radius is the standard deviation of a Gaussian.',
  params: {
    radius: number({
      label: 'Radius',
      unit: 'px',
      default: 8,
      min: 0,
      max: 1000,
      slider: [0, 100],
      help: 'Standard deviation of the Gaussian; twice this is about the width of the softness.',
    }),
    edges: EDGES,
  },
  idle: (v) => v.radius < 0.05,
  reach: (v) => Math.ceil(v.radius * 3),
  run(picture, v, { kernels, arena }) {
    const fade = v.edges === 'fade';
    const rect = fade ? grow(picture.rect, Math.ceil(v.radius * 3)) : picture.rect;
    const { w, h } = rect;
    const out = Picture.make(arena, rect);
    let from = picture.at;
    if (fade) {
      from = out.at;
      kernels.fill(out.at, w * h, 0, 0, 0, 0);
      const inset = rect.w - picture.rect.w;
      for (let y = 0; y < picture.rect.h; y++) {
        kernels.copy(picture.row(y), out.row(y + inset / 2) + (inset / 2) * 16, picture.rect.w);
      }
    }
    gaussian({ kernels, arena }, from, out.at, w, h, v.radius, !fade);
    return out;
  },
});
