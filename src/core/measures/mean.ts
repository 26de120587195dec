import { BYTES_PER_PIXEL } from '../picture/picture';
import type { Rect } from '../picture/rect';
import { defineMeasure } from './define';

export type MeanColour = [r: number, g: number, b: number, a: number];

export const mean = defineMeasure({
  help: 'Mean colour of a part of a picture, straight and display-encoded, and the mean alpha, each 0…1.',
  /** @param part in source pixels at the plan's scale; cut to the picture */
  async run(of, part: Rect): Promise<MeanColour> {
    const picture = await of.picture();
    const { rect } = picture;
    const x = Math.min(Math.max(Math.floor(part.x) - rect.x, 0), rect.w - 1);
    const y = Math.min(Math.max(Math.floor(part.y) - rect.y, 0), rect.h - 1);
    const w = Math.max(1, Math.min(Math.ceil(part.w), rect.w - x));
    const h = Math.max(1, Math.min(Math.ceil(part.h), rect.h - y));
    return of.arena.scratch(BYTES_PER_PIXEL, (out) => {
      of.kernels.meanRect(picture.at, rect.w, x, y, w, h, out);
      const [r, g, b, a] = of.arena.floats(out, 4) as unknown as MeanColour;
      return a > 0 ? [r / a, g / a, b / a, a] : [0, 0, 0, 0];
    });
  },
});
