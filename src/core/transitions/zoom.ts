import { number } from '../params/number';
import { point } from '../params/point';
import { multiply, scaling, translation } from '../picture/matrix';
import { drawnThrough } from './drawn';
import { defineTransition } from './define';

/** The picture grows out of a place, or comes back from being near. */
export const zoom = defineTransition({
  type: 'zoom',
  title: 'Zoom',
  words: ['grow', 'scale', 'pop', 'come near', 'shrink'],
  help: 'The picture grows to its size, or comes back to it from nearby, while it fades in; at the end the other way.',
  params: {
    from: number({
      label: 'From',
      unit: '%',
      default: 0.4,
      min: 0,
      max: 20,
      slider: [0, 3],
      help: 'Its size at the beginning: below 100 % it grows, above it shrinks.',
    }),
    about: point({ label: 'About', default: [0, 0], help: 'The place that stays where it is.' }),
  },
  picture(picture, { from, about: [x, y], shown }, tools) {
    const size = from + (1 - from) * shown;
    const map = multiply(multiply(translation(x, y), scaling(size, size)), translation(-x, -y));
    return drawnThrough(tools, picture, map, size > 0 ? shown : 0);
  },
});
