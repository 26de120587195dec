import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number, type NumberParam } from '../params/number';
import { size } from '../params/size';
import { litBy, type Look } from '../solids/light';
import { boundsOfTriangles, seenTriangles, TRIANGLE } from '../solids/seen';
import { clearPicture } from './clear';
import { defineSource } from './define';
import { shape } from './shape';
import { linesIn, loadExtrusion, posedBodies, styleOf, type Solid } from './solid-bodies';
import { title } from './title';

type Rgb = readonly [number, number, number];
const TEXT = { when: { choice: 'of', is: 'text' } };
const forms = (...is: string[]) => ({ when: { choice: 'of', is } });
const { text, font, weight, align, tracking, leading, done, by, order, overlap, x, y, turn, seed } = title.params;
const figure = shape.params;

const STANDS = 'How it stands';
const ARRIVAL = 'Arrival';
const px = (label: string, initial: number, most: number, slider: number, help: string, group?: string): NumberParam =>
  number({
    label,
    unit: 'px',
    default: initial,
    min: 0,
    max: most,
    slider: [0, slider],
    help,
    ...(group && { group }),
  });
const share = (label: string, initial: number, help: string, group: string, most = 1): NumberParam =>
  number({ label, unit: '%', default: initial, min: 0, max: most, slider: [0, most], help, group });
/** What a part of it is made of. */
const look = (group: string, its: string, initial: Rgb, glow: number, gloss: number) =>
  [
    colour({ label: `Colour of ${its}`, default: initial, help: 'In full light.', group }),
    share(`Glow of ${its}`, glow, 'How bright it is without any light.', group),
    share(`Gloss of ${its}`, gloss, 'How strongly lights are mirrored in it.', group),
  ] as const;
/** Where a light is, and what it gives. */
const light = (group: string, around: number, height: number, strength: number, tone: Rgb) =>
  [
    share('Strength', strength, 'How bright it is.', group, 4),
    angle({ label: 'Comes from', default: around, help: '0° from the right, 90° from below, −90° from above.', group }),
    number({
      label: 'Above the picture',
      unit: '°',
      default: height,
      min: -90,
      max: 90,
      slider: [-30, 90],
      help: 'At 0° it grazes the picture, at 90° it comes from the eye, below 0° from behind.',
      group,
    }),
    colour({ label: 'Colour of the light', default: tone, help: 'Its colour.', group }),
  ] as const;

const front = look('Front', 'the front', [0.94, 0.82, 0.56], 0.25, 0.35);
const side = look('Sides', 'the sides', [0.74, 0.42, 0.2], 0.04, 0.5);
const back = look('Back', 'the back', [0.42, 0.26, 0.18], 0.05, 0);
const one = light('First light', -125, 50, 0.75, [1, 0.97, 0.9]);
const two = light('Second light', 20, 30, 0.4, [0.72, 0.82, 1]);
const three = light('Third light', -60, 8, 0.6, [1, 0.85, 0.65]);

