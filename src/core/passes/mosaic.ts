import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Mosaic: squares of one colour each, the mean of what lies there. */
export const mosaic = definePass({
  type: 'mosaic',
  title: 'Mosaic',
  group: 'texture',
  words: ['pixelate', 'big pixels', 'censor', 'hide a face', 'blocks', 'low resolution'],
  help: 'Makes squares of one colour each; in an area it hides a face or a number, and follows a track. Relatives: Blur, Posterise.',
  params: {
    size: number({
      label: 'Size',
      unit: 'px',
      default: 24,
      min: 1,
      max: 2048,
      slider: [2, 160],
      help: 'Side of a square.',
    }),
  },
  // a square of less than two pixels is a pixel
  idle: (v) => v.size < 1.5,
  reach: (v) => Math.ceil(v.size),
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const { x, y, w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    const side = Math.max(1, v.size);
    // squares lie about the middle of the source, wherever the part lies
    const [ox, oy] = [(size.w / 2) % side, (size.h / 2) % side];
    const first = (from: number, off: number) => Math.floor((from - off) / side);
    const edge = (cell: number, off: number) => Math.round(off + cell * side);
    for (let row = first(y, oy); edge(row, oy) < y + h; row++)
      for (let column = first(x, ox); edge(column, ox) < x + w; column++) {
        const left = Math.max(x, edge(column, ox));
        const top = Math.max(y, edge(row, oy));
        const right = Math.min(x + w, edge(column + 1, ox));
        const bottom = Math.min(y + h, edge(row + 1, oy));
        if (right > left && bottom > top)
          kernels.meanBlock(picture.at, out.at, w, left - x, top - y, right - left, bottom - top);
      }
    return out;
  },
});
