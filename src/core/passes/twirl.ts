import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { bentAbout } from '../picture/bent';
import { definePass } from './define';

/** Twirl: the picture is turned about a place, most in its middle. */
export const twirl = definePass({
  type: 'twirl',
  title: 'Twirl',
  group: 'distort',
  words: ['swirl', 'whirlpool', 'spiral', 'vortex', 'drain'],
  help: 'Turns the picture about a place, most in the middle and not at all from its radius on. Relatives: Bulge, Ripple.',
  params: {
    turn: angle({ label: 'Turns by', default: 120, help: 'How far the middle is turned, clockwise.' }),
    radius: number({
      label: 'Radius',
      unit: 'px',
      default: 300,
      min: 2,
      max: 16384,
      slider: [10, 1200],
      help: 'From where on nothing is turned.',
    }),
    about: point({ label: 'Place', default: [0, 0], help: 'What it turns about. It can follow a track.' }),
  },
  idle: (v) => v.turn === 0,
  reach: (v) => Math.ceil(2 * v.radius),
  run(picture, v, tools) {
    const most = (v.turn * Math.PI) / 180;
    return bentAbout(tools, picture, v.about, v.radius, (far) => {
      const share = 1 - far / v.radius;
      return { size: 1, turn: -most * share * share * (3 - 2 * share) };
    });
  },
});
