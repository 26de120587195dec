import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { ramp } from '../params/ramp';
import { size } from '../params/size';
import { masks } from '../params/masks';
import { boundsOf } from '../masks/path';
import type { Picture } from '../picture/picture';
import { clearPicture } from './clear';
import { defineSource, type SourceTools } from './define';
import { drawnBox, fillPlane, linePlane, waysOf, type DrawnLine } from './figure';
import { fillRamp } from './gradient';

const side = (label: string, initial: number, help: string) =>
  number({ label, unit: 'px', default: initial, min: 0, max: 16384, slider: [0, 1280], help });
const share = (label: string, initial: number, help: string, group?: string, when?: string) =>
  number({
    label,
    unit: '%',
    default: initial,
    min: 0,
    max: 1,
    slider: [0, 1],
    help,
    ...(group && { group }),
    ...(when && { when: { choice: 'form', is: when } }),
  });
/** Forms by their names, with the values that a new one of them begins with. */
export const FORMS: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  rectangle: {},
  ellipse: { width: 400, height: 400 },
  polygon: { width: 400, height: 400 },
  star: { width: 400, height: 400 },
  line: { line: 10 },
  arrow: { width: 480, height: 200 },
  path: {},
};
const SOLID = ['rectangle', 'ellipse', 'polygon', 'star', 'arrow'];
const LINE = 'Outline';
const DRAWN = 'Drawn part';

/** The dial of a source that says what it is drawn as. */
const FORM_OF: Readonly<Record<string, string>> = { shape: 'form', solid: 'of' };
/** True for a source that is drawn by the masks of its layer. */
export const isFreePath = ({ type, values }: { type: string; values: Readonly<Record<string, unknown>> }): boolean =>
  (values[FORM_OF[type] ?? ''] as { still?: unknown } | undefined)?.still === 'path';

