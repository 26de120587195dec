import type { CoveragePlan } from '../masks/coverage';
import { halfWayLines, withDistance } from '../masks/distance';
import { BLEND_MODES } from '../picture/blend';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { copyInto } from '../picture/rows';
import { choice } from '../params/choice';
import { masks } from '../params/masks';
import { number } from '../params/number';
import { ramp, rampAt, type RampStop } from '../params/ramp';
import { samples } from '../params/samples';
import { definePass, type PassTools } from './define';

/** A line along a matte or along masks. */
export const outline = definePass({
  type: 'outline',
  title: 'Outline',
  group: 'cut out',
  words: ['stroke', 'border', 'contour', 'rim', 'line around', 'cartoon', 'neon'],
  help: 'Draws a line along the edge of what was cut out, or along masks. Give its width or opacity a jitter and it flickers. Relatives: Refine edge, Blur in an area.',
  params: {
    along: masks({
      label: 'Along',
      empty: 'none',
      help: 'The masks along which it runs; without a choice it runs along the layer’s own edge.',
    }),
    edge: choice({
      label: 'Own edge',
      default: 'cover',
      options: [
        { value: 'cover', label: 'of what is there' },
        { value: 'bright', label: 'of its bright parts' },
      ],
      help: 'Without masks to run along: around what is not clear, or around all that is brighter than said.',
    }),
    bright: number({
      label: 'Brighter than',
      unit: '%',
      default: 0.5,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'From this brightness on.',
      when: { choice: 'edge', is: 'bright' },
    }),
    width: number({ label: 'Width', unit: 'px', default: 6, min: 0, max: 500, slider: [0, 40], help: 'Of the line.' }),
    side: choice({
      label: 'Lies',
      default: 'outside',
      options: [
        { value: 'outside', label: 'outside' },
        { value: 'middle', label: 'on the edge' },
        { value: 'inside', label: 'inside' },
      ],
      help: 'Which side of the edge it is on.',
    }),
    off: number({
      label: 'Off the edge',
      unit: 'px',
      default: 0,
      min: -500,
      max: 500,
      slider: [-40, 40],
      help: 'How far the line is moved outwards, or inwards below 0.',
    }),
    feather: number({
      label: 'Feather',
      unit: 'px',
      default: 1,
      min: 0,
      max: 200,
      slider: [0, 30],
      help: 'Width of the line’s soft rims.',
    }),
    fade: number({
      label: 'Fades outwards',
      unit: 'px',
      default: 0,
      min: 0,
      max: 500,
      slider: [0, 60],
      help: 'How much softer its outer rim is.',
    }),
    filled: choice({
      label: 'Filled with',
      default: 'colour',
      options: [
        { value: 'colour', label: 'a colour' },
        { value: 'colours', label: 'colours across it' },
      ],
      help: 'What the line is filled with.',
    }),
    colour: {
      ...samples({ label: 'Colour', default: [[0.96, 0.9, 0.76]], most: 1, from: 'shot', help: 'Of the line.' }),
      when: { choice: 'filled', is: 'colour' },
    },
    colours: ramp({
      label: 'Colours',
      default: [
        [0, [1, 0.95, 0.75]],
        [0.5, [0.96, 0.6, 0.22]],
        [1, [0.6, 0.16, 0.1]],
      ],
      help: 'From the line’s inner edge to its outer one.',
      when: { choice: 'filled', is: 'colours' },
    }),
    opacity: number({
      label: 'Opacity',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much the line covers.',
    }),
    alone: choice({
      label: 'Shows',
      default: 'both',
      options: [
        { value: 'both', label: 'picture and line' },
        { value: 'line', label: 'the line alone' },
      ],
      help: 'Whether the picture stays below the line.',
    }),
  },
  idle: (v) => (v.width === 0 || v.opacity === 0) && v.alone === 'both',
  reach: (v) => reachOf(v),
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const rect = v.along.masks.length ? picture.rect : grow(picture.rect, reachOf(v));
    const { w, h } = rect;
    const out = Picture.make(arena, rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    copyInto(tools, picture, out);
    const at = edgePlane(out, v, tools);
    const inner = Math.max(1, v.feather);
    const outer = inner + v.fade;
    const from = (v.side === 'outside' ? -v.width : v.side === 'inside' ? 0 : -v.width / 2) - v.off;
    const edges = { lines: halfWayLines(tools, at, w, h) };
    const inside = scratch(w * h * 4 + 12);
    if (edges.lines.length)
      withDistance(tools, edges, w, h, v.width + Math.abs(v.off) + outer, (distance) => {
        kernels.insidePlane(at, distance, w * h, inside);
        kernels.ringPlane(inside, w * h, from, v.width, outer, inner, v.opacity, at);
      });
    else kernels.fillPlane(at, w * h, 0);
    const alone = v.alone === 'line' ? 1 : 0;
    if (v.filled === 'colour') kernels.overPlane(out.at, at, w * h, ...(v.colour[0] ?? WHITE), alone);
    else drawAcross(out, { inside, cover: at }, [from - v.fade / 2, from + v.width], v, tools);
    return out;
  },
});
const WHITE = [1, 1, 1] as const;
interface Line {
  width: number;
  feather: number;
  fade: number;
  off: number;
}
const reachOf = ({ width, feather, fade, off }: Line): number => Math.ceil(width + feather + fade + Math.abs(off)) + 1;

/** What the line runs along: a plane that is at half on its edge. */
function edgePlane(
  picture: Picture,
  v: { along: CoveragePlan; edge: string; bright: number },
  { kernels, scratch, coverage }: PassTools,
): number {
  const { pixels, rect } = picture;
  if (v.along.masks.length) return coverage(v.along, rect);
  const at = scratch(pixels * 4 + 12);
  const byBrightness = v.edge === 'bright';
  kernels.coveragePlane(picture.at, pixels, byBrightness ? 1 : 0, 0, at);
  if (byBrightness) kernels.rampPlane(at, pixels, v.bright - RISE / 2, RISE);
  return at;
}
/** Between a brightness and one that is so much higher an edge runs. */
const RISE = 0.04;

/** Colours of the table of a line. */
const STEPS = 256;
/** Draws a line whose colours change across it. @param ends its outer and its inner edge, pixels inside of what it runs along */
function drawAcross(
  picture: Picture,
  { inside, cover }: { inside: number; cover: number },
  [outer, inner]: readonly [number, number],
  { colours, alone }: { colours: readonly RampStop[]; alone: string },
  { kernels, arena, scratch }: PassTools,
): void {
  const { at, pixels, rect } = picture;
  const line = Picture.make(arena, rect);
  const table = scratch(STEPS * 16);
  const floats = arena.floats(table, STEPS * 4);
  for (let i = 0; i < STEPS; i++) floats.set([...rampAt(colours, 1 - i / (STEPS - 1)), 1], i * 4);
  kernels.tableColours(inside, line.at, pixels, outer, inner, table, STEPS);
  kernels.scaleByPlane(line.at, cover, line.at, pixels);
  if (alone === 'line') kernels.copy(line.at, at, pixels);
  else kernels.blendSpan(BLEND_MODES.indexOf('normal'), at, line.at, pixels);
  line.release();
}
