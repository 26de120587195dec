import { finishMatte } from '../../masks/finish';
import { choice } from '../../params/choice';
import { number } from '../../params/number';
import { samples } from '../../params/samples';
import { lookOf } from '../../base/hue';
import { Picture } from '../../picture/picture';
import { projectiveProduct } from '../../picture/matrix';
import { definePass, type PassTools } from '../define';
import { hueMatrix, saturationMatrix } from './colour';
import { channelTables, shareTable } from './tables';
import { toneOf } from './tone';

const MORE = 'Range';
const CLEAN = 'Clean up';
const INSIDE = 'Inside';
const OUTSIDE = 'Outside';

/** Dials of one side, the same inside and outside. */
const side = (group: string) => ({
  exposure: number({
    group,
    label: `${group}: light`,
    unit: 'stops',
    default: 0,
    min: -8,
    max: 8,
    slider: [-2, 2],
    help: 'Light there.',
  }),
  saturation: number({
    group,
    label: `${group}: saturation`,
    unit: '%',
    default: 1,
    min: 0,
    max: 4,
    slider: [0, 2],
    help: 'Strength of the colours there; 0 % is grey.',
  }),
  hue: number({
    group,
    label: `${group}: hue`,
    unit: '°',
    default: 0,
    min: -180,
    max: 180,
    slider: [-180, 180],
    help: 'Turns the hues there.',
  }),
  contrast: number({
    group,
    label: `${group}: contrast`,
    unit: '%',
    default: 0,
    min: -1,
    max: 1,
    slider: [-1, 1],
    help: 'Spread of the tones there.',
  }),
});
const [inside, outside] = [side(INSIDE), side(OUTSIDE)];

const ramp = (beyond: number, soft: number): number => Math.min(1, Math.max(0, 1 - beyond / Math.max(1e-4, soft)));
const between = (v: number, all: readonly number[], spare: number, soft: number): number =>
  ramp(Math.max(0, Math.min(...all) - spare - v, v - Math.max(...all) - spare), soft);
/** How far a hue lies from the nearest of some, in turns. */
const away = (hue: number, all: readonly number[]): number =>
  Math.min(...all.map((own) => Math.abs(((((hue - own) % 1) + 1.5) % 1) - 0.5)));

