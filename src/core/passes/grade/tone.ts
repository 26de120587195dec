import { toneFor } from '../../analysis/automatic';
import { curve, curveOf, type CurvePoint } from '../../params/curve';
import { toDisplay, toLinear } from '../../picture/light';
import { number } from '../../params/number';
import { definePass, type ChannelCurves } from '../define';
import { curveRunner, shareTable, smooth } from './tables';

const RANGES = 'Dark, middle, bright';
const DRAWN = 'A part drawn by hand';
const ENDS = 'Ends';
const stops = (label: string, help: string, group = RANGES) =>
  number({ group, label, unit: 'stops', default: 0, min: -4, max: 4, slider: [-1.5, 1.5], help });
const strength = (label: string, help: string, group = RANGES) =>
  number({ group, label, unit: '%', default: 1, min: 0, max: 4, slider: [0, 2], help });
const level = (label: string, begins: number, slider: [number, number], help: string) =>
  number({ group: ENDS, label, unit: '%', default: begins, min: -0.5, max: 1.5, slider, help });

/** A part about the middle, until another is drawn. */
const HILL: readonly CurvePoint[] = [
  [0, 0],
  [0.3, 0],
  [0.5, 1],
  [0.7, 0],
  [1, 0],
];

/** Values of the dials that make the curve of all channels. */
interface Curved {
  exposure: number;
  contrast: number;
  pivot: number;
  gamma: number;
  black: number;
  white: number;
  fill: number;
  shoulder: number;
}

/** What becomes of a display-encoded value: light in stops, ends, gamma, contrast about a pivot, then the two soft ends. */
export function toneOf(v: number, d: Curved): number {
  const lit = d.exposure === 0 ? v : toDisplay(toLinear(v) * 2 ** d.exposure);
  const spread = (lit - d.black) / Math.max(0.01, d.white - d.black);
  const bent = d.gamma === 1 ? spread : Math.max(0, spread) ** (1 / d.gamma);
  const slope = d.contrast >= 0 ? 1 + 2 * d.contrast : 1 + d.contrast;
  const turned = (bent - d.pivot) * slope + d.pivot;
  const held = Math.max(0, turned);
  const filled = d.fill === 0 || held >= 1 ? held : held + d.fill * 0.6 * held ** 0.5 * (1 - held) ** 3;
  const knee = 1 - 0.6 * d.shoulder;
  if (d.shoulder === 0 || filled <= knee) return filled;
  const over = (filled - knee) / (1 - knee);
  return knee + ((1 - knee) * over) / (1 + over);
}

function curvesOf(v: Curved): ChannelCurves {
  const of = (x: number): number => toneOf(x, v);
  return { of: [of, of, of], saturation: 1 };
}

/** How much a luma belongs to the dark, the middle and the bright. @returns together 1 */
export function sharesOf(
  { darkTo, brightFrom, soft }: Record<'darkTo' | 'brightFrom' | 'soft', number>,
  luma: number,
): [dark: number, middle: number, bright: number] {
  const dark = 1 - smooth(darkTo - soft / 2, darkTo + soft / 2, luma);
  const bright = smooth(brightFrom - soft / 2, brightFrom + soft / 2, luma);
  const rest = Math.max(0, 1 - dark - bright);
  const whole = dark + bright + rest;
  return [dark / whole, rest / whole, bright / whole];
}

