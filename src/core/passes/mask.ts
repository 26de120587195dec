import { Picture } from '../picture/picture';
import { choice } from '../params/choice';
import { masks } from '../params/masks';
import { definePass } from './define';

/** Cuts the layer by its masks. */
export const mask = definePass({
  type: 'mask',
  whole: true,
  title: 'Mask',
  group: 'cut out',
  words: [
    'cut out',
    'roto',
    'rotoscope',
    'shape',
    'path',
    'garbage mask',
    'matte',
    'hole',
    'vignette',
    'text knock-out',
    'gradient',
  ],
  help: 'Keeps what the layer’s masks cover, and makes the rest clear. Relatives: the area of any pass, Crop, the keys.',
  params: {
    masks: masks({
      label: 'Masks',
      empty: 'all',
      help: 'Which of the layer’s masks cut. Without a choice all of them do.',
    }),
    side: choice({
      label: 'Keep',
      default: 'inside',
      options: [
        { value: 'inside', label: 'inside' },
        { value: 'outside', label: 'outside' },
      ],
      help: 'Which side stays.',
    }),
  },
  idle: (v) => v.masks.masks.length === 0,
  reach: () => 0,
  run(picture, v, { kernels, arena, coverage }) {
    const out = Picture.make(arena, picture.rect);
    const plane = coverage({ ...v.masks, side: v.side as 'inside' | 'outside' }, picture.rect);
    kernels.scaleByPlane(picture.at, plane, out.at, out.pixels);
    return out;
  },
});
