import { angle } from '../params/angle';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { gaussian } from '../picture/gaussian';
import type { Matrix } from '../picture/matrix';
import { Picture } from '../picture/picture';
import { blendRows, partOf } from '../picture/rows';
import { intersect, isEmpty, union, type Rect } from '../picture/rect';
import { placedBounds } from '../picture/bounds';
import { place } from '../picture/transform';
import { definePass, type PassTools } from './define';

const RADIANS = Math.PI / 180;
/** The shadow is blurred so many times, from near to far, and goes over from one to the next. */
const LEVELS = 4;
/** A shadow that falls along the floor line this nearly is no area. */
const FLATTEST = 0.02;

/** Cast shadow: the layer's shape laid down on a floor behind or before it, softer and fainter the farther it falls. */
export const castShadow = definePass({
  type: 'cast-shadow',
  title: 'Cast shadow',
  group: 'light',
  space: 'shot',
  words: ['on the floor', 'ground', 'stand on', 'sun', 'light from behind', 'long', 'contact'],
  help: 'Lays the layer’s shape down on a floor as its shadow, from where it stands: softer and fainter the farther it falls. Works after Place, so that it follows every move and turn. Relatives: Drop shadow, which stays behind the layer.',
  params: {
    floor: number({
      label: 'Stands at',
      unit: 'px',
      default: 0,
      min: -16384,
      max: 16384,
      slider: [-540, 540],
      help: 'Height of the floor line, from the middle of the shot down. What lies below it casts no shadow.',
    }),
    angle: angle({
      label: 'Falls to',
      default: -30,
      help: 'Along the floor: 0° to the right, 90° towards you, −90° away.',
    }),
    length: number({
      label: 'Length',
      unit: '%',
      default: 0.6,
      min: 0,
      max: 20,
      slider: [0, 3],
      help: 'Of the shadow, in heights of what casts it.',
    }),
    near: number({
      label: 'Soft at the foot',
      unit: 'px',
      default: 2,
      min: 0,
      max: 300,
      slider: [0, 40],
      help: 'How blurred it is where it begins.',
    }),
    far: number({
      label: 'Soft at the end',
      unit: 'px',
      default: 16,
      min: 0,
      max: 300,
      slider: [0, 80],
      help: 'How blurred it is where it ends.',
    }),
    fade: number({
      label: 'Fainter at the end',
      unit: '%',
      default: 0.6,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much of its strength it loses on its way.',
    }),
    colour: colour({ label: 'Colour', default: [0.02, 0.02, 0.06], help: 'What it is made of.' }),
    opacity: number({
      label: 'Opacity',
      unit: '%',
      default: 0.6,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How dark it is at the foot.',
    }),
  },
  fitted: ({ h }) => ({ floor: Math.round(h * 0.35) }),
  idle: (v) => v.opacity === 0 || v.length === 0 || Math.abs(Math.sin(v.angle * RADIANS)) < FLATTEST,
  reach: () => Infinity,
  run(picture, v, tools) {
    const { arena, kernels, size } = tools;
    const foot = size.h / 2 + v.floor;
    const shot: Rect = { x: 0, y: 0, ...size };
    const standing = intersect(picture.rect, { ...shot, y: picture.rect.y, h: Math.floor(foot) - picture.rect.y });
    const tall = foot - standing.y;
    if (isEmpty(standing) || tall <= 0) return picture.retain();
    // what is d above the floor falls to d × length along the angle
    const [along, down] = [v.length * Math.cos(v.angle * RADIANS), v.length * Math.sin(v.angle * RADIANS)];
    const map: Matrix = [1, 0, -along, -down, along * foot, foot + down * foot];
    const room = Math.ceil(3 * Math.max(v.near, v.far)) + 2;
    const lying = placedBounds(map, standing);
    const within = { x: -room, y: -room, w: size.w + 2 * room, h: size.h + 2 * room };
    const upright = partOf(tools, picture, standing);
    const shape = place(tools, upright, map, 1, intersect(lying, within));
    upright.release();
    if (!shape) return picture.retain();
    kernels.colourByAlpha(shape.at, shape.pixels, ...v.colour, v.opacity);
    const wide = intersect(
      { x: shape.rect.x - room, y: shape.rect.y - room, w: shape.rect.w + 2 * room, h: shape.rect.h + 2 * room },
      within,
    );
    const flat = partOf(tools, shape, wide);
    shape.release();
    const shadow = softened(tools, flat, v, (y) => Math.min(1, Math.max(0, (y + 0.5 - foot) / (down * tall))));
    const out = Picture.make(arena, union(picture.rect, shadow.rect));
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    blendRows(tools, out, shadow, shadow.rect, 0);
    blendRows(tools, out, picture, picture.rect, 0);
    shadow.release();
    return out;
  },
});

/** A shadow that gets softer and fainter on its way. @param picture given up @param way how far along a row lies, 0…1 @returns owned by the caller */
function softened(
  tools: PassTools,
  picture: Picture,
  { near, far, fade }: { near: number; far: number; fade: number },
  way: (y: number) => number,
): Picture {
  const { arena, kernels } = tools;
  const { rect } = picture;
  const out = Picture.make(arena, rect);
  kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
  // each level counts about its own place along the way
  const shareOf = (level: number, t: number): number =>
    Math.max(0, 1 - Math.abs(t * (LEVELS - 1) - level)) * (1 - fade * t);
  for (let i = 0; i < LEVELS; i++) {
    const rows = Array.from({ length: rect.h }, (_, row) => row).filter((row) => shareOf(i, way(rect.y + row)) > 0);
    if (!rows.length) continue;
    const radius = near + ((far - near) * i) / (LEVELS - 1);
    // only as much is blurred as is seen of it
    const [first, last] = [rows[0]!, rows[rows.length - 1]!];
    const room = Math.ceil(3 * radius) + 2;
    const top = Math.max(0, first - room);
    const h = Math.min(rect.h, last + room + 1) - top;
    const level = Picture.make(arena, { ...rect, y: rect.y + top, h });
    if (radius > 0.3) gaussian({ kernels, arena }, picture.row(top), level.at, rect.w, h, radius, false);
    else kernels.copy(picture.row(top), level.at, level.pixels);
    for (const row of rows)
      kernels.addScaled(level.row(row - top), out.row(row), rect.w, shareOf(i, way(rect.y + row)));
    level.release();
  }
  picture.release();
  return out;
}
