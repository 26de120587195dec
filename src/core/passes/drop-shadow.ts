import { angle } from '../params/angle';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { blurPlane } from '../masks/soften';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';
import { blendRows } from '../picture/rows';
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
    arena.scratch(wide.w * wide.h * 4 + 16, (plane) => {
      const rowAt = (y: number) => plane + y * wide.w * 4;
      kernels.fillPlane(plane, wide.w * wide.h, 0);
      for (let y = 0; y < rect.h; y++)
        kernels.coveragePlane(picture.row(y), rect.w, 0, 0, rowAt(y + around) + around * 4);
      const spread = Math.round(v.spread);
      const room = (2 * Math.max(wide.w, wide.h) + 2 * spread) * 4;
      if (spread > 0) arena.scratch(room, (at) => kernels.growPlane(plane, wide.w, wide.h, spread, at));
      if (v.softness > 0) blurPlane(tools, plane, wide.w, wide.h, v.softness);
      kernels.rampPlane(plane, wide.w * wide.h, 0, 1 / v.opacity);
      const left = (wide.x + dx - whole.x) * BYTES_PER_PIXEL;
      for (let row = 0; row < wide.h; row++)
        kernels.overPlane(out.row(wide.y + dy - whole.y + row) + left, rowAt(row), wide.w, ...v.colour, 1);
    });
    blendRows(tools, out, picture, rect, 0);
    return out;
  },
});
