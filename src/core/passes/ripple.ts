import { number } from '../params/number';
import { point } from '../params/point';
import { bentAbout } from '../picture/bent';
import { definePass } from './define';

/** Ripple: rings run outwards from a place, as on water that something fell into. */
export const ripple = definePass({
  type: 'ripple',
  title: 'Ripple',
  group: 'distort',
  words: ['rings on water', 'drop in water', 'pond', 'circular waves', 'shock wave'],
  help: 'Bends the picture in rings that run outwards from a place, which can follow a track. Relatives: Turbulence, Twirl.',
  params: {
    amount: number({
      label: 'Amount',
      unit: 'px',
      default: 10,
      min: 0,
      max: 500,
      slider: [0, 60],
      help: 'How far pixels are moved to and fro.',
    }),
    apart: number({
      label: 'Rings apart',
      unit: 'px',
      default: 90,
      min: 4,
      max: 4096,
      slider: [10, 400],
      help: 'From one ring to the next.',
    }),
    runs: number({
      label: 'Runs by',
      unit: 'px',
      default: 120,
      min: -8192,
      max: 8192,
      slider: [-400, 400],
      help: 'How far the rings run outwards in 24 frames.',
    }),
    reach: number({
      label: 'Reach',
      unit: 'px',
      default: 420,
      min: 4,
      max: 16384,
      slider: [20, 1500],
      help: 'How far from the place they have died away.',
    }),
    about: point({ label: 'Place', default: [0, 0], help: 'Where they come from. It can follow a track.' }),
  },
  idle: (v) => v.amount === 0,
  reach: (v) => Math.ceil(v.amount) + 1,
  moment: (_, frame) => ({ beat: frame / 24 }),
  run(picture, v, tools) {
    const { beat = 0 } = v as unknown as { beat?: number };
    return bentAbout(tools, picture, v.about, v.reach, (far) => {
      const left = 1 - far / v.reach;
      // nothing moves in the very middle, where it would have no way to go
      const soft = Math.min(1, far / (v.apart / 4));
      const by = v.amount * left * left * soft * Math.sin((2 * Math.PI * (far - v.runs * beat)) / v.apart);
      return { size: 1 + by / far };
    });
  },
});
