import { boolean } from '../../params/boolean';
import { number } from '../../params/number';
import { ramp, rampAt } from '../../params/ramp';
import { definePass } from '../define';

const STEPS = 512;

/** Colours by brightness: duotones, split tones, one colour over all. */
export const tintByBrightness = definePass({
  type: 'tint',
  title: 'Tint by brightness',
  group: 'grade',
  words: ['colourise', 'duotone', 'split tone', 'sepia', 'gradient map', 'monochrome', 'moonlight', 'night', 'toning'],
  help: 'Gives dark, middle and bright parts colours of a ramp. Keeping how bright it was makes split tones; without it the ramp takes over, as in a duotone. Relatives: Wheels, Colour.',
  uses: [
    {
      title: 'Heat',
      words: ['thermal', 'heat camera', 'infrared', 'warm and cold'],
      values: {
        colours: [
          [0, [0.03, 0.02, 0.16]],
          [0.3, [0.42, 0.05, 0.5]],
          [0.55, [0.92, 0.28, 0.16]],
          [0.8, [1, 0.78, 0.2]],
          [1, [1, 1, 0.9]],
        ],
        strength: 1,
        keep: false,
      },
    },
    {
      title: 'Night vision',
      words: ['green night', 'night sight', 'seeing in the dark', 'infrared camera'],
      values: {
        colours: [
          [0, [0.01, 0.06, 0.03]],
          [0.45, [0.12, 0.55, 0.2]],
          [1, [0.85, 1, 0.75]],
        ],
        strength: 1,
        keep: false,
      },
    },
    {
      title: 'Print in two inks',
      words: ['duotone print', 'two colours', 'riso', 'poster of two colours'],
      values: {
        colours: [
          [0, [0.1, 0.16, 0.36]],
          [0.5, [0.86, 0.36, 0.3]],
          [1, [0.97, 0.93, 0.85]],
        ],
        strength: 1,
        keep: false,
      },
    },
  ],
  params: {
    colours: ramp({
      label: 'Dark to bright',
      default: [
        [0, [0.05, 0.09, 0.22]],
        [0.5, [0.42, 0.47, 0.52]],
        [1, [1, 0.95, 0.84]],
      ],
      help: 'The colour that each brightness gets.',
    }),
    strength: number({
      label: 'Strength',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of it is taken.',
    }),
    keep: boolean({
      label: 'Keep how bright it is',
      default: true,
      help: 'Only hue and saturation come from the ramp.',
    }),
  },
  idle: (v) => v.strength === 0,
  prepare(v, { kernels, arena, scratch }) {
    const at = scratch((STEPS + 1) * 16);
    const table = arena.floats(at, (STEPS + 1) * 4);
    for (let i = 0; i <= STEPS; i++) table.set([...rampAt(v.colours, i / STEPS), v.strength], i * 4);
    return (src, dst, n) => kernels.toneSpan(src, dst, n, at, STEPS, v.keep ? 1 : 0);
  },
});
