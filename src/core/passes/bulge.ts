import { number } from '../params/number';
import { point } from '../params/point';
import { bentAbout } from '../picture/bent';
import { definePass } from './define';

/** Bulge: a round part of the picture swells or shrinks. */
export const bulge = definePass({
  type: 'bulge',
  title: 'Bulge',
  group: 'distort',
  words: ['pinch', 'swell', 'big eyes', 'big head', 'magnify', 'blow up', 'shrink a part'],
  help: 'Lets a round part of the picture swell, or shrink with a negative amount. Relatives: Lens, Twirl.',
  params: {
    amount: number({
      label: 'Amount',
      unit: '%',
      default: 0.6,
      min: -1,
      max: 1,
      slider: [-1, 1],
      help: 'How much larger the middle gets; negative shrinks it.',
    }),
    radius: number({
      label: 'Radius',
      unit: 'px',
      default: 220,
      min: 2,
      max: 16384,
      slider: [10, 1200],
      help: 'From where on nothing changes.',
    }),
    about: point({ label: 'Place', default: [0, 0], help: 'The middle of what swells. It can follow a track.' }),
  },
  idle: (v) => v.amount === 0,
  reach: (v) => Math.ceil(v.radius),
  run(picture, v, tools) {
    // up to 4 times as large, or as small
    const power = 4 ** v.amount;
    return bentAbout(tools, picture, v.about, v.radius, (far) => {
      const ease = (1 - (far / v.radius) ** 2) ** 2;
      return { size: 1 / (1 + (power - 1) * ease) };
    });
  },
});
