import { toDisplay, toLinear } from '../../picture/light';
import { balanceMatrix, KELVIN, lightOf, NEUTRAL_KELVIN } from '../../picture/white';
import type { Colour } from '../../params/define';
import { number } from '../../params/number';
import { samples } from '../../params/samples';
import { definePass } from '../define';

/** Off the locus at a full turn of the tint dial, in the CIE 1960 diagram. */
const FULL_TINT = 0.05;
/** A colour this near to white has lost what told of its light. */
const CLIPPED = 0.985;

/** White balance: the light that a picture was taken in becomes neutral, by the daylight and black-body locus and Bradford's adaptation. */
export const balance = definePass({
  type: 'balance',
  title: 'Balance',
  group: 'grade',
  words: [
    'white balance',
    'temperature',
    'tint',
    'warmer',
    'colder',
    'colour cast',
    'kelvin',
    'too yellow',
    'too blue',
    'grey card',
  ],
  help: 'Makes the light of the picture neutral: pick something that should be white or grey, or turn it by hand. Relatives: Tone for the exposure.',
  params: {
    white: samples({
      label: 'Should be grey',
      most: 1,
      default: [],
      picks: {
        says: 'Click on something that should be white or grey; drag to take the mean of an area.',
        warns: ([r, g, b]) =>
          Math.max(r, g, b) > CLIPPED
            ? 'What you picked is clipped: it is too bright to tell its colour. Pick a grey that is darker.'
            : Math.min(r, g, b) < 0.02
              ? 'What you picked is too dark to tell its colour. Pick a brighter grey.'
              : null,
        sets: (colour) => asDials(colour),
      },
      help: 'Picked on the picture; sets temperature and tint.',
    }),
    temperature: number({
      label: 'Light was',
      unit: 'K',
      default: NEUTRAL_KELVIN,
      ...KELVIN,
      slider: [2000, 12000],
      help: 'Temperature of the light that becomes neutral: candles 1900, lamps 2800, noon 5500, shade 8000. Higher makes the picture warmer.',
    }),
    tint: number({
      label: 'Tint',
      unit: '%',
      default: 0,
      min: -1,
      max: 1,
      slider: [-1, 1],
      help: 'Towards green (negative) or magenta (positive).',
    }),
  },
  automatic: ({ grey }) => {
    const most = Math.max(...grey);
    return asDials(grey.map((part) => toDisplay((0.4 * part) / most)) as unknown as Colour);
  },
  idle: (v) => v.temperature === NEUTRAL_KELVIN && v.tint === 0,
  prepare(v, { kernels, arena, scratch }) {
    const at = scratch(9 * 4);
    arena.floats(at, 9).set(balanceMatrix(v.temperature, v.tint * FULL_TINT));
    return (src, dst, n) => kernels.lightMatrixSpan(src, dst, n, at);
  },
});

/** The dials that make a colour grey. @param colour display-encoded */
export function asDials(colour: Colour): { temperature: number; tint: number } {
  const { kelvin, green } = lightOf(colour.map((v) => Math.max(1e-4, toLinear(v))) as unknown as Colour);
  return {
    temperature: Math.round(kelvin),
    tint: Math.min(1, Math.max(-1, Math.round((green / FULL_TINT) * 1000) / 1000)),
  };
}
