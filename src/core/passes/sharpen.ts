import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { number } from '../params/number';
import { definePass } from './define';

/** Brings out detail: what differs in brightness from its surroundings differs more. Colours and the layer's edge keep as they are. */
export const sharpen = definePass({
  type: 'sharpen',
  title: 'Sharpen',
  group: 'focus',
  words: ['crisp', 'detail', 'clarity', 'blurry', 'soft picture', 'unsharp', 'structure', 'clearer', 'more focus'],
  help: 'Brings out detail of a size, without colouring edges. Relatives: Blur; Tone for contrast as a whole.',
  params: {
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 0.8,
      min: 0,
      max: 10,
      slider: [0, 3],
      help: 'How much of the difference is added again.',
    }),
    size: number({
      label: 'Detail',
      unit: 'px',
      default: 1.5,
      min: 0.3,
      max: 300,
      slider: [0.5, 30],
      help: 'Size of what is brought out: small for sharpness, large for depth.',
    }),
    quiet: number({
      label: 'Leave noise',
      unit: '%',
      default: 0.01,
      min: 0,
      max: 0.5,
      slider: [0, 0.1],
      help: 'Differences up to this, in per cent of white, are left as they are.',
    }),
    most: number({
      label: 'Limit',
      unit: '%',
      default: 0.12,
      min: 0,
      max: 1,
      slider: [0, 0.5],
      help: 'The most that is added or taken, in per cent of white, so that edges get no halo.',
    }),
  },
  idle: (v) => v.strength === 0 || v.most === 0,
  reach: (v) => Math.ceil(v.size * 3),
  run(picture, v, { kernels, arena }) {
    const { w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    gaussian({ kernels, arena }, picture.at, out.at, w, h, v.size, true);
    kernels.sharpenSpan(picture.at, out.at, out.at, w * h, v.strength, v.quiet, v.most);
    return out;
  },
});
