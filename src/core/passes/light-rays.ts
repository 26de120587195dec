import { number } from '../params/number';
import { point } from '../params/point';
import { multiply, scaling, translation } from '../picture/matrix';
import { union } from '../picture/rect';
import { onGrid } from '../picture/reduced';
import { furthestFrom, smeared } from '../picture/smear';
import { definePass } from './define';
import { SHINING, shone, strength } from './shining';

/** Rays are soft: they are drawn at half the size. */
const TIMES = 1;
/** How much is left of a ray at its end. */
const FADED = 0.08;

/** Light rays: the light of bright parts, or of the layer's shape, drawn away from a point. */
export const lightRays = definePass({
  type: 'light-rays',
  title: 'Light rays',
  group: 'light',
  space: 'shot',
  words: ['god rays', 'beams', 'sun rays', 'volumetric light', 'shafts of light', 'radiate', 'projector'],
  help: 'Draws light away from a point: rays of the sun through a window, beams behind letters. It works after Place, in the whole shot. The point may follow a track. Relatives: Glow, Streaks.',
  params: {
    from: point({ label: 'From', default: [0, 0], help: 'Where the rays come from.' }),
    of: SHINING.of,
    threshold: SHINING.threshold,
    length: number({
      label: 'Length',
      unit: '%',
      default: 0.6,
      min: 0.01,
      max: 0.95,
      slider: [0.05, 0.95],
      help: 'How far the rays go, as a share of the way from the point out of the picture.',
    }),
    strength: strength(1.5),
    colour: { ...SHINING.colour, default: [1, 0.93, 0.78] as const },
    alone: SHINING.alone,
  },
  idle: (v) => v.strength === 0 && v.alone === 'both',
  reach: () => Infinity,
  run: (picture, v, tools) =>
    shone(picture, v, tools, onGrid(union(picture.rect, { x: 0, y: 0, ...tools.size }), TIMES), TIMES, (small) => {
      const [x, y] = v.from.map((at) => at / 2 ** TIMES) as [number, number];
      const furthest = furthestFrom(v.from, tools.size);
      // sizes that are multiplied are shares that are added
      const most = Math.log(1 / (1 - v.length));
      const away = (share: number) => {
        const size = Math.exp(most * share);
        return multiply(multiply(translation(x, y), scaling(size, size)), translation(-x, -y));
      };
      const how = { sided: true, extend: false, faded: FADED };
      const light = smeared(tools, small, away, (v.length * furthest) / 2 ** TIMES, how);
      return { light, times: TIMES, share: 1 };
    }),
});
