import { packMatte, type DrawnMatte } from '../masks/matte-data';
import { defineMeasure } from './define';
import { luma } from './luma';

export const matte = defineMeasure({
  help: 'Brightness as a drawn matte, and the share of the picture that it covers by more than half; null when it covers nothing.',
  async run(of, _options: null): Promise<{ matte: DrawnMatte; covered: number } | null> {
    const { w, h, values } = await luma.run(of, null);
    let [covered, some] = [0, false];
    for (const v of values) {
      some ||= v > 0;
      if (v > 127) covered++;
    }
    if (!some) return null;
    return { matte: packMatte(values, w, h), covered: covered / values.length };
  },
});
