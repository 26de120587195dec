import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { size } from '../params/size';
import { text } from '../params/text';
import { fillRings } from '../masks/raster';
import type { Ring } from '../masks/path';
import { Picture } from '../picture/picture';
import { FONTS, type LineStyle, type TextLine } from '../text/fonts';
import { defineSource } from './define';

interface Setting {
  /** pixels */
  height: number;
  /** baseline to baseline, in heights of a capital */
  leading: number;
  align: 'left' | 'centre' | 'right';
  /** 0…1 of the letters, from the first on */
  shown: number;
}
/**
 * Lines of text set about the origin, as outlines in pixels, y down. The block of capitals is centred upright, and by its widest line sideways.
 * Aligned as a whole even when only some of the letters show.
 */
export function setLines(lines: readonly TextLine[], { height, leading, align, shown }: Setting): Ring[] {
  const widest = Math.max(0, ...lines.map(({ width }) => width));
  const tall = 1 + (lines.length - 1) * leading;
  const all = lines.reduce((sum, { ends }) => sum + ends.length, 0);
  let left = Math.round(shown * all);
  return lines.flatMap(({ rings, width, ends }, i) => {
    const seen = Math.min(ends.length, left);
    left -= seen;
    const x = align === 'left' ? -widest / 2 : align === 'right' ? widest / 2 - width : -width / 2;
    const y = 1 - tall / 2 + i * leading;
    return rings.slice(0, seen ? ends[seen - 1] : 0).map((ring) => ring.map((v, k) => (v + (k % 2 ? y : x)) * height));
  });
}
const linesIn = (all: string): string[] => all.split(/\r?\n/);

/** Text. */
export const title = defineSource({
  type: 'title',
  title: 'Title',
  words: [
    'text',
    'letters',
    'words',
    'caption',
    'subtitle',
    'lower third',
    'name',
    'heading',
    'credits',
    'type',
    'typing',
  ],
  help: 'Text, drawn sharp at any size. Outline and Drop shadow set it off; keyframes of Shown type it letter by letter. Relatives: text masks, which cut a picture by letters.',
  params: {
    text: text({ label: 'Text', default: 'Title', most: 2000, help: 'What it says; Enter begins a new line.' }),
    colour: colour({ label: 'Colour', default: [0.96, 0.95, 0.92], help: 'The colour of the letters.' }),
    font: choice({ label: 'Font', default: 'archivo', options: FONTS, help: 'What the letters look like.' }),
    weight: choice({
      label: 'Weight',
      default: 'bold',
      options: [
        { value: 'regular', label: 'regular' },
        { value: 'bold', label: 'bold' },
      ],
      help: 'How heavy they are, in fonts that have both.',
    }),
    height: number({
      label: 'Letter height',
      unit: 'px',
      default: 96,
      min: 1,
      max: 4000,
      slider: [10, 400],
      help: 'Height of a capital letter.',
    }),
    align: choice({
      label: 'Lines',
      default: 'centre',
      options: [
        { value: 'left', label: 'begin together' },
        { value: 'centre', label: 'are centred' },
        { value: 'right', label: 'end together' },
      ],
      help: 'How several lines stand to each other.',
    }),
    tracking: number({
      label: 'Apart',
      unit: '%',
      default: 0,
      min: -0.5,
      max: 4,
      slider: [-0.2, 1],
      help: 'Space added between letters, in per cent of a capital’s height.',
    }),
    leading: number({
      label: 'Line to line',
      unit: '%',
      default: 1.6,
      min: 0,
      max: 10,
      slider: [1, 3],
      help: 'From one line to the next, in per cent of a capital’s height.',
    }),
    shown: number({
      label: 'Shown',
      unit: '%',
      default: 1,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How many of the letters are there, from the first on. Keyframes of it type the text.',
    }),
    size: size({
      label: 'Size',
      default: [1280, 720],
      help: 'How large the picture is that it stands in the middle of.',
    }),
  },
  timed: false,
  lines: (v) => linesIn(v.text).map((line) => [line, styleOf(v)]),
  draw(v, { kernels, arena, size: { w, h }, line }) {
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    const lines = linesIn(v.text).map((one) => line(one, styleOf(v)));
    const rings = setLines(lines, v as Setting).map((ring) => ring.map((x, i) => x + (i % 2 ? h : w) / 2));
    const plane = fillRings(rings, w, h);
    arena.scratch(plane.byteLength, (at) => {
      arena.floats(at, plane.length).set(plane);
      kernels.overPlane(picture.at, at, picture.pixels, ...v.colour, 1);
    });
    return picture;
  },
});
const styleOf = (v: { font: string; weight: string; tracking: number }): LineStyle => v as LineStyle;
