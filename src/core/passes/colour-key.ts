import { modelScreen, type ScreenModel } from '../analysis/screen-model';
import { toLinear } from '../picture/light';
import { Picture } from '../picture/picture';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { plate } from '../params/plate';
import { samples } from '../params/samples';
import type { Colour } from '../params/define';
import { fitEdges, rowsOf } from './fit-edges';
import { COMBINE, definePass, type PassTools } from './define';
import { EDGE_COLOUR, extendColour, FINISH, finishAt, marksBytes, RULED } from './finishing';

const MOST = 8;
const TILE = 16;
/** How flat the luma may be before it stops guiding. */
const EPS = 1e-4;
const LUMINANCE = [0.2126, 0.7152, 0.0722] as const;
/** Least colour difference that a screen is taken to have. */
const LEAST = 0.004;

/** The dials with which a share of the subject found by luminance comes out of the clips as it is; turned away from them, it is moved as the matte is. */
const NEUTRAL = { tolerance: 0.1, softness: 0.8, clipBlack: 0.2 };

/** The channel that a screen colour is strongest in, and by how much it exceeds the others (linear light). */
export function screenOf(colour: Colour): { channel: number; linear: [number, number, number]; difference: number } {
  const linear = colour.map(toLinear) as [number, number, number];
  const channel = linear.indexOf(Math.max(...linear));
  const others = linear.filter((_, i) => i !== channel);
  return { channel, linear, difference: linear[channel]! - Math.max(...others) };
}

/**
 * Colour key. Models the screen as it is lit: its colour at every place comes from the pixels that have the picked hue, or from
 * a clean plate, and is carried on under the subject. Each pixel is unmixed in linear light into foreground and screen,
 * C = αF + (1−α)S. The matte's edge is made to follow the brightness, which coded video keeps at full size while it halves the
 * colour. Source: Vlahos' colour-difference key; He et al. 2010 for the edge; Smith & Blinn 1996.
 */
