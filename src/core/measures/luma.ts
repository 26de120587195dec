import type { Luma } from '../analysis/edge-pull';
import { defineMeasure } from './define';

export const luma = defineMeasure({
  help: 'Brightness of every pixel, 0…255, after ITU-R BT.709.',
  async run(of, _options: null): Promise<Luma> {
    const { data, w, h } = await of.bytes();
    const values = new Uint8Array(w * h);
    for (let i = 0; i < values.length; i++)
      values[i] = 0.2126 * data[i * 4]! + 0.7152 * data[i * 4 + 1]! + 0.0722 * data[i * 4 + 2]!;
    return { w, h, values };
  },
});
