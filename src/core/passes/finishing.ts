import { finishMatte, isPlain, type Finish } from '../masks/finish';
import { gaussian } from '../picture/gaussian';
import { type Picture, Picture as Pictures } from '../picture/picture';
import { masks } from '../params/masks';
import { number } from '../params/number';
import { type PassTools } from './define';
import type { CoveragePlan } from '../masks/coverage';

/** Groups of a key's dials. */
export const EDGE = 'Edge';
export const LIGHT = 'Screen light';
export const TIDYING = 'Tidy';

/** Dials that move and soften a matte's edge, the same in every pass that has them. */
export const EDGES = {
  shrink: number({
    group: EDGE,
    label: 'Move in',
    unit: 'px',
    default: 0,
    min: -50,
    max: 50,
    slider: [-10, 10],
    help: 'Moves the edge inwards, outwards when negative; parts of a pixel count.',
  }),
  feather: number({
    group: EDGE,
    label: 'Soften',
    unit: 'px',
    default: 0,
    min: 0,
    max: 500,
    slider: [0, 40],
    help: 'Softens the edge by this width.',
  }),
  gamma: number({
    group: EDGE,
    label: 'Matte gamma',
    unit: '',
    default: 1,
    min: 0.1,
    max: 10,
    slider: [0.2, 5],
    help: 'Above 1 the half-clear parts become more solid, below 1 more clear.',
  }),
};
/** Edges from the colours on both their sides, in keys that have two of them. */
export const HAIR = number({
  group: EDGE,
  label: 'Hair and blur',
  unit: 'px',
  default: 0,
  begins: 6,
  min: 0,
  max: 40,
  slider: [0, 20],
  help: 'Computes edges anew from the colours on both their sides, for hair and for edges that are soft or moving: how far out they are looked for. 0 leaves edges as they are cut.',
});
/** Dials that clear up what a key left behind. */
export const TIDY = {
  holes: number({
    group: TIDYING,
    label: 'Close gaps',
    unit: 'px',
    default: 0,
    min: 0,
    max: 500,
    slider: [0, 60],
    help: 'Fills gaps in the subject up to this many pixels across.',
  }),
  specks: number({
    group: TIDYING,
    label: 'Drop crumbs',
    unit: 'px',
    default: 0,
    min: 0,
    max: 500,
    slider: [0, 60],
    help: 'Clears crumbs outside of the subject up to this many pixels across.',
  }),
};
/** Faint remains that a key leaves beside the subject and in it. */
export const SPOTS = number({
  group: TIDYING,
  label: 'Drop faint spots',
  unit: '%',
  default: 0,
  begins: 0.25,
  min: 0,
  max: 0.49,
  slider: [0, 0.49],
  help: 'Clears spots on the screen, and fills spots in the subject, that nowhere go further than this: what noise and coding leave behind.',
});
/** What is no more than this is not seen, and does not join one spot to another. */
const UNSEEN = 0.02;
/** What is larger than this share of the picture is no spot: it is thin smoke, or glass. */
const LARGEST = 0.001;
/** @param at w×h floats that `clips` have still to bring to 0…1 @param faint 0…½; 0 leaves all */
export function dropSpots(
  at: number,
  { rect: { w, h } }: Picture,
  faint: number,
  clips: { offset: number; gain: number },
  { kernels, arena }: PassTools,
): void {
  if (faint <= 0) return;
  const share = (v: number) => clips.offset + v / clips.gain;
  const drop = (scratch: number, to: 0 | 1) => {
    const from = (v: number) => share(to ? 1 - v : v);
    kernels.dropSpots(at, w, h, from(UNSEEN), from(faint), LARGEST * w * h, share(to), scratch);
  };
  arena.scratch(kernels.spotsScratch(w, h), (scratch) => {
    drop(scratch, 0);
    drop(scratch, 1);
  });
}
export const FINISH = { ...EDGES, ...TIDY };
export const EDGE_COLOUR = number({
  label: 'Edge colour',
  unit: 'px',
  default: 0,
  min: 0,
  max: 200,
  slider: [0, 30],
  help: 'Carries the colour of solid parts this far out into the soft edge.',
});
/** Masks that overrule a key. */
export const RULED = {
  keep: masks({
    group: TIDYING,
    label: 'Hold',
    empty: 'none',
    help: 'Inside these masks the matte is solid, whatever the key says.',
  }),
  drop: masks({
    group: TIDYING,
    label: 'Hole',
    empty: 'none',
    help: 'Inside these masks the matte is clear, whatever the key says.',
  }),
};
export interface FinishValues extends Finish {
  keep: CoveragePlan;
  drop: CoveragePlan;
}

/** How far around a pixel a finished matte and its edge's colour are read. Holes and specks are told by their whole size. */
export const finishReach = (
  v: Pick<FinishValues, 'shrink' | 'feather' | 'holes' | 'specks'>,
  edgeColour: number,
): number =>
  v.holes > 0 || v.specks > 0 ? Infinity : Math.ceil(Math.abs(v.shrink) + v.feather + 1.5 * edgeColour) + 2;

/** Finishes a matte in the arena and lets the keep and drop masks overrule it. @param at w×h floats */
export function finishAt(at: number, picture: Picture, v: FinishValues, tools: PassTools): void {
  const { kernels, coverage } = tools;
  const { w, h } = picture.rect;
  const area = (across: number) => (Math.PI / 4) * across * across;
  const finish = { gamma: v.gamma, shrink: v.shrink, feather: v.feather, holes: area(v.holes), specks: area(v.specks) };
  if (!isPlain(finish)) finishMatte(tools, at, w, h, finish);
  if (v.keep.masks.length) kernels.overrule(at, coverage(v.keep, picture.rect), w * h, 0);
  if (v.drop.masks.length) kernels.overrule(at, coverage(v.drop, picture.rect), w * h, 1);
}

/** Up to here it is quicker to look around each edge pixel than to blur the whole picture. */
const NEAR = 8;

/** What a key knows of its edges: the channel that the screen is strongest in, and the marks of the picture's pixels. */
export interface KeyedEdge {
  channel: number;
  marks: number;
}
/** Bytes for the marks of a picture's pixels. */
export const marksBytes = ({ pixels }: Picture): number => pixels + 32;

/**
 * Puts the colour of nearby solid pixels into those that are partly clear, in place, and into those beside them that still have
 * the screen's light. @param reach pixels @param keyed when there is a screen
 */
export function extendColour(
  picture: Picture,
  reach: number,
  { kernels, arena, scratch }: PassTools,
  keyed: KeyedEdge | null = null,
): void {
  const { w, h } = picture.rect;
  const marks = keyed?.marks ?? scratch(marksBytes(picture));
  if (keyed) kernels.besideMarks(marks, w, h);
  else kernels.edgeMarks(picture.at, w * h, marks);
  const channel = keyed?.channel ?? 0;
  if (reach <= NEAR) return kernels.extendNear(picture.at, w, h, Math.ceil(reach), marks, channel);
  const lent = Pictures.make(arena, picture.rect);
  kernels.lendersOnly(picture.at, marks, lent.at, w * h);
  gaussian({ kernels, arena }, lent.at, lent.at, w, h, Math.max(0.5, reach / 2), true);
  kernels.colourFrom(picture.at, lent.at, marks, w * h, channel);
  lent.release();
}