export const colourKey = definePass({
  type: 'colour-key',
  title: 'Colour key',
  group: 'cut out',
  words: [
    'green screen',
    'blue screen',
    'chroma key',
    'remove green background',
    'remove background',
    'cut out',
    'spill',
    'matte',
  ],
  help: 'Makes a coloured screen clear and takes its light out of the edges. Pick the screen on the picture, or let it be found. Relatives: Difference key, Crop and masks for the parts that the screen does not reach, Light wrap.',
  params: {
    screen: samples({
      finds: true,
      label: 'Screen',
      default: [],
      most: MOST,
      help: 'Colours picked from the screen. Pick on the picture; drag to average an area, Shift to add one more.',
    }),
    plate: plate({
      label: 'Clean plate',
      help: 'A picture of the screen without the subject. Without one, the screen is modelled from each frame.',
    }),
    balance: number({
      label: 'Balance',
      unit: '%',
      default: 0,
      min: -0.9,
      max: 0.9,
      slider: [-0.5, 0.5],
      help: 'Which of the two other channels counts more: for green, red to the left and blue to the right.',
    }),
    tolerance: number({
      label: 'Tolerance',
      unit: '%',
      default: NEUTRAL.tolerance,
      min: 0,
      max: 0.95,
      slider: [0, 0.6],
      help: 'How far from the screen still counts as screen.',
    }),
    softness: number({
      label: 'Softness',
      unit: '%',
      default: NEUTRAL.softness,
      min: 0.01,
      max: 2,
      slider: [0.01, 1.2],
      help: 'Width of the ramp from clear to solid.',
    }),
    clipBlack: number({
      label: 'Clip black',
      unit: '%',
      default: NEUTRAL.clipBlack,
      min: 0,
      max: 0.99,
      slider: [0, 0.6],
      help: 'Matte values below this become clear.',
    }),
    clipWhite: number({
      label: 'Clip white',
      unit: '%',
      default: 1,
      min: 0.01,
      max: 1,
      slider: [0.4, 1],
      help: 'Matte values above this become solid.',
    }),
    ...FINISH,
    guide: number({
      label: 'Edge detail',
      unit: 'px',
      default: 2,
      min: 0,
      max: 8,
      slider: [0, 8],
      help: 'How far around a pixel the brightness guides the edge of the matte. 0 leaves the edge as the colour alone gives it.',
    }),
    fit: number({
      label: 'Edge fit',
      unit: 'px',
      default: 0,
      min: 0,
      max: 40,
      slider: [0, 20],
      help: 'Computes edges anew from the colours on both their sides, for hair and for edges that are soft or moving. How far out hair is looked for; 6 is good for most. 0 leaves edges as they are cut.',
    }),
    spill: number({
      label: 'Spill',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of the screen colour reflected onto the subject is taken out.',
    }),
    limit: choice({
      label: 'Spill limit',
      default: 'maximum',
      options: [
        { value: 'maximum', label: 'larger of the others' },
        { value: 'average', label: 'mean of the others' },
      ],
      help: 'What the screen’s channel may be at most; the mean takes out more.',
    }),
    replace: choice({
      label: 'Spill becomes',
      default: 'nothing',
      options: [
        { value: 'nothing', label: 'nothing' },
        { value: 'grey', label: 'grey' },
        { value: 'colour', label: 'a colour' },
      ],
      help: 'What is put in place of the spill, as bright as that was.',
    }),
    replacement: samples({
      label: 'Colour for spill',
      default: [],
      most: 1,
      from: 'shot',
      when: { choice: 'replace', is: 'colour' },
      help: 'The colour that spill becomes when it becomes a colour: chosen, picked on the shot, or the background’s mean.',
    }),
    edgeColour: { ...EDGE_COLOUR, default: 3 },
    ...RULED,
    combine: COMBINE,
  },
  idle: (v) => v.screen.length === 0,
  // the screen is modelled from all that there is of it
  reach: () => Infinity,
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const plane = w * h * 4 + 12; // the kernels work on four pixels at a time
    const params = writeParams(v, arena, scratch);
    const rows = gridRows(screenModel(picture, v, tools), v, tools);
    const [alpha, luma] = [scratch(plane), scratch(plane)];
    for (let y = 0; y < h; y++)
      kernels.keyAlpha(picture.row(y), w, alpha + y * w * 4, luma + y * w * 4, params, rows(y));
    const clips = clipsOf(v);
    const around = Math.round(v.fit);
    const fitted =
      around > 0
        ? fitEdges({ matte: alpha, ...clips }, picture, around, tools, (marks) =>
            guided(alpha, luma, picture, v, tools, marks),
          )
        : null;
    // a fitted matte has been through its clips
    if (fitted !== null) arena.floats(params, 14).set([0, 1], 5);
    const refined = fitted?.matte ?? guided(alpha, luma, picture, v, tools);
    const inside = v.spill > 0 ? fitted?.inside() : null;
    const { channel } = screenOf(v.screen[0]!);
    finishAt(refined, picture, v, tools);
    const out = Picture.make(arena, picture.rect);
    const edge = v.edgeColour > 0 ? { channel, marks: scratch(marksBytes(out)) } : null;
    for (let y = 0; y < h; y++) {
      kernels.keyUnmix(picture.row(y), out.row(y), w, refined + y * w * 4, params, rows(y));
      if (fitted && inside) kernels.limitRim(out.row(y), w, fitted.marks + y * w, inside(y), channel, v.spill);
      // marked while the row is at hand
      if (edge) kernels.edgeMarks(out.row(y), w, edge.marks + y * w);
    }
    if (edge) extendColour(out, v.edgeColour, tools, edge);
    return out;
  },
});

/** A matte made to follow the luma. @param marks pixels that need it are those without one; null when all do @returns where it is: the same when nothing guides it */
function guided(
  alpha: number,
  luma: number,
  { rect: { w, h } }: Picture,
  v: KeyValues,
  { kernels, scratch }: PassTools,
  marks: number | null = null,
): number {
  const r = guideRadius(v.guide);
  if (!r) return alpha;
  const out = scratch(w * h * 4 + 12);
  const block = scratch(guideScratch(TILE, r));
  const [offset, gain] = shareScale(v);
  for (let y = 0; y < h; y += TILE) {
    for (let x = 0; x < w; x += TILE)
      if (marks === null || !kernels.allSure(marks, w, h, x, y, TILE))
        kernels.guideTile(alpha, luma, out, w, h, x, y, TILE, r, EPS, offset, gain, block);
  }
  return out;
}

