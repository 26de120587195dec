import { halfWayLines, withDistance } from '../masks/distance';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { choice } from '../params/choice';
import { masks } from '../params/masks';
import { number } from '../params/number';
import { samples } from '../params/samples';
import { definePass } from './define';

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
    feather: number({
      label: 'Feather',
      unit: 'px',
      default: 1,
      min: 0,
      max: 200,
      slider: [0, 30],
      help: 'Width of the line’s soft rims.',
    }),
    colour: samples({ label: 'Colour', default: [[0.96, 0.9, 0.76]], most: 1, from: 'shot', help: 'Of the line.' }),
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
  reach: (v) => Math.ceil(v.width + v.feather),
  run(picture, v, tools) {
    const { kernels, arena, scratch, coverage } = tools;
    const rect = v.along.masks.length
      ? picture.rect
      : grow(picture.rect, v.side === 'inside' ? 1 : Math.ceil(v.width + v.feather));
    const { w, h } = rect;
    const out = Picture.make(arena, rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const { x: dx, y: dy } = { x: picture.rect.x - rect.x, y: picture.rect.y - rect.y };
    for (let y = 0; y < picture.rect.h; y++) kernels.copy(picture.row(y), out.row(y + dy) + dx * 16, picture.rect.w);
    const at = v.along.masks.length ? coverage(v.along, rect) : scratch(w * h * 4 + 12);
    if (!v.along.masks.length) kernels.coveragePlane(out.at, w * h, 0, 0, at);
    const soft = Math.max(1, v.feather);
    const from = v.side === 'outside' ? -v.width : v.side === 'inside' ? 0 : -v.width / 2;
    const edges = { lines: halfWayLines(tools, at, w, h) };
    if (edges.lines.length)
      withDistance(tools, edges, w, h, v.width + soft, (distance) =>
        kernels.ringPlane(at, distance, w * h, from, v.width, soft, v.opacity, at),
      );
    else kernels.fillPlane(at, w * h, 0);
    const [r, g, b] = v.colour[0] ?? [1, 1, 1];
    kernels.overPlane(out.at, at, w * h, r, g, b, v.alone === 'line' ? 1 : 0);
    return out;
  },
});
