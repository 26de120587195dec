import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { ramp } from '../params/ramp';
import { size } from '../params/size';
import { arrowRing, cornersRing } from '../masks/forms';
import { ellipseRing, rectangleRing } from '../masks/outline';
import type { Ring } from '../masks/path';
import { fillRings } from '../masks/raster';
import { strokeRings, type Stroke } from '../masks/stroke';
import { Picture } from '../picture/picture';
import { defineSource, type SourceTools } from './define';
import { fillRamp } from './gradient';

interface Form {
  form: string;
  width: number;
  height: number;
  radius: number;
  corners: number;
  inner: number;
  head: number;
  shaft: number;
}
/** A shape's way about the origin, in pixels. @returns also whether it is closed */
export function wayOf(v: Form): { ring: Ring; closed: boolean } {
  const box: [number, number] = [v.width, v.height];
  if (v.form === 'line') return { ring: Float64Array.of(-v.width / 2, 0, v.width / 2, 0), closed: false };
  const ring =
    v.form === 'ellipse'
      ? ellipseRing(box)
      : v.form === 'polygon'
        ? cornersRing(box, v.corners)
        : v.form === 'star'
          ? cornersRing(box, v.corners, v.inner)
          : v.form === 'arrow'
            ? arrowRing(box, v.head, v.shaft)
            : rectangleRing(box, v.radius);
  return { ring, closed: true };
}

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
};
const LINE = 'Outline';
const DRAWN = 'Drawn part';

/** A drawn figure: filled, outlined, or drawn as a line that writes itself. */
export const shape = defineSource({
  type: 'shape',
  title: 'Shape',
  words: ['figure', 'drawing', 'vector', 'badge', 'outline'],
  help: 'A rectangle, an ellipse, a polygon, a star, a line or an arrow, drawn sharp at any size. Keyframes of the drawn part let its outline write itself. Relatives: Title, Colour, masks.',
  params: {
    form: choice({
      label: 'Form',
      default: 'rectangle',
      options: Object.keys(FORMS).map((value) => ({ value, label: value })),
      help: 'What it is.',
    }),
    width: side('Width', 640, 'From its left to its right.'),
    height: {
      ...side('Height', 240, 'From its top to its bottom.'),
      when: { choice: 'form', is: ['rectangle', 'ellipse', 'polygon', 'star', 'arrow'] },
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
      when: { choice: 'form', is: ['rectangle', 'ellipse', 'polygon', 'star', 'arrow'] },
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
      when: { choice: 'form', is: ['rectangle', 'ellipse', 'polygon', 'star', 'arrow'] },
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
    size: size({
      label: 'Size',
      default: [1280, 720],
      help: 'How large the picture is that it stands in the middle of.',
    }),
  },
  timed: false,
  extent: (now) => ({
    w: now('width') as number,
    h: (now('form') === 'line' ? now('line') : now('height')) as number,
  }),
  draw(v, tools) {
    const { arena, kernels, size } = tools;
    const { w, h } = size;
    const picture = Picture.make(arena, { x: 0, y: 0, w, h });
    kernels.fill(picture.at, picture.pixels, 0, 0, 0, 0);
    const { ring, closed } = wayOf(v);
    const middle = (rings: readonly Ring[]): Ring[] => rings.map((own) => own.map((x, i) => x + (i % 2 ? h : w) / 2));
    const covering = (rings: readonly Ring[], use: (plane: number) => void): void => {
      const plane = fillRings(middle(rings), w, h);
      arena.scratch(plane.byteLength + 16, (at) => {
        arena.floats(at, plane.length).set(plane);
        use(at);
      });
    };
    if (closed && v.fill === 'colour')
      covering([ring], (plane) => kernels.overPlane(picture.at, plane, picture.pixels, ...v.colour, 0));
    if (closed && v.fill === 'ramp')
      covering([ring], (plane) => {
        fillAlong(picture, v, tools);
        kernels.scaleByPlane(picture.at, plane, picture.at, picture.pixels);
      });
    const rings = strokeRings(ring, closed, {
      ...(v as unknown as Stroke),
      width: v.line,
      lies: !closed || v.lies === 'on' ? 0 : v.lies === 'inside' ? 1 : -1,
    });
    if (rings.length)
      covering(rings, (plane) => kernels.overPlane(picture.at, plane, picture.pixels, ...v.lineColour, 0));
    return picture;
  },
});

/** Fills a picture with colours that run across a shape in its middle. */
function fillAlong(
  picture: Picture,
  v: { colours: Parameters<typeof fillRamp>[2]; run: number; width: number; height: number },
  tools: SourceTools,
): void {
  const { w, h } = tools.size;
  const turn = (v.run * Math.PI) / 180;
  const [dx, dy] = [Math.cos(turn), Math.sin(turn)];
  const half = (Math.abs(v.width * dx) + Math.abs(v.height * dy)) / 2;
  const at = (way: number): [number, number] => [w / 2 + way * half * dx, h / 2 + way * half * dy];
  fillRamp(tools, picture, v.colours, false, at(-1), at(1));
}
