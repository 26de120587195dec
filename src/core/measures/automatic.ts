import { readAutomatic, type AutoReading } from '../analysis/automatic';
import { defineMeasure } from './define';

export const automatic = defineMeasure({
  help: 'What should be grey in a picture, and how its light lies.',
  async run(of, _options: null): Promise<AutoReading | null> {
    const { data, w, h } = await of.bytes();
    return readAutomatic(data, w, h);
  },
});
