import { rampFor } from '../analysis/automatic';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { COMBINE, definePass } from './define';
import { cutByTable, RANGE_RULED } from './range-key';

/** Matte of a brightness key at a luma 0…1, before which end is kept. */
export function brightnessMatte(
  luma: number,
  v: { threshold: number; softness: number; clipBlack: number; clipWhite: number; gamma: number },
): number {
  const ramp = Math.max(v.softness, 1e-4);
  const raw = Math.min(1, Math.max(0, (luma - v.threshold) / ramp + 0.5));
  const white = Math.max(v.clipWhite, v.clipBlack + 0.001);
  return Math.min(1, Math.max(0, (raw - v.clipBlack) / (white - v.clipBlack))) ** (1 / v.gamma);
}

/** Brightness key: keeps what is bright, or what is dark. Brightness is the BT.709 luma of the display-encoded colour. */
export const brightnessKey = definePass({
  type: 'brightness-key',
  title: 'Brightness key',
  group: 'cut out',
  fine: true,
  words: [
    'luma key',
    'remove black background',
    'remove white background',
    'brightness',
    'cut out',
    'matte',
    'fire',
    'smoke',
    'text on black',
  ],
  help: 'Makes dark or bright parts clear: a light on black, ink on white. Relatives: the blend modes screen and multiply, Hue key.',
  params: {
    keep: choice({
      label: 'Keep',
      default: 'bright',
      options: [
        { value: 'bright', label: 'what is bright' },
        { value: 'dark', label: 'what is dark' },
      ],
      help: 'Which end stays.',
    }),
    threshold: number({
      label: 'Threshold',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Brightness in the middle of the ramp.',
    }),
    softness: number({
      label: 'Softness',
      unit: '%',
      default: 0.2,
      min: 0,
      max: 2,
      slider: [0, 1],
      help: 'Width of the ramp from clear to solid.',
    }),
    clipBlack: number({
      label: 'Clear up to',
      unit: '%',
      default: 0,
      min: 0,
      max: 0.99,
      slider: [0, 0.6],
      help: 'Coverage up to this becomes clear.',
    }),
    clipWhite: number({
      label: 'Solid from',
      unit: '%',
      default: 1,
      min: 0.01,
      max: 1,
      slider: [0.4, 1],
      help: 'Coverage from this on becomes solid.',
    }),
    gamma: number({
      label: 'Matte gamma',
      unit: '',
      default: 1,
      min: 0.1,
      max: 10,
      slider: [0.2, 5],
      help: 'Above 1 the half-clear parts become more solid, below 1 more clear.',
    }),
    grey: number({
      label: 'Near grey only',
      unit: '%',
      default: 1,
      min: 0.01,
      max: 1,
      slider: [0.01, 1],
      help: '100 % keys every colour. Below that, colours stronger than this stay whatever their brightness.',
    }),
    ...RANGE_RULED,
    combine: COMBINE,
  },
  automatic: (reading, { keep }) => rampFor(reading, keep as 'bright' | 'dark'),
  reach: () => 0,
  run(picture, v, tools) {
    const bright = v.keep === 'bright';
    const ramp = { ...v, threshold: bright ? v.threshold : 1 - v.threshold };
    return cutByTable(
      picture,
      v,
      tools,
      (luma) => brightnessMatte(bright ? luma : 1 - luma, ramp),
      (...where) => tools.kernels.lumaKeySpan(...where, v.grey),
    );
  },
});