/** A drawn figure: filled, outlined, or drawn as a line that writes itself. */
export const shape = defineSource({
  type: 'shape',
  title: 'Shape',
  words: ['figure', 'drawing', 'vector', 'badge', 'outline'],
  help: 'A rectangle, an ellipse, a polygon, a star, a line, an arrow, or free paths that are drawn as masks are; sharp at any size. Keyframes of the drawn part let its outline write itself. Relatives: Title, Colour, masks.',
  params: {
    form: choice({
      label: 'Form',
      default: 'rectangle',
      options: Object.keys(FORMS).map((value) => ({ value, label: value === 'path' ? 'free path' : value })),
      help: 'What it is.',
    }),
    paths: masks({
      label: 'Drawn by',
      empty: 'all',
      open: true,
      help: 'The paths, rectangles and ellipses of this layer that it consists of. One that is not closed is a line.',
      when: { choice: 'form', is: 'path' },
    }),
    width: {
      ...side('Width', 640, 'From its left to its right.'),
      when: { choice: 'form', is: [...SOLID, 'line'] },
    },
    height: {
      ...side('Height', 240, 'From its top to its bottom.'),
      when: { choice: 'form', is: SOLID },
    },
    radius: {
      ...side('Corner radius', 0, 'Radius of the corners.'),
      slider: [0, 200],
      when: { choice: 'form', is: 'rectangle' },
    },
    corners: number({
      label: 'Points',
      unit: '',
      default: 5,
      min: 3,
      max: 200,
      slider: [3, 16],
      help: 'How many corners or points it has.',
      when: { choice: 'form', is: ['polygon', 'star'] },
    }),
    inner: share('Inner corners', 0.45, 'How far out the corners between the points lie.', undefined, 'star'),
    head: share('Head', 0.8, 'Length of the head, as a share of the height.', undefined, 'arrow'),
    shaft: share('Shaft', 0.4, 'Thickness of the shaft, as a share of the height.', undefined, 'arrow'),
    fill: choice({
      label: 'Filled with',
      default: 'colour',
      options: [
        { value: 'colour', label: 'a colour' },
        { value: 'ramp', label: 'colours' },
        { value: 'none', label: 'nothing' },
      ],
      help: 'What it is filled with. A line has only its outline.',
      when: { choice: 'form', is: [...SOLID, 'path'] },
    }),
    colour: colour({
      label: 'Colour',
      default: [0.86, 0.62, 0.3],
      help: 'The colour that it is filled with.',
      when: { choice: 'fill', is: 'colour' },
    }),
    colours: ramp({
      label: 'Colours',
      default: [
        [0, [0.93, 0.72, 0.38]],
        [1, [0.62, 0.3, 0.18]],
      ],
      help: 'The colours that it is filled with, from one end to the other.',
      when: { choice: 'fill', is: 'ramp' },
    }),
    run: angle({
      label: 'They run',
      default: 90,
      help: 'Which way: 0° to the right, 90° down.',
      when: { choice: 'fill', is: 'ramp' },
    }),
    line: number({
      label: 'Width of the line',
      unit: 'px',
      default: 6,
      min: 0,
      max: 4000,
      slider: [0, 60],
      help: 'Width of the outline; 0 for none.',
      group: LINE,
    }),
    lineColour: colour({
      label: 'Colour of the line',
      default: [0.96, 0.94, 0.88],
      help: 'Of the outline.',
      group: LINE,
    }),
    lies: choice({
      label: 'Lies',
      default: 'on',
      options: [
        { value: 'inside', label: 'inside' },
        { value: 'on', label: 'on the edge' },
        { value: 'outside', label: 'outside' },
      ],
      help: 'Which side of the edge it is on.',
      group: LINE,
      when: { choice: 'form', is: [...SOLID, 'path'] },
    }),
    cap: choice({
      label: 'Ends',
      default: 'round',
      options: ['flat', 'round', 'square'].map((value) => ({ value, label: value })),
      help: 'What the ends of lines and dashes look like.',
      group: LINE,
    }),
    join: choice({
      label: 'Corners',
      default: 'mitre',
      options: [
        { value: 'mitre', label: 'sharp' },
        { value: 'round', label: 'round' },
        { value: 'bevel', label: 'cut off' },
      ],
      help: 'What its corners look like.',
      group: LINE,
    }),
    dash: number({
      label: 'Dashes',
      unit: 'px',
      default: 0,
      min: 0,
      max: 16384,
      slider: [0, 200],
      help: 'Length of a dash; 0 for an unbroken line.',
      group: LINE,
    }),
    gap: number({
      label: 'Between them',
      unit: 'px',
      default: 20,
      min: 0,
      max: 16384,
      slider: [0, 200],
      help: 'From the end of a dash to the next.',
      group: LINE,
    }),
    from: share('From', 0, 'Where the drawn part of the outline begins, along its length.', DRAWN),
    to: share('To', 1, 'Where it ends. Keyframes of it draw the line.', DRAWN),
    shift: number({
      label: 'Moved along',
      unit: '%',
      default: 0,
      min: -100,
      max: 100,
      slider: [-1, 1],
      help: 'The drawn part moved along the outline.',
      group: DRAWN,
    }),
    taper: number({
      label: 'Thin ends',
      unit: '%',
      default: 0,
      min: 0,
      max: 0.5,
      slider: [0, 0.5],
      help: 'How much of the drawn part gets thinner towards each of its ends.',
      group: DRAWN,
    }),
    fade: number({
      label: 'Fading ends',
      unit: '%',
      default: 0,
      min: 0,
      max: 0.5,
      slider: [0, 0.5],
      help: 'How much of the drawn part fades out towards each of its ends.',
      group: DRAWN,
    }),
    order: choice({
      label: 'Several paths',
      default: 'after',
      options: [
        { value: 'after', label: 'one after another' },
        { value: 'together', label: 'all at once' },
      ],
      help: 'Whether the drawn part goes along all paths in their order, or along each of them.',
      group: DRAWN,
      when: { choice: 'form', is: 'path' },
    }),
    size: size({
      label: 'Size',
      default: [1280, 720],
      help: 'How large the picture is that it stands in the middle of.',
    }),
  },
  timed: false,
  // masks of other forms are no part of them
  moment: (v) => (v.form === 'path' ? {} : { paths: null }),
  extent(now) {
    const [w, h] = now('size') as readonly [number, number];
    if (now('form') === 'path') return { w, h };
    return { w: now('width') as number, h: (now('form') === 'line' ? now('line') : now('height')) as number };
  },
  draw(v, tools) {
    const { arena, kernels, size } = tools;
    const { w, h } = size;
    const ways = waysOf(v);
    const box = drawnBox(v, ways, size);
    const picture = clearPicture(tools, box === 'all' ? [0, 0, w, h] : box);
    const field = { rect: picture.rect, size };
    const covering = (plane: Float32Array, use: (plane: number) => void): void =>
      arena.scratch(plane.byteLength + 16, (at) => {
        arena.floats(at, plane.length).set(plane);
        use(at);
      });
    const filled = v.fill === 'none' || v.form === 'line' ? null : fillPlane(v, ways, field, tools);
    if (filled && v.fill === 'colour')
      covering(filled, (plane) => kernels.overPlane(picture.at, plane, picture.pixels, ...v.colour, 0));
    if (filled && v.fill === 'ramp')
      covering(filled, (plane) => {
        const run = ways.length ? boundsOf(ways.map(({ ring }) => ring)) : ([-w / 2, -h / 2, w / 2, h / 2] as const);
        fillAlong(picture, v, run, tools);
        kernels.scaleByPlane(picture.at, plane, picture.at, picture.pixels);
      });
    if (v.line > 0 && ways.length) {
      const line = { ...v, width: v.line, together: v.order === 'together' } as unknown as DrawnLine;
      covering(linePlane(ways, line, field), (plane) =>
        kernels.overPlane(picture.at, plane, picture.pixels, ...v.lineColour, 0),
      );
    }
    return picture;
  },
});

/** Fills a picture with colours that run across a shape. @param box of it, about the picture's middle: left, top, right, bottom */
function fillAlong(
  picture: Picture,
  v: { colours: Parameters<typeof fillRamp>[2]; run: number },
  [left, top, right, bottom]: readonly [number, number, number, number],
  tools: SourceTools,
): void {
  const { w, h } = tools.size;
  const turn = (v.run * Math.PI) / 180;
  const [dx, dy] = [Math.cos(turn), Math.sin(turn)];
  const half = (Math.abs((right - left) * dx) + Math.abs((bottom - top) * dy)) / 2;
  const at = (way: number): [number, number] => [
    (w + left + right) / 2 + way * half * dx - picture.rect.x,
    (h + top + bottom) / 2 + way * half * dy - picture.rect.y,
  ];
  fillRamp(tools, picture, v.colours, false, at(-1), at(1));
}
