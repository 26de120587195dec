import { readSurface, type Surface } from '../analysis/surface';
import type { Point } from '../track/motion';
import { defineMeasure } from './define';

export const surface = defineMeasure({
  help: 'How soft and grainy a part of a layer is, and how bright.',
  /** @param quad convex, in pixels of the source from its upper left corner; null for all of it */
  async run(of, quad: readonly Point[] | null): Promise<Surface | null> {
    const { data, w, h } = await of.bytes();
    const all: Point[] = [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ];
    return readSurface(data, w, h, quad ?? all);
  },
});