/** Picked colours graded apart from everything else. */
export const colourRange = definePass({
  type: 'colour-range',
  title: 'Colour range',
  group: 'grade',
  words: [
    'secondary',
    'selective colour',
    'keep one colour',
    'only red',
    'change a colour',
    'isolate',
    'grey but one colour',
    'qualifier',
    'replace colour',
    'sky',
    'skin',
  ],
  help: 'Pick colours on the picture (Shift adds more) and grade what is like them apart from the rest. To keep one colour while the rest goes grey, set Outside: saturation to 0. Relatives: Hue curves; Hue key, which cuts out.',
  params: {
    colours: samples({
      label: 'Colours',
      most: 12,
      default: [],
      picks: {
        says: 'Click on the colour to grade; drag to take the mean of an area; Shift adds another.',
        empty: 'No colour is picked yet, so nothing is graded apart. Choose Pick, then click on the picture.',
      },
      help: 'What is like these is inside.',
    }),
    show: choice({
      label: 'Show',
      default: 'picture',
      options: [
        { value: 'picture', label: 'the graded picture' },
        { value: 'range', label: 'what is inside' },
        { value: 'matte', label: 'what is inside, as grey' },
      ],
      help: 'What is inside is shown as it is, the rest dimmed and grey; or as white on black.',
    }),
    hueSpare: number({
      group: MORE,
      label: 'Hue: spare',
      unit: '°',
      default: 12,
      min: 0,
      max: 180,
      slider: [0, 90],
      help: 'How far other hues may be off the picked ones.',
    }),
    hueSoft: number({
      group: MORE,
      label: 'Hue: soft',
      unit: '°',
      default: 14,
      min: 0,
      max: 180,
      slider: [0, 90],
      help: 'Ramp beyond.',
    }),
    saturationSpare: number({
      group: MORE,
      label: 'Saturation: spare',
      unit: '%',
      default: 0.25,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How far paler and stronger colours may be off.',
    }),
    saturationSoft: number({
      group: MORE,
      label: 'Saturation: soft',
      unit: '%',
      default: 0.2,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Ramp beyond.',
    }),
    lumaSpare: number({
      group: MORE,
      label: 'Brightness: spare',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How far darker and brighter ones may be off.',
    }),
    lumaSoft: number({
      group: MORE,
      label: 'Brightness: soft',
      unit: '%',
      default: 0.25,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'Ramp beyond.',
    }),
    grow: number({
      group: CLEAN,
      label: 'Grow',
      unit: 'px',
      default: 0,
      min: -50,
      max: 50,
      slider: [-10, 10],
      help: 'Moves the border of the range outwards, inwards when negative.',
    }),
    feather: number({
      group: CLEAN,
      label: 'Feather',
      unit: 'px',
      default: 1.5,
      min: 0,
      max: 200,
      slider: [0, 20],
      help: 'Softens its border.',
    }),
    specks: number({
      group: CLEAN,
      label: 'Drop crumbs',
      unit: 'px',
      default: 0,
      min: 0,
      max: 200,
      slider: [0, 40],
      help: 'Leaves out parts up to this many pixels across.',
    }),
    inExposure: inside.exposure,
    inSaturation: inside.saturation,
    inHue: inside.hue,
    inContrast: inside.contrast,
    outExposure: outside.exposure,
    outSaturation: outside.saturation,
    outHue: outside.hue,
    outContrast: outside.contrast,
  },
  selection: { show: 'matte' },
  idle: (v) => !v.colours.length || (v.show === 'picture' && same(v)),
  reach: (v) => (v.specks > 0 ? Infinity : Math.ceil(Math.abs(v.grow) + v.feather) + 2),
  run(picture, v, tools) {
    const { kernels, scratch } = tools;
    const { w, h } = picture.rect;
    const looks = v.colours.map(lookOf);
    const hues = looks.map(({ hue }) => hue);
    const hue = shareTable((x) => ramp(away(x, hues) - v.hueSpare / 360, v.hueSoft / 360), tools);
    const saturation = shareTable(
      (x) =>
        between(
          x,
          looks.map((look) => look.saturation),
          v.saturationSpare,
          v.saturationSoft,
        ),
      tools,
    );
    const luma = shareTable(
      (x) =>
        between(
          x,
          looks.map((look) => look.luma),
          v.lumaSpare,
          v.lumaSoft,
        ),
      tools,
    );
    const plane = scratch(picture.pixels * 4 + 12);
    kernels.colourRangePlane(picture.at, picture.pixels, hue.at, saturation.at, luma.at, hue.steps, plane);
    const area = (across: number) => (Math.PI / 4) * across * across;
    if (v.grow !== 0 || v.feather > 0 || v.specks > 0)
      finishMatte(tools, plane, w, h, {
        gamma: 1,
        shrink: -v.grow,
        feather: v.feather,
        holes: 0,
        specks: area(v.specks),
      });
    if (v.show === 'matte') return greyOf(plane, picture, tools);
    const sides =
      v.show === 'range'
        ? ([{ ...PLAIN }, { ...PLAIN, saturation: 0, exposure: -2 }] as const)
        : ([
            { exposure: v.inExposure, saturation: v.inSaturation, hue: v.inHue, contrast: v.inContrast },
            { exposure: v.outExposure, saturation: v.outSaturation, hue: v.outHue, contrast: v.outContrast },
          ] as const);
    const out = Picture.make(tools.arena, picture.rect);
    const within = Picture.make(tools.arena, picture.rect);
    graded(picture, out, sides[1], tools);
    graded(picture, within, sides[0], tools);
    kernels.lerpByPlane(out.at, within.at, plane, out.at, out.pixels);
    within.release();
    return out;
  },
});

/** Coverage as solid grey. */
function greyOf(plane: number, like: Picture, { kernels, arena }: PassTools): Picture {
  const out = Picture.make(arena, like.rect);
  const white = Picture.make(arena, like.rect);
  kernels.fill(out.at, out.pixels, 0, 0, 0, 1);
  kernels.fill(white.at, white.pixels, 1, 1, 1, 1);
  kernels.lerpByPlane(out.at, white.at, plane, out.at, out.pixels);
  white.release();
  return out;
}

interface Side {
  exposure: number;
  saturation: number;
  hue: number;
  contrast: number;
}
const PLAIN: Side = { exposure: 0, saturation: 1, hue: 0, contrast: 0 };
const REST = { pivot: 0.46, gamma: 1, black: 0, white: 1, fill: 0, shoulder: 0 };

function graded(from: Picture, to: Picture, own: Side, tools: Pick<PassTools, 'kernels' | 'arena' | 'scratch'>): void {
  const { kernels, arena, scratch } = tools;
  const at = scratch(9 * 4);
  arena
    .floats(at, 9)
    .set(
      own.hue === 0
        ? saturationMatrix(own.saturation)
        : projectiveProduct(saturationMatrix(own.saturation), hueMatrix(own.hue)),
    );
  kernels.matrixSpan(from.at, to.at, from.pixels, at);
  if (own.exposure === 0 && own.contrast === 0) return;
  const curve = (v: number) => toneOf(v, { ...REST, exposure: own.exposure, contrast: own.contrast });
  const table = channelTables([curve, curve, curve], tools);
  kernels.adjustSpan(to.at, to.at, to.pixels, table.at, table.steps, 1);
}
const same = (
  v: Record<
    'inExposure' | 'inSaturation' | 'inHue' | 'inContrast' | 'outExposure' | 'outSaturation' | 'outHue' | 'outContrast',
    number
  >,
): boolean =>
  v.inExposure === 0 &&
  v.inSaturation === 1 &&
  v.inHue === 0 &&
  v.inContrast === 0 &&
  v.outExposure === 0 &&
  v.outSaturation === 1 &&
  v.outHue === 0 &&
  v.outContrast === 0;