/** Light and tones: exposure, contrast, ends, and dark, middle and bright parts each by themselves. */
export const tone = definePass({
  type: 'tone',
  title: 'Tone',
  group: 'grade',
  words: [
    'exposure',
    'contrast',
    'levels',
    'black point',
    'white point',
    'gamma',
    'shadows',
    'highlights',
    'mid-tones',
    'brighter',
    'darker',
    'fill light',
    'roll-off',
    'too dark',
    'too bright',
    'drawn range',
    'brightness range',
  ],
  help: 'Sets how bright the picture is and how its tones lie between black and white; dark, middle and bright parts, and one that you draw, also by themselves. Relatives: Tone curves, Balance, Colour.',
  uses: [
    {
      title: 'Bleached film',
      words: ['bleach', 'bleach bypass', 'silver left in the film', 'hard and pale'],
      values: { contrast: 0.28, shoulder: 0.3, darkColour: 0.5, middleColour: 0.4, brightColour: 0.25 },
    },
  ],
  params: {
    exposure: number({
      label: 'Exposure',
      unit: 'stops',
      default: 0,
      min: -10,
      max: 10,
      slider: [-3, 3],
      help: 'Light, in doublings.',
    }),
    contrast: number({
      label: 'Contrast',
      unit: '%',
      default: 0,
      min: -1,
      max: 1,
      slider: [-1, 1],
      help: 'Spread of the tones about the pivot.',
    }),
    pivot: number({
      label: 'Pivot',
      unit: '%',
      default: 0.46,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'The tone that contrast leaves as it is; 46 % is middle grey.',
    }),
    gamma: number({
      label: 'Gamma',
      unit: '',
      default: 1,
      min: 0.1,
      max: 10,
      slider: [0.4, 2.5],
      help: 'Above 1 brightens the middle and leaves the ends.',
    }),
    black: level('Black at', 0, [-0.2, 0.4], 'The tone that becomes black.'),
    white: level('White at', 1, [0.5, 1.2], 'The tone that becomes white.'),
    fill: number({
      group: ENDS,
      label: 'Fill the dark',
      unit: '%',
      default: 0,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Opens dark parts, and leaves black.',
    }),
    shoulder: number({
      group: ENDS,
      label: 'Soften the bright',
      unit: '%',
      default: 0,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Lets bright parts run out softly instead of clipping, as film does.',
    }),
    dark: stops('Dark parts', 'Light of the dark parts alone.'),
    darkColour: strength('Colour of the dark', 'Strength of the colours there.'),
    middle: stops('Middle parts', 'Light of the middle alone.'),
    middleColour: strength('Colour of the middle', 'Strength of the colours there.'),
    bright: stops('Bright parts', 'Light of the bright parts alone.'),
    brightColour: strength('Colour of the bright', 'Strength of the colours there.'),
    darkTo: number({
      group: RANGES,
      label: 'Dark up to',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Where dark goes over into the middle.',
    }),
    brightFrom: number({
      group: RANGES,
      label: 'Bright from',
      unit: '%',
      default: 0.65,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Where the middle goes over into bright.',
    }),
    soft: number({
      group: RANGES,
      label: 'Over',
      unit: '%',
      default: 0.4,
      min: 0.02,
      max: 1,
      slider: [0.02, 1],
      help: 'How wide they go over into each other.',
    }),
    part: curve({
      group: DRAWN,
      label: 'Drawn part',
      over: 'brightness',
      heights: 'belongs by',
      default: HILL,
      help: 'How much each brightness belongs to it: any shape over the histogram, with several hills if you like.',
    }),
    partLight: stops('Light there', 'Light of this part alone.', DRAWN),
    partColour: strength('Colour there', 'Strength of the colours there.', DRAWN),
  },
  automatic: toneFor,
  ranges: {
    lights: ['dark', 'middle', 'bright'],
    limits: ['darkTo', 'brightFrom'],
    presets: [
      { title: 'even parts', values: { darkTo: 0.35, brightFrom: 0.65, soft: 0.4 } },
      { title: 'the ends only', values: { darkTo: 0.12, brightFrom: 0.88, soft: 0.2 } },
      { title: 'two halves', values: { darkTo: 0.5, brightFrom: 0.5, soft: 0.6 } },
      { title: 'hard borders', values: { darkTo: 0.33, brightFrom: 0.67, soft: 0.06 } },
    ],
    shares: sharesOf,
  },
  idle: (v) =>
    v.exposure === 0 &&
    v.contrast === 0 &&
    v.gamma === 1 &&
    v.black === 0 &&
    v.white === 1 &&
    v.fill === 0 &&
    v.shoulder === 0 &&
    plainRanges(v),
  curves: (v) => (plainRanges(v) ? curvesOf(v) : null),
  prepare(v, tools) {
    const first = curveRunner(curvesOf(v), tools);
    if (plainRanges(v)) return first;
    const part = curveOf(v.part);
    const gains = shareTable((luma) => {
      const [dark, middle, bright] = sharesOf(v, luma);
      const lit = v.dark * dark + v.middle * middle + v.bright * bright + v.partLight * part(luma);
      const at = Math.max(luma, 1e-3);
      return toDisplay(toLinear(at) * 2 ** lit) / at;
    }, tools);
    const colours = shareTable((luma) => {
      const [dark, middle, bright] = sharesOf(v, luma);
      const drawn = 1 + (v.partColour - 1) * part(luma);
      return (v.darkColour * dark + v.middleColour * middle + v.brightColour * bright) * drawn;
    }, tools);
    return (src, dst, n, x, y) => {
      first(src, dst, n, x, y);
      tools.kernels.byLumaSpan(dst, dst, n, gains.at, colours.at, gains.steps);
    };
  },
});

const plainRanges = (
  v: Record<
    'dark' | 'middle' | 'bright' | 'darkColour' | 'middleColour' | 'brightColour' | 'partLight' | 'partColour',
    number
  >,
): boolean =>
  v.dark === 0 &&
  v.middle === 0 &&
  v.bright === 0 &&
  v.darkColour === 1 &&
  v.middleColour === 1 &&
  v.brightColour === 1 &&
  v.partLight === 0 &&
  v.partColour === 1;
