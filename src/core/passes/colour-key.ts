import { screenOf, screenRows, weights } from '../analysis/screen-likeness';
import { toLinear } from '../picture/light';
import { Picture } from '../picture/picture';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { plate } from '../params/plate';
import { reading } from '../params/reading';
import { samples } from '../params/samples';
import type { Colour } from '../params/define';
import { CALM, calmed, calmMoments } from './calm';
import { fitEdges } from './fit-edges';
import { COMBINE, definePass, type PassTools } from './define';
import {
  SPOTS,
  dropSpots,
  EDGE,
  EDGE_COLOUR,
  EDGES,
  extendColour,
  finishAt,
  HAIR,
  LIGHT,
  marksBytes,
  RULED,
  TIDY,
  TIDYING,
} from './finishing';

const MOST = 8;
/** Rows of both sides of the edges, where nothing is known of them. */
const UNKNOWN = [0, 0, 0] as const;
/** How flat the luma may be before it stops guiding. */
const EPS = 1e-4;
const LUMINANCE = [0.2126, 0.7152, 0.0722] as const;

/** The dials with which a share of the subject found by luminance comes out of the clips as it is; turned away from them, it is moved as the matte is. */
const NEUTRAL = { tolerance: 0.1, softness: 0.8, clipBlack: 0.2 };

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
  fine: true,
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
      reads: 'reading',
      label: 'Screen',
      default: [],
      most: MOST,
      help: 'Colours picked from the screen. Pick on the picture; drag to average an area, Shift to add one more.',
    }),
    reading: reading({
      label: 'Plate',
      default: null,
      of: 'screen',
      balance: 'balance',
      clear: 'clipBlack',
      solid: 'clipWhite',
      calm: 'calm',
      ramp: ['tolerance', 'softness'],
      along: { tolerance: 0, softness: 1 },
      help: 'How unlike the screen the pixels are, and what the matte makes of that. Picking a screen reads the plate and sets both ends.',
    }),
    clipBlack: number({
      label: 'Clear up to',
      unit: '%',
      default: NEUTRAL.clipBlack,
      begins: 0.1,
      within: 'reading',
      min: 0,
      max: 0.99,
      slider: [0, 0.99],
      help: 'Pixels no more unlike the screen than this become clear.',
    }),
    clipWhite: number({
      label: 'Solid from',
      unit: '%',
      default: 1,
      begins: 0.9,
      within: 'reading',
      min: 0.01,
      max: 1,
      slider: [0.01, 1],
      help: 'Pixels at least as unlike the screen as this become solid.',
    }),
    plate: plate({
      label: 'Clean plate',
      help: 'A picture of the screen without the subject. Without one, the screen is modelled from each frame.',
    }),
    fit: HAIR,
    guide: number({
      group: EDGE,
      label: 'Follow brightness',
      unit: 'px',
      default: 2,
      min: 0,
      max: 8,
      slider: [0, 8],
      help: 'How far around a pixel the brightness guides sharp edges. 0 leaves them as the colour alone gives them.',
    }),
    ...EDGES,
    tolerance: number({
      group: EDGE,
      label: 'Ramp from',
      retired: true,
      unit: '%',
      default: NEUTRAL.tolerance,
      begins: 0,
      min: 0,
      max: 0.95,
      slider: [0, 0.6],
      help: 'How unlike the screen a pixel is where the ramp begins that both ends are counted on. Read the plate anew to do without.',
    }),
    softness: number({
      group: EDGE,
      label: 'Ramp width',
      retired: true,
      unit: '%',
      default: NEUTRAL.softness,
      begins: 1,
      min: 0.01,
      max: 2,
      slider: [0.01, 1.2],
      help: 'How long that ramp is.',
    }),
    spill: number({
      group: LIGHT,
      label: 'Take out',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of the screen’s light on the subject is taken out.',
    }),
    limit: choice({
      group: LIGHT,
      label: 'Down to',
      default: 'maximum',
      options: [
        { value: 'maximum', label: 'larger of the others' },
        { value: 'average', label: 'mean of the others' },
      ],
      help: 'What the screen’s channel may be at most; the mean takes out more.',
    }),
    replace: choice({
      group: LIGHT,
      label: 'In its place',
      default: 'nothing',
      options: [
        { value: 'nothing', label: 'nothing' },
        { value: 'grey', label: 'grey' },
        { value: 'colour', label: 'a colour' },
      ],
      help: 'What is put in place of the screen’s light, as bright as that was.',
    }),
    replacement: samples({
      group: LIGHT,
      label: 'Light in its place',
      default: [],
      most: 1,
      from: 'shot',
      when: { choice: 'replace', is: 'colour' },
      help: 'The colour that the screen’s light becomes: chosen, picked on the shot, or the background’s mean.',
    }),
    edgeColour: { ...EDGE_COLOUR, group: LIGHT, default: 3 },
    balance: number({
      group: LIGHT,
      label: 'Balance',
      unit: '%',
      default: 0,
      min: -0.9,
      max: 0.9,
      slider: [-0.5, 0.5],
      help: 'Which of the two other channels counts more: for green, red to the left and blue to the right.',
    }),
    ...TIDY,
    spots: SPOTS,
    calm: CALM,
    ...RULED,
    combine: { ...COMBINE, group: TIDYING },
  },
  idle: (v) => v.screen.length === 0,
  // the screen is modelled from all that there is of it
  reach: () => Infinity,
  moments: calmMoments,
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const seen = calmed(picture, v, tools);
    const plane = w * h * 4 + 12; // the kernels work on four pixels at a time
    const params = writeParams(v, arena, scratch);
    const rows = screenRows(tools.plate(v.plate, picture.rect) ?? seen, v.screen, v.balance, tools);
    const [alpha, luma] = [scratch(plane), scratch(plane)];
    for (let y = 0; y < h; y++) kernels.keyAlpha(seen.row(y), w, alpha + y * w * 4, luma + y * w * 4, params, rows(y));
    const clips = clipsOf(v);
    const around = Math.round(v.fit);
    const fitted =
      around > 0
        ? fitEdges({ matte: alpha, ...clips }, seen, around, tools, {
            guided: (near) => guided(alpha, luma, seen, v, tools, near),
            noisy: picture,
          })
        : null;
    // a fitted matte has been through its clips
    if (fitted !== null) arena.floats(params, 14).set([0, 1], 5);
    const refined = fitted?.matte ?? guided(alpha, luma, seen, v, tools);
    const inside = v.spill > 0 ? fitted?.inside() : null;
    const { channel } = screenOf(v.screen[0]!);
    dropSpots(refined, picture, v.spots, fitted ? { offset: 0, gain: 1 } : clips, tools);
    finishAt(refined, picture, v, tools);
    const out = Picture.make(arena, picture.rect);
    const edge = v.edgeColour > 0 ? { channel, marks: scratch(marksBytes(out)) } : null;
    for (let y = 0; y < h; y++) {
      const sides = fitted
        ? ([fitted.subject.colour(y), fitted.subject.stray(y), fitted.screen.stray(y)] as const)
        : UNKNOWN;
      kernels.keyUnmix(picture.row(y), out.row(y), w, refined + y * w * 4, params, rows(y), ...sides);
      if (fitted && inside)
        kernels.limitRim(out.row(y), w, fitted.marks + y * w, inside.colour(y), inside.stray(y), channel, v.spill);
      // marked while the row is at hand
      if (edge) kernels.edgeMarks(out.row(y), w, edge.marks + y * w);
    }
    if (edge) extendColour(out, v.edgeColour, tools, edge);
    seen.release();
    return out;
  },
});

/** A matte made to follow the luma. @param wanted pixels that need it, a byte each; 0 when all do @returns where it is: the same when nothing guides it */
function guided(
  alpha: number,
  luma: number,
  { rect: { w, h } }: Picture,
  v: KeyValues,
  { kernels, scratch }: PassTools,
  wanted = 0,
): number {
  const r = guideRadius(v.guide);
  if (!r) return alpha;
  const out = scratch(w * h * 4 + 12);
  const at = scratch(kernels.guideScratch(r));
  kernels.guidePlane(alpha, luma, out, w, h, wanted, r, EPS, ...shareScale(v), at);
  return out;
}

const guideRadius = (guide: number): number => Math.min(8, Math.round(guide));

/** From a share by luminance to the scale of the matte before its clips. */
function shareScale(v: KeyValues): [offset: number, gain: number] {
  if (v.fit > 0) return [v.clipBlack, v.clipWhite - v.clipBlack];
  const gain = ((1 - NEUTRAL.clipBlack) * NEUTRAL.softness) / v.softness;
  return [NEUTRAL.clipBlack - gain * (v.tolerance - NEUTRAL.tolerance), gain];
}

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
