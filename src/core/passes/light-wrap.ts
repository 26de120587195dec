import { number } from '../params/number';
import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Light wrap: the blurred light of what lies below, screened over the inner edge of a placed layer. */
export const lightWrap = definePass({
  type: 'light-wrap',
  title: 'Light wrap',
  group: 'cut out',
  space: 'shot',
  needs: ['below'],
  light: 'shot',
  words: ['glow over the edge', 'blend into background', 'background light', 'edge', 'integrate'],
  help: 'Lets the light of the layers below glow over the edge of this one, so that it belongs there. Works after Place; seen in the shot, not in the layer alone. Relatives: Refine edge, Adjust.',
  params: {
    reach: number({
      label: 'Reach',
      unit: 'px',
      default: 14,
      min: 0,
      max: 500,
      slider: [0, 80],
      help: 'How far the light comes in over the edge.',
    }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 0.6,
      min: 0,
      max: 4,
      slider: [0, 2],
      help: 'How bright it is.',
    }),
  },
  idle: (v) => v.reach === 0 || v.strength === 0,
  reach: (v) => Math.ceil(3 * Math.max(0.5, v.reach / 2)),
  run(picture, { reach, strength }, tools) {
    const below = tools.below(picture.rect);
    if (!below) return picture.retain();
    const { kernels, arena } = tools;
    const { w, h } = picture.rect;
    const sigma = Math.max(0.5, reach / 2);
    const light = Picture.make(arena, picture.rect);
    const soft = Picture.make(arena, picture.rect);
    gaussian(tools, below.at, light.at, w, h, sigma, true);
    gaussian(tools, picture.at, soft.at, w, h, sigma, true);
    const out = Picture.make(arena, picture.rect);
    kernels.copy(picture.at, out.at, out.pixels);
    kernels.lightWrap(out.at, light.at, soft.at, w * h, strength);
    light.release();
    soft.release();
    return out;
  },
});
