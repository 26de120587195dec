import { number } from '../params/number';
import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { addEnlarged, onGrid, reducedBy } from '../picture/reduced';
import { definePass } from './define';
import { SHINING, shone, strength } from './shining';

/** Widths of what makes up the glow as shares of its reach, and how much of each: bright and narrow at the source, faint far out. */
const PARTS = [
  [1 / 12, 0.45],
  [1 / 5, 0.32],
  [1 / 2.2, 0.23],
] as const;
const FURTHEST = PARTS[2][0];

/** What is softer than this many pixels is computed smaller, at most so many times halved. */
const [SOFT, MOST_TIMES] = [3, 5];

/** How often something so soft is halved. @param sigma pixels */
const timesOf = (sigma: number): number => Math.max(0, Math.min(MOST_TIMES, Math.floor(Math.log2(sigma / SOFT))));

/** Pixels beyond which none of it comes: three boxes of the widest part, and a fraction more of each. */
const spreadOf = ({ reach }: { reach: number }): number => Math.ceil(3 * FURTHEST * reach) + 4;

/** Glow: the light of bright parts spread around them, as in a lens or in mist. */
export const glow = definePass({
  type: 'glow',
  title: 'Glow',
  group: 'light',
  words: ['bloom', 'shine', 'halo', 'neon', 'aura', 'soft light', 'lamp', 'magic', 'haze around lights'],
  help: 'Lets bright parts, or all of the layer, give off light to what is around them. It is added in linear light, and shows no bands. Relatives: Streaks, Light rays; Drop shadow for a glow of one colour.',
  uses: [
    {
      title: 'Soft focus',
      words: ['dreamy', 'soft filter', 'portrait', 'veil', 'romantic'],
      values: { of: 'all', reach: 60, strength: 0.28 },
    },
  ],
  params: {
    of: SHINING.of,
    threshold: SHINING.threshold,
    reach: number({
      label: 'Reach',
      unit: 'px',
      default: 80,
      min: 1,
      max: 2000,
      slider: [4, 400],
      help: 'How far the light goes.',
    }),
    strength: strength(1),
    colour: SHINING.colour,
    alone: SHINING.alone,
  },
  idle: (v) => v.strength === 0 && v.alone === 'both',
  reach: spreadOf,
  run(picture, v, tools) {
    const rect = onGrid(grow(picture.rect, spreadOf(v)), MOST_TIMES);
    const least = timesOf(PARTS[0][0] * v.reach);
    return shone(picture, v, tools, rect, least, (bright) => {
      const { kernels, arena } = tools;
      let [small, done] = [bright.retain(), least];
      const parts = PARTS.map(([width, weight]) => {
        const sigma = Math.max(0.3, width * v.reach);
        const times = timesOf(sigma);
        const smaller = reducedBy(tools, small, times - done);
        small.release();
        [small, done] = [smaller, times];
        const part = Picture.make(arena, small.rect);
        gaussian({ kernels, arena }, small.at, part.at, part.rect.w, part.rect.h, sigma / 2 ** times, false);
        return { part, times, weight };
      });
      small.release();
      // the widest is added to the next one, as small as that is, and so on up to full size
      const first = parts.reduceRight((wider, now) => {
        addEnlarged(tools, wider.part, wider.times - now.times, now.part, wider.weight / now.weight);
        return now;
      });
      return { light: first.part, times: first.times, share: first.weight };
    });
  },
});
