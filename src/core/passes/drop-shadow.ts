import { angle } from '../params/angle';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { blurPlane } from '../masks/soften';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { intersect, type Rect } from '../picture/rect';
import { definePass } from './define';

const RADIANS = Math.PI / 180;
interface Cast {
  angle: number;
  distance: number;
  softness: number;
  spread: number;
}
const offset = ({ angle: at, distance }: Cast): [number, number] => [
  Math.round(Math.cos(at * RADIANS) * distance),
  Math.round(Math.sin(at * RADIANS) * distance),
];
/** Pixels that the shadow reaches beyond its own place. */
const blurred = ({ softness, spread }: Cast): number => Math.ceil(3 * softness) + Math.ceil(spread) + 1;

/** Drop shadow: the layer's coverage, grown, moved, blurred and coloured, under the layer itself. */
export const dropShadow = definePass({
  type: 'drop-shadow',
  title: 'Drop shadow',
  group: 'light',
  space: 'shot',
  words: ['shadow', 'lift off', 'float', 'depth', 'under it', 'stand out', 'cast'],
  help: 'Lays a soft shadow of the layer’s shape under it. Works after Place, so that it follows every move, turn and tilt. Relatives: Outline, Light wrap.',
  params: {
    angle: angle({ label: 'Direction', default: 60, help: 'Where the shadow falls: 0° is right, 90° is down.' }),
    distance: number({
      label: 'Distance',
      unit: 'px',
      default: 18,
      min: 0,
      max: 2000,
      slider: [0, 120],
      help: 'How far it falls.',
    }),
    softness: number({
      label: 'Softness',
      unit: 'px',
      default: 10,
      min: 0,
      max: 300,
      slider: [0, 60],
      help: 'How blurred its edge is.',
    }),
    spread: number({
      label: 'Spread',
      unit: 'px',
      default: 0,
      min: 0,
      max: 200,
      slider: [0, 40],
      help: 'How much larger than the layer it is, before it is blurred.',
    }),
    colour: colour({ label: 'Colour', default: [0, 0, 0], help: 'What it is made of.' }),
    opacity: number({
      label: 'Opacity',
      unit: '%',
      default: 0.55,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How dark it is.',
    }),
  },
  idle: (v) => v.opacity === 0,
  reach: (v) => blurred(v) + Math.ceil(v.distance),
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const { rect } = picture;
    const [dx, dy] = offset(v);
    const around = blurred(v);
    // the shape with room to grow, where it stands
    const wide: Rect = { x: rect.x - around, y: rect.y - around, w: rect.w + 2 * around, h: rect.h + 2 * around };
    const shape = Picture.make(arena, wide);
    kernels.fill(shape.at, shape.pixels, 0, 0, 0, 0);
    for (let y = 0; y < rect.h; y++)
      kernels.copy(picture.row(y), shape.row(y + around) + around * BYTES_PER_PIXEL, rect.w);
    const spread = Math.round(v.spread);
    const room = (wide.w * wide.h + 2 * Math.max(wide.w, wide.h) + 2 * spread) * 4;
    if (spread > 0) arena.scratch(room, (at) => kernels.growAlpha(shape.at, wide.w, wide.h, spread, at));
    const [r, g, b] = v.colour;
    if (v.softness > 0)
      arena.scratch(shape.pixels * 4 + 16, (plane) => {
        kernels.coveragePlane(shape.at, shape.pixels, 0, 0, plane);
        blurPlane(tools, plane, wide.w, wide.h, v.softness);
        kernels.overPlane(shape.at, plane, shape.pixels, r, g, b, 1);
      });
    kernels.colourByAlpha(shape.at, shape.pixels, r, g, b, v.opacity);
    // the shadow, moved, and the layer over it
    const x = Math.min(rect.x, wide.x + dx);
    const y = Math.min(rect.y, wide.y + dy);
    const whole: Rect = {
      x,
      y,
      w: Math.max(rect.x + rect.w, wide.x + dx + wide.w) - x,
      h: Math.max(rect.y + rect.h, wide.y + dy + wide.h) - y,
    };
    const out = Picture.make(arena, whole);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const over = (from: Picture, at: Rect): void => {
      const part = intersect(at, whole);
      for (let row = 0; row < part.h; row++)
        kernels.blendSpan(
          0,
          out.row(part.y - whole.y + row) + (part.x - whole.x) * BYTES_PER_PIXEL,
          from.row(row),
          part.w,
        );
    };
    over(shape, { ...wide, x: wide.x + dx, y: wide.y + dy });
    over(picture, rect);
    shape.release();
    return out;
  },
});
