import MiniSearch from 'minisearch';
import { stemmer } from 'stemmer';
import type { Entry } from './entry';

/** Words that say nothing of what is wished for. */
const EMPTY = new Set(
  'a an the it its this that these those i my me we you your is are be to of in on at by for from with without and or as so too very want would like please can how do does make get put give let some any something more'.split(
    ' ',
  ),
);
const MOST = 12;
const FAR = 'dial to add';
const MOST_FAR = 4;
/** Kinds in the order of how likely they are meant. */
const WEIGHTS: Record<string, number> = {
  pass: 1.25,
  command: 1.2,
  'layer to add': 1.1,
  mask: 1.1,
  dial: 0.8,
  transition: 0.7,
  [FAR]: 0.4,
};

const terms = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}½]+/u)
    .filter(Boolean);

export type Index = (wish: string) => Entry[];
/** Finds entries by name, other names and wishes; words count by their stems, and slips of the pen are forgiven where nothing else is found. */
export function indexOf(entries: readonly Entry[]): Index {
  const search = new MiniSearch<Entry & { id: number }>({
    fields: ['title', 'words', 'more', 'kind'],
    tokenize: terms,
    processTerm: (term) => (EMPTY.has(term) ? null : stemmer(term)),
    searchOptions: {
      boost: { title: 3, words: 2.5, more: 0.4, kind: 0.5 },
      prefix: (term) => term.length > 1,
      weights: { prefix: 0.6, fuzzy: 0.3 },
    },
  });
  search.addAll(entries.map((entry, id) => ({ ...entry, id })));
  const titles = entries.map(({ title }) => terms(title).join(' '));
  const whole = entries.map((entry) => ` ${terms(`${entry.title} ; ${entry.words}`).join(' ')} `);
  return (wish) => {
    const phrase = terms(wish).join(' ');
    if (!phrase) return entries.slice(0, MOST);
    // all that is typed, in one piece, is meant more than its words here and there
    const meant = (id: number): number => (titles[id] === phrase ? 12 : whole[id]!.includes(` ${phrase} `) ? 4 : 1);
    const asked = new Set(terms(wish).filter((term) => !EMPTY.has(term))).size || 1;
    const found = (fuzzy: number | false) =>
      search
        .search(wish, {
          fuzzy,
          boostDocument: (id) => (WEIGHTS[entries[id as number]!.kind] ?? 1) * meant(id as number),
        })
        // what answers more of the words is meant more
        .map(({ id, score, queryTerms }) => ({
          entry: entries[id as number]!,
          score: score * (queryTerms.length / asked) ** 2,
        }))
        .sort((a, b) => b.score - a.score);
    const exact = found(false);
    // dials that are not there yet are very many
    let far = 0;
    return (exact.length ? exact : found(0.25))
      .map(({ entry }) => entry)
      .filter(({ kind }) => kind !== FAR || ++far <= MOST_FAR)
      .slice(0, MOST);
  };
}
