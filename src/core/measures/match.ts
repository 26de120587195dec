import { coloursOf, matchTo, type Match, type MatchColours, type MatchPart } from '../analysis/match';
import { defineMeasure } from './define';

export const match = defineMeasure({
  help: 'The values of Wheels that bring a picture’s colours to lie as others do; null when too little of it is solid.',
  async run(of, { other, part }: { other: MatchColours; part: MatchPart }): Promise<Match | null> {
    const own = coloursOf((await of.bytes()).data);
    return own && matchTo(own, other, part);
  },
});