const guideRadius = (guide: number): number => Math.min(8, Math.round(guide));
/** Bytes that guideTile works in: three blocks of four floats and one of one. */
export const guideScratch = (tile: number, r: number): number => (tile + 4 * r) ** 2 * (3 * 16 + 4);

/** From a share by luminance to the scale of the matte before its clips. */
function shareScale(v: KeyValues): [offset: number, gain: number] {
  if (v.fit > 0) return [v.clipBlack, v.clipWhite - v.clipBlack];
  const gain = ((1 - NEUTRAL.clipBlack) * NEUTRAL.softness) / v.softness;
  return [NEUTRAL.clipBlack - gain * (v.tolerance - NEUTRAL.tolerance), gain];
}

function screenModel(
  picture: Picture,
  v: { screen: readonly Colour[]; plate: Parameters<PassTools['plate']>[0] },
  tools: PassTools,
): ScreenModel {
  const screens = v.screen.map(screenOf);
  return modelScreen(
    tools,
    tools.plate(v.plate, picture.rect) ?? picture,
    screens[0]!.channel,
    screens.map(({ linear }) => linear),
  );
}

/** The model's rows as the kernels want them, between its cells: linear colour and 1/(its colour difference). */
function gridRows(
  { w, h, cells }: ScreenModel,
  v: { screen: readonly Colour[]; balance: number },
  tools: PassTools,
): (y: number) => number {
  const { channel } = screenOf(v.screen[0]!);
  const [one, two] = [channel === 0 ? 1 : 0, channel === 2 ? 1 : 2];
  const [first, second] = weights(v.balance);
  const wide = w + 2;
  const grid = tools.scratch(wide * h * 16);
  const floats = tools.arena.floats(grid, wide * h * 4);
  for (let y = 0, to = 0; y < h; y++) {
    for (let x = 0; x < wide; x++, to += 4) {
      const at = (y * w + Math.min(w - 1, Math.max(0, x - 1))) * 3;
      const difference = cells[at + channel]! - Math.max(first * cells[at + one]!, second * cells[at + two]!);
      for (let c = 0; c < 3; c++) floats[to + c] = cells[at + c]!;
      floats[to + 3] = 1 / Math.max(difference, LEAST);
    }
  }
  return rowsOf(grid, wide, h, tools);
}

/** What the first and the second of the other channels count, from a balance −1…1. */
const weights = (balance: number): [number, number] => [1 - Math.max(0, balance), 1 - Math.max(0, -balance)];

interface KeyValues {
  guide: number;
  fit: number;
  screen: readonly Colour[];
  balance: number;
  tolerance: number;
  softness: number;
  clipBlack: number;
  clipWhite: number;
  spill: number;
  limit: string;
  replace: string;
  replacement: readonly Colour[];
}

const clipsOf = (v: Pick<KeyValues, 'clipBlack' | 'clipWhite'>): { offset: number; gain: number } => ({
  offset: v.clipBlack,
  gain: 1 / (Math.max(v.clipWhite, v.clipBlack + 0.01) - v.clipBlack),
});

/** The kernels' parameters, laid out as src/kernels/key.ts says. */
function writeParams(v: KeyValues, arena: PassTools['arena'], scratch: PassTools['scratch']): number {
  const { channel } = screenOf(v.screen[0]!);
  const at = scratch(14 * 4);
  const colour = v.replace === 'colour' && v.replacement[0] ? v.replacement[0].map(toLinear) : [1, 1, 1];
  const bright = Math.max(
    1e-3,
    colour.reduce((sum, part, i) => sum + part * LUMINANCE[i]!, 0),
  );
  const replaced = v.replace === 'nothing' || (v.replace === 'colour' && !v.replacement[0]) ? 0 : 1;
  arena
    .floats(at, 14)
    .set([
      channel,
      ...weights(v.balance),
      v.tolerance,
      1 / v.softness,
      clipsOf(v).offset,
      clipsOf(v).gain,
      v.spill,
      v.limit === 'average' ? 1 : 0,
      replaced,
      ...colour.map((part) => part / bright),
      LUMINANCE[channel]!,
    ]);
  return at;
}
