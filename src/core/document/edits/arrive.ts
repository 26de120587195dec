// Usual ways for a title to arrive: values of its arrival, and keyframes that let it come.
import type { Draft } from 'immer';
import { still } from '../../base/value';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import type { Layer, LayerId, Project, ShotId } from '../schema';
import { title } from '../../sources/title';

export interface ArrivalWay {
  name: string;
  title: string;
  /** what it is also wished for by */
  words: string;
  /** values of the arrival, by the height of a capital */
  values(height: number): Record<string, unknown>;
  /** the value that is animated from nothing to all */
  moves: 'done' | 'shown';
}
const PLAIN = {
  by: 'letter',
  order: 'forwards',
  overlap: 0.5,
  x: 0,
  y: 0,
  startSize: 1,
  turn: 0,
  opacity: 0,
  startBlur: 0,
  startApart: 0,
  tinted: 0,
};
export const ARRIVALS: readonly ArrivalWay[] = [
  { name: 'type', title: 'Typed', words: 'typing typewriter letter by letter', moves: 'shown', values: () => PLAIN },
  {
    name: 'rise',
    title: 'Letters rise',
    words: 'come up from below one by one',
    moves: 'done',
    values: (h) => ({ ...PLAIN, y: 0.9 * h, overlap: 0.4 }),
  },
  {
    name: 'words',
    title: 'Words fade in',
    words: 'appear word by word',
    moves: 'done',
    values: () => ({ ...PLAIN, by: 'word', overlap: 0.6 }),
  },
  {
    name: 'settle',
    title: 'Letters settle',
    words: 'shrink land come from the front large',
    moves: 'done',
    values: (h) => ({ ...PLAIN, startSize: 2.4, y: -0.3 * h, overlap: 0.5 }),
  },
  {
    name: 'drop',
    title: 'Letters drop',
    words: 'fall tumble from above random',
    moves: 'done',
    values: (h) => ({ ...PLAIN, y: -2.5 * h, turn: -35, order: 'lot', overlap: 0.45 }),
  },
  {
    name: 'unfold',
    title: 'Unfolds from the middle',
    words: 'open grow centre',
    moves: 'done',
    values: () => ({ ...PLAIN, startSize: 0, order: 'middle', overlap: 0.5 }),
  },
  {
    name: 'lines',
    title: 'Lines slide in',
    words: 'from the side lower third line by line',
    moves: 'done',
    values: (h) => ({ ...PLAIN, by: 'line', x: -6 * h, overlap: 0.7 }),
  },
  {
    name: 'clear',
    title: 'Words become clear',
    words: 'become sharp one by one',
    moves: 'done',
    values: (h) => ({ ...PLAIN, by: 'word', startBlur: 0.25 * h, overlap: 0.6 }),
  },
  {
    name: 'together',
    title: 'Letters come together',
    words: 'closer tracking space between letters narrow',
    moves: 'done',
    values: () => ({ ...PLAIN, startApart: 0.8, overlap: 1 }),
  },
  {
    name: 'kindle',
    title: 'Letters light up',
    words: 'glow warm colour ember one after the other',
    moves: 'done',
    values: (h) => ({ ...PLAIN, tinted: 1, startBlur: 0.06 * h, overlap: 0.4 }),
  },
];

/** Lets a title arrive at its layer's beginning. @param frames how long that takes; at most as long as the layer is */
export function letArrive(
  project: Project,
  at: { shot: ShotId; layer: LayerId },
  way: ArrivalWay,
  frames: number,
): Edit {
  return {
    name: `${way.title}: ${layerIn(shotIn(project, at.shot), at.layer).name}`,
    apply: (draft) => writeArrival(layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>, way, frames),
  };
}
export function writeArrival({ source, span }: Draft<Layer>, way: ArrivalWay, frames: number): void {
  if (source.type !== title.type) return;
  const height = source.values['height'] as { still?: number };
  const values = way.values(height.still ?? (title.params.height.default as number));
  for (const [name, value] of Object.entries(values)) source.values[name] = still(value);
  const end = Math.max(1, Math.min(span.length - 1, Math.round(frames)));
  source.values['done'] = still(1);
  source.values['shown'] = still(1);
  source.values[way.moves] = {
    keys: [
      { at: 0, value: 0, ease: 'linear' },
      { at: end, value: 1, ease: 'linear' },
    ],
  };
}