/** Text or a figure with depth. */
export const solid = defineSource({
  type: 'solid',
  title: 'Solid title',
  words: [
    '3d text',
    '3-d title',
    'three-dimensional letters',
    'extrude',
    'extruded',
    'logo with depth',
    'block letters',
  ],
  help: 'Text or a figure with depth, lit by three lights: letters that turn, fly in, or grow towards the viewer. Drop shadow and Glow work on it. Relatives: Title and Shape, which are flat; Tilt of the place, which turns flat pictures.',
  params: {
    of: choice({
      label: 'Made of',
      default: 'text',
      options: [
        { value: 'text', label: 'text' },
        ...['rectangle', 'ellipse', 'polygon', 'star', 'arrow'].map((value) => ({ value, label: value })),
        { value: 'path', label: 'free path' },
      ],
      help: 'What gets depth.',
    }),
    text: { ...text, most: 200, ...TEXT },
    font: { ...font, ...TEXT },
    weight: { ...weight, ...TEXT },
    letter: number({
      label: 'Letter height',
      unit: 'px',
      default: 150,
      min: 1,
      max: 4000,
      slider: [10, 400],
      help: 'Height of a capital letter.',
      ...TEXT,
    }),
    align: { ...align, ...TEXT },
    tracking: { ...tracking, default: 0.04, ...TEXT },
    leading: { ...leading, ...TEXT },
    paths: { ...figure.paths, help: 'The closed paths, rectangles and ellipses of this layer.', ...forms('path') },
    width: { ...figure.width, default: 400, ...forms('rectangle', 'ellipse', 'polygon', 'star', 'arrow') },
    height: { ...figure.height, default: 400, ...forms('rectangle', 'ellipse', 'polygon', 'star', 'arrow') },
    radius: { ...figure.radius, ...forms('rectangle') },
    corners: { ...figure.corners, ...forms('polygon', 'star') },
    inner: { ...figure.inner, ...forms('star') },
    head: { ...figure.head, ...forms('arrow') },
    shaft: { ...figure.shaft, ...forms('arrow') },
    deep: px('Depth', 70, 16384, 800, 'From its back to its front. Keyframes of it let it grow.'),
    grows: choice({
      label: 'Grows',
      default: 'away',
      options: [
        { value: 'away', label: 'away from the viewer' },
        { value: 'towards', label: 'towards the viewer' },
        { value: 'both', label: 'both ways' },
      ],
      help: 'Where its depth goes from the place where it has the size that its dials say.',
    }),
    bevel: px('Bevel', 4, 400, 40, 'How far its edges are cut off; no more than thin strokes bear.'),
    tip: angle({
      label: 'Tip',
      default: -14,
      help: 'About the level axis: above 0° its top goes away.',
      group: STANDS,
    }),
    swing: angle({
      label: 'Swing',
      default: 24,
      help: 'About the upright axis: above 0° its right side goes away.',
      group: STANDS,
    }),
    roll: angle({ label: 'Roll', default: 0, help: 'In the picture, clockwise.', group: STANDS }),
    eye: number({
      label: 'Camera away',
      unit: 'px',
      default: 1500,
      min: 50,
      max: 1e6,
      slider: [200, 6000],
      help: 'How far away the camera is: the nearer, the stronger the perspective.',
      group: STANDS,
    }),
    frontColour: front[0],
    frontGlow: front[1],
    frontGloss: front[2],
    sideColour: side[0],
    sideGlow: side[1],
    sideGloss: side[2],
    backColour: back[0],
    backGlow: back[1],
    backGloss: back[2],
    strength1: one[0],
    around1: one[1],
    height1: one[2],
    light1: one[3],
    strength2: two[0],
    around2: two[1],
    height2: two[2],
    light2: two[3],
    strength3: three[0],
    around3: three[1],
    height3: three[2],
    light3: three[3],
    done: { ...done, ...TEXT },
    by: { ...by, ...TEXT },
    order: { ...order, ...TEXT },
    overlap: { ...overlap, ...TEXT },
    x: { ...x, ...TEXT },
    y: { ...y, ...TEXT },
    z: number({
      label: 'Nearer',
      unit: 'px',
      default: 0,
      min: -16384,
      max: 16384,
      slider: [-1200, 1200],
      help: 'How much nearer to the viewer each begins; below 0 farther away.',
      group: ARRIVAL,
      ...TEXT,
    }),
    startSize: number({
      label: 'Begin at size',
      unit: '%',
      default: 0,
      min: 0,
      max: 20,
      slider: [0, 4],
      help: 'The size that each begins with.',
      group: ARRIVAL,
      ...TEXT,
    }),
    turn: { ...turn, ...TEXT },
    startSwing: angle({
      label: 'Begin swung',
      default: 90,
      help: 'How far each is turned at first about its upright axis.',
      group: ARRIVAL,
      ...TEXT,
    }),
    seed,
    size: size({
      label: 'Size',
      default: [1280, 720],
      help: 'How large the picture is that it stands in the middle of.',
    }),
  },
  timed: false,
  lines: (v) => (v.of === 'text' ? linesIn(v).map((line) => [line, styleOf(v)]) : []),
  // masks of text and of other figures are no part of them
  moment: (v) => (v.of === 'path' ? {} : { paths: null }),
  ready: loadExtrusion,
  draw(v, tools) {
    const { kernels, arena } = tools;
    const { w, h } = tools.size;
    const list = seenTriangles(posedBodies(v as unknown as Solid, tools), { middle: [w / 2, h / 2], distance: v.eye });
    const picture = clearPicture(tools, boundsOfTriangles(list));
    const { rect } = picture;
    const count = list.length / TRIANGLE;
    if (!picture.pixels || !count) return picture;
    for (let at = 0; at < list.length; at += TRIANGLE)
      for (let k = 0; k < 9; k += 3) {
        list[at + k]! -= rect.x;
        list[at + k + 1]! -= rect.y;
      }
    const { looks, lights } = litBy(v as unknown as Look);
    arena.lending((scratch) => {
      const lent = (floats: Float32Array): number => {
        const at = scratch(floats.byteLength + 16);
        arena.floats(at, floats.length).set(floats);
        return at;
      };
      const work = scratch(kernels.solidWork(count, rect.w, rect.h));
      const eye = [w / 2 - rect.x, h / 2 - rect.y, v.eye] as const;
      kernels.drawSolid(lent(list), count, picture.at, rect.w, rect.h, lent(looks), 3, lent(lights), ...eye, work);
    });
    return picture;
  },
});
