import { readPlate, type KeyPlate } from '../analysis/key-plate';
import type { Colour } from '../params/define';
import { defineMeasure } from './define';

export const keyPlate = defineMeasure({
  help: 'What kind of plate a picture is for a picked screen, where its matte begins and ends, and how its pixels spread in between; null without a screen.',
  async run(of, { screen, balance }: { screen: readonly Colour[]; balance: number }): Promise<KeyPlate | null> {
    const picture = await of.picture();
    return of.arena.lending((scratch) =>
      readPlate(picture, screen, balance, { kernels: of.kernels, arena: of.arena, scratch }),
    );
  },
});
