import { modelScreen } from '../analysis/screen-model';
import type { Colour } from '../params/define';
import { screenOf } from '../analysis/screen-likeness';
import { defineMeasure } from './define';

export const screenShare = defineMeasure({
  help: 'Shares of a picture, and of its border, that have the hue of picked colours, each 0…1.',
  async run(of, picked: readonly Colour[]): Promise<{ seen: number; rim: number }> {
    const screens = picked.map(screenOf);
    const { channel } = screens[0]!;
    const { seen, rim } = modelScreen(
      of,
      await of.picture(),
      channel,
      screens.map(({ linear }) => linear),
    );
    return { seen, rim };
  },
});
