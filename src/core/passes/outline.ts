import { edgeDistance, halfWayLines } from '../masks/distance';
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
  run(picture, v, { kernels, arena, scratch, coverage }) {
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
    const line = linePlane(arena.floats(at, w * h).slice(), w, h, v);
    const [r, g, b] = v.colour[0] ?? [1, 1, 1];
    const pixels = arena.floats(out.at, w * h * 4);
    for (let i = 0, k = 0; i < line.length; i++, k += 4) {
      const c = line[i]!;
      const left = v.alone === 'line' ? 0 : 1 - c;
      if (c === 0 && left === 1) continue;
      pixels[k] = pixels[k]! * left + r * c;
      pixels[k + 1] = pixels[k + 1]! * left + g * c;
      pixels[k + 2] = pixels[k + 2]! * left + b * c;
      pixels[k + 3] = pixels[k + 3]! * left + c;
    }
    return out;
  },
});

/** Coverage of a line along the half-way line of a matte. */
function linePlane(
  matte: Float32Array,
  w: number,
  h: number,
  v: { width: number; side: string; feather: number; opacity: number },
): Float32Array {
  const out = new Float32Array(w * h);
  const lines = halfWayLines(matte, w, h);
  if (!lines.length) return out;
  const { distance } = edgeDistance({ lines }, w, h);
  const from = v.side === 'outside' ? -v.width : v.side === 'inside' ? 0 : -v.width / 2;
  const soft = Math.max(1, v.feather);
  for (let i = 0; i < out.length; i++) {
    const inside = matte[i]! >= 0.5 ? distance[i]! : -distance[i]!;
    const rims = Math.min((inside - from) / soft + 0.5, (from + v.width - inside) / soft + 0.5);
    out[i] = Math.min(1, Math.max(0, rims)) * v.opacity;
  }
  return out;
}
