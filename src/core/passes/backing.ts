import { colour } from '../params/colour';
import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { union, type Rect } from '../picture/rect';
import { copyInto } from '../picture/rows';
import { definePass, type PassTools } from './define';

/** Alpha up to this is nothing that is seen. */
const UNSEEN = 1 / 512;

const pixels = (label: string, initial: number, most: number, help: string) =>
  number({ label, unit: 'px', default: initial, min: 0, max: 1000, slider: [0, most], help });
const share = (label: string, initial: number, help: string) =>
  number({ label, unit: '%', default: initial, min: 0, max: 1, slider: [0, 1], help });

/** From where to where something is along an axis, parts of a pixel by how strong its first and last are; null when it is nowhere. */
function reachOf(most: Float32Array): readonly [number, number] | null {
  const [first, last] = [most.findIndex((v) => v > UNSEEN), most.findLastIndex((v) => v > UNSEEN)];
  return first < 0 ? null : [first + 1 - Math.min(1, most[first]!), last + Math.min(1, most[last]!)];
}
/** The box of what is seen of a picture, in its source's pixels; null when nothing is. */
function seenBox({ rect, at }: Picture, { kernels, arena, scratch }: PassTools) {
  const { w, h } = rect;
  const lists = scratch((w + h) * 4);
  kernels.mostAlpha(at, w, h, lists, lists + 4 * w);
  const across = reachOf(arena.floats(lists, w).slice());
  const down = reachOf(arena.floats(lists + 4 * w, h).slice());
  return (
    across && down && { x0: rect.x + across[0], x1: rect.x + across[1], y0: rect.y + down[0], y1: rect.y + down[1] }
  );
}

/** A card below what is seen of a picture, with round corners and an edge. */
export const backing = definePass({
  type: 'backing',
  title: 'Border and backing',
  group: 'frame',
  words: [
    'frame',
    'card',
    'box behind text',
    'plate',
    'caption box',
    'rounded corners',
    'photo edge',
    'edge line',
    'padding',
  ],
  help: 'Lays a card below what is seen of the picture and draws an edge around it: behind a title, or around a picture that was cropped, whose corners it rounds. It fits itself to what the passes before it leave. Relatives: Outline, which follows the shape itself; Crop.',
  params: {
    room: { ...pixels('Room', 0, 200, 'How far the card reaches beyond what is seen.'), begins: 20 },
    radius: pixels('Corner radius', 0, 200, 'Radius of its corners; the picture is cut to them.'),
    width: { ...pixels('Border', 0, 60, 'Width of its edge, inside the card; 0 for none.'), begins: 8 },
    edge: colour({ label: 'Colour of the border', default: [0.95, 0.93, 0.87], help: 'Of the edge.' }),
    lines: share('Border opacity', 1, 'How much the edge covers.'),
    colour: colour({
      label: 'Colour of the backing',
      default: [0.09, 0.12, 0.17],
      help: 'Of the card below the picture.',
    }),
    opacity: { ...share('Backing opacity', 0, 'How much the card covers; 0 for none.'), begins: 0.8 },
  },
  idle: (v) => v.opacity === 0 && (v.width === 0 || v.lines === 0) && v.radius === 0,
  // its size is that of all that is seen
  reach: () => Infinity,
  run(picture, v, tools) {
    const seen = seenBox(picture, tools);
    if (!seen) return picture.retain();
    const [halfW, halfH] = [(seen.x1 - seen.x0) / 2 + v.room, (seen.y1 - seen.y0) / 2 + v.room];
    const [midX, midY] = [(seen.x0 + seen.x1) / 2, (seen.y0 + seen.y1) / 2];
    const [left, top] = [Math.floor(midX - halfW), Math.floor(midY - halfH)];
    const card: Rect = { x: left, y: top, w: Math.ceil(midX + halfW) - left, h: Math.ceil(midY + halfH) - top };
    const out = Picture.make(tools.arena, union(picture.rect, card));
    copyInto(tools, picture, out);
    const { x, y, w, h } = out.rect;
    const radius = Math.min(v.radius, halfW, halfH);
    for (let row = 0; row < h; row++)
      tools.kernels.cardSpan(
        ...([out.row(row), out.row(row), w, x + 0.5 - midX, y + row + 0.5 - midY] as const),
        ...([halfW, halfH, radius, v.width] as const),
        ...v.colour,
        v.opacity,
        ...v.edge,
        v.width > 0 ? v.lines : 0,
      );
    return out;
  },
});
