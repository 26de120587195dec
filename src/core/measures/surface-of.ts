import { readSurface, type Surface } from '../analysis/surface';
import { defineMeasure } from './define';

/** A finished picture, straight 8-bit RGBA. */
interface Finished {
  data: Uint8ClampedArray;
  w: number;
  h: number;
}
export const surfaceOf = defineMeasure({
  help: 'How soft, grainy, bright and black a finished picture is, of which no layer is asked for.',
  async run(_, { data, w, h }: Finished): Promise<Surface | null> {
    return readSurface(data, w, h, [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ]);
  },
});
