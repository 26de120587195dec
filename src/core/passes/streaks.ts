import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { translation } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { smeared } from '../picture/smear';
import { definePass } from './define';
import { SHINING, shone, strength } from './shining';

/** How much is left of a streak at its ends. */
const FADED = 0.02;

/** Streaks: the light of bright parts drawn out into lines, as by a filter before a lens. */
export const streaks = definePass({
  type: 'streaks',
  title: 'Streaks',
  group: 'light',
  words: ['flare', 'lens flare', 'anamorphic', 'star filter', 'sparkle', 'glint', 'light line', 'cross'],
  help: 'Draws the light of bright parts out into lines: one, a cross or a star. Give the strength a jitter and it flickers. Relatives: Glow, Light rays.',
  params: {
    of: SHINING.of,
    threshold: { ...SHINING.threshold, default: 0.8 },
    lines: choice({
      label: 'Lines',
      default: '1',
      options: [
        { value: '1', label: 'one' },
        { value: '2', label: 'two, a cross' },
        { value: '3', label: 'three, a star' },
        { value: '4', label: 'four' },
      ],
      help: 'How many lines cross in each bright part.',
    }),
    length: number({
      label: 'Length',
      unit: 'px',
      default: 500,
      min: 2,
      max: 4000,
      slider: [20, 2000],
      help: 'From one end of a line to the other.',
    }),
    angle: angle({ label: 'Direction', default: 0, help: 'Of the first line: 0° lies level.' }),
    strength: strength(3),
    colour: { ...SHINING.colour, default: [0.75, 0.87, 1] as const },
    alone: SHINING.alone,
  },
  idle: (v) => v.strength === 0 && v.alone === 'both',
  reach: (v) => Math.ceil(v.length / 2) + 2,
  run: (picture, v, tools) =>
    shone(picture, v, tools, grow(picture.rect, Math.ceil(v.length / 2)), (bright) => {
      const { kernels, arena } = tools;
      const light = Picture.make(arena, bright.rect);
      kernels.fill(light.at, light.pixels, 0, 0, 0, 0);
      const lines = Number(v.lines);
      for (let i = 0; i < lines; i++) {
        const turn = ((v.angle + (180 * i) / lines) * Math.PI) / 180;
        const long = v.length / 2;
        for (const side of [-1, 1]) {
          const [dx, dy] = [side * Math.cos(turn) * long, side * Math.sin(turn) * long];
          const way = (share: number) => translation(dx * share, dy * share);
          const line = smeared(tools, bright, way, long, { sided: true, extend: false, faded: FADED });
          kernels.addScaled(line.at, light.at, light.pixels, 0.5);
          line.release();
        }
      }
      bright.release();
      return light;
    }),
});
