// How one layer goes over into the next, in one step: both overlap for a while, and what each ends or begins with belongs together.
import { JackplaneError } from '../../base/errors';
import type { Edit } from '../edit';
import type { Layer, Project, Shot } from '../schema';
import type { Arrangement } from './arrangements';
import { setFade, setTransition, setTransitionValue, type Fades } from './ends';
import { trimEnd, trimStart } from './time';

/** A transition by its name, or a fade, with values of its own. */
type End = readonly [type: string | null, values?: Readonly<Record<string, unknown>>];
interface Passage {
  name: string;
  title: string;
  words: string;
  help: string;
  /** what the earlier one ends with, and the later one begins with */
  ways: { ends?: End; begins?: End } | { upper: End };
  /** they meet at the cut, and do not overlap */
  meets?: true;
}
const PASSAGES: readonly Passage[] = [
  {
    name: 'cross-fade',
    title: 'Cross fade',
    words: 'dissolve from one to the next ; fade over ; blend into',
    help: 'The upper of the two fades over the other.',
    ways: { upper: [null] },
  },
  {
    name: 'push',
    title: 'Push out',
    words: 'one pushes the other out ; slide over',
    help: 'The later one comes from the right and pushes the earlier one out to the left.',
    ways: { ends: ['slide', { side: 'left' }], begins: ['slide', { side: 'right' }] },
  },
  {
    name: 'dip-over',
    title: 'Through a colour',
    words: 'dip to black ; fade through white ; flash between',
    help: 'The earlier one goes into a colour, and the later one comes out of it.',
    ways: { ends: ['dip'], begins: ['dip'] },
    meets: true,
  },
  {
    name: 'wipe-over',
    title: 'Wipe over',
    words: 'wipe from one to the next ; clock off the other',
    help: 'The upper of the two is wiped over the other.',
    ways: { upper: ['wipe'] },
  },
  {
    name: 'zoom-through',
    title: 'Zoom through',
    words: 'fly into the next ; dive ; rush',
    help: 'The earlier one comes nearer until it is gone, and the later one grows behind it.',
    ways: { ends: ['zoom', { from: 3 }], begins: ['zoom', { from: 0.5 }] },
  },
  {
    name: 'blur-over',
    title: 'Through a blur',
    words: 'blurred change ; soft change',
    help: 'Both are out of focus where one goes over into the other.',
    ways: { ends: ['focus'], begins: ['focus'] },
  },
];

/** Seconds that a passage takes, and frames that are the least. */
const [SECONDS, LEAST] = [0.75, 2];
const endOf = ({ span }: Layer): number => span.start + span.length;

/** Frames in which both are there: from their overlap as it is, or about where they meet. @throws JackplaneError bad-value when they lie too far apart */
function overlapOf(shot: Shot, before: Layer, after: Layer): { from: number; to: number } {
  const frames = Math.max(LEAST, Math.round((SECONDS * shot.rate.num) / shot.rate.den));
  if (endOf(after) <= endOf(before))
    throw new JackplaneError(
      'bad-value',
      `${after.name} ends before ${before.name} does.`,
      'Choose two of which one goes on when the other is over.',
    );
  if (endOf(before) - after.span.start >= LEAST) return { from: after.span.start, to: endOf(before) };
  const apart = after.span.start - endOf(before);
  if (apart > 2 * frames)
    throw new JackplaneError(
      'bad-value',
      `${before.name} and ${after.name} are ${apart} frames apart.`,
      'Let one begin where the other ends, or let them overlap.',
    );
  const middle = Math.round((endOf(before) + after.span.start) / 2);
  return {
    from: Math.max(before.span.start + 1, middle - Math.floor(frames / 2)),
    to: Math.min(endOf(after) - 1, middle + Math.ceil(frames / 2)),
  };
}

export const BETWEEN: readonly Arrangement[] = PASSAGES.map(({ ways, meets, ...passage }) => ({
  ...passage,
  takes: [2, 2],
  edits({ shot, layers }) {
    const [before, after] = [...layers].sort((a, b) => a.span.start - b.span.start || endOf(a) - endOf(b)) as [
      Layer,
      Layer,
    ];
    const { from, to } = overlapOf(shot, before, after);
    const cut = Math.round((from + to) / 2);
    // on the first frame of the overlap nothing has begun, on its last all is done
    const frames = meets ? Math.max(1, Math.round((to - from) / 2)) : to - from - 1;
    const laterOnTop = layers[0] === after;
    const { ends, begins } =
      'upper' in ways
        ? laterOnTop
          ? { begins: ways.upper, ends: undefined }
          : { ends: ways.upper, begins: undefined }
        : ways;
    const at = (layer: Layer) => ({ shot: shot.id, layer: layer.id });
    const given = (layer: Layer, end: keyof Fades, [type, values = {}]: End): ((now: Project) => Edit)[] => [
      (now) => setTransition(now, at(layer), end, type, frames),
      (now) => setFade(now, at(layer), end, frames),
      ...Object.entries(values).map(
        ([name, value]) =>
          (now: Project) =>
            setTransitionValue(now, at(layer), end, name, value),
      ),
    ];
    return [
      (now) => trimEnd(now, at(before), meets ? cut : to),
      (now) => trimStart(now, at(after), meets ? cut : from),
      ...(ends ? given(before, 'out', ends) : []),
      ...(begins ? given(after, 'in', begins) : []),
    ];
  },
}));
