import { projectiveProduct as product, type Projective } from '../../picture/matrix';
import { number } from '../../params/number';
import { definePass } from '../define';
import { shareTable } from './tables';

const MIXER = 'Channels';
const LUMA = [0.2126, 0.7152, 0.0722] as const;
const part = (label: string, begins: number, help: string) =>
  number({ group: MIXER, label, unit: '%', default: begins, min: -4, max: 4, slider: [-1, 2], help });
const mixer = (to: string): Record<'Red' | 'Green' | 'Blue', ReturnType<typeof part>> => ({
  Red: part(`${to} from red`, to === 'Red' ? 1 : 0, `How much of the red channel goes into ${to.toLowerCase()}.`),
  Green: part(
    `${to} from green`,
    to === 'Green' ? 1 : 0,
    `How much of the green channel goes into ${to.toLowerCase()}.`,
  ),
  Blue: part(`${to} from blue`, to === 'Blue' ? 1 : 0, `How much of the blue channel goes into ${to.toLowerCase()}.`),
});
const [red, green, blue] = [mixer('Red'), mixer('Green'), mixer('Blue')];

/** Away from the BT.709 luma, or towards it. */
export const saturationMatrix = (by: number): Projective =>
  Array.from({ length: 9 }, (_, i) => LUMA[i % 3]! * (1 - by) + (i % 4 === 0 ? by : 0)) as unknown as Projective;
/** A turn of the colour-difference plane of BT.709: luma stays. @param degrees from red towards yellow */
export function hueMatrix(degrees: number): Projective {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  // Cb and Cr of BT.709
  const [kb, kr] = [1.8556, 1.5748];
  const forth: Projective = [
    ...LUMA,
    -LUMA[0] / kb,
    -LUMA[1] / kb,
    (1 - LUMA[2]) / kb,
    (1 - LUMA[0]) / kr,
    -LUMA[1] / kr,
    -LUMA[2] / kr,
  ];
  const turn: Projective = [1, 0, 0, 0, c, -s, 0, s, c];
  const back: Projective = [1, 0, kr, 1, (-LUMA[2] * kb) / LUMA[1], (-LUMA[0] * kr) / LUMA[1], 1, kb, 0];
  return product(back, product(turn, forth));
}

/** Strength and hue of the colours, and the channels mixed anew. */
export const colour = definePass({
  type: 'colour',
  title: 'Colour',
  group: 'grade',
  words: [
    'saturation',
    'vibrance',
    'hue',
    'black and white',
    'channel mixer',
    'more colourful',
    'desaturate',
    'colour correction',
    'greyscale',
  ],
  help: 'Strengthens or fades colours, turns their hues, mixes the channels. Relatives: Hue curves for single hues, Tint by brightness for colours that are put in.',
  params: {
    saturation: number({
      label: 'Saturation',
      unit: '%',
      default: 1,
      min: 0,
      max: 4,
      slider: [0, 2],
      help: 'Strength of all colours alike; 0 % is grey.',
    }),
    vibrance: number({
      label: 'Vibrance',
      unit: '%',
      default: 0,
      min: -1,
      max: 1,
      slider: [-1, 1],
      help: 'Strengthens pale colours more than strong ones, or fades them.',
    }),
    hue: number({
      label: 'Turn hues',
      unit: '°',
      default: 0,
      min: -360,
      max: 360,
      slider: [-180, 180],
      help: 'Turns all hues; how bright they are stays.',
    }),
    redRed: red.Red,
    redGreen: red.Green,
    redBlue: red.Blue,
    greenRed: green.Red,
    greenGreen: green.Green,
    greenBlue: green.Blue,
    blueRed: blue.Red,
    blueGreen: blue.Green,
    blueBlue: blue.Blue,
  },
  idle: (v) => v.vibrance === 0 && matrixOf(v).every((m, i) => Math.abs(m - (i % 4 ? 0 : 1)) < 1e-9),
  prepare(v, tools) {
    const { kernels, arena, scratch } = tools;
    const at = scratch(9 * 4);
    arena.floats(at, 9).set(matrixOf(v));
    if (v.vibrance === 0) return (src, dst, n) => kernels.matrixSpan(src, dst, n, at);
    const [none, one] = [shareTable(() => 0, tools), shareTable(() => 1, tools)];
    const pale = shareTable((s) => 1 + v.vibrance * (1 - s) ** 2, tools);
    return (src, dst, n) => {
      kernels.matrixSpan(src, dst, n, at);
      kernels.byHueSpan(dst, dst, n, none.at, one.at, one.at, pale.at, pale.steps);
    };
  },
});

type Mixed = Record<
  | 'saturation'
  | 'hue'
  | 'redRed'
  | 'redGreen'
  | 'redBlue'
  | 'greenRed'
  | 'greenGreen'
  | 'greenBlue'
  | 'blueRed'
  | 'blueGreen'
  | 'blueBlue',
  number
>;
function matrixOf(v: Mixed): Projective {
  const mixed: Projective = [
    v.redRed,
    v.redGreen,
    v.redBlue,
    v.greenRed,
    v.greenGreen,
    v.greenBlue,
    v.blueRed,
    v.blueGreen,
    v.blueBlue,
  ];
  const turned = v.hue === 0 ? mixed : product(hueMatrix(v.hue), mixed);
  return v.saturation === 1 ? turned : product(saturationMatrix(v.saturation), turned);
}
