import { readPlate, type KeyPlate } from '../analysis/key-plate';
import type { Colour } from '../params/define';
import { defineMeasure } from './define';

export const keyPlate = defineMeasure({
  help: 'What kind of plate a picture is for a picked screen, where its matte begins and ends, and how its pixels spread in between; null without a screen.',
  async run(of, { screen, balance }: { screen: readonly Colour[]; balance: number }): Promise<KeyPlate | null> {
    const picture = await of.picture();
    const taken: number[] = [];
    const scratch = (bytes: number) => {
      const at = of.arena.take(bytes);
      taken.push(at);
      return at;
    };
    try {
      return readPlate(picture, screen, balance, { kernels: of.kernels, arena: of.arena, scratch });
    } finally {
      taken.forEach((at) => of.arena.give(at));
    }
  },
});
