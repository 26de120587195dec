import { choice } from '../params/choice';
import type { Params, Values } from '../params/registry';
import type { AnyPass, PassTools, RowRunner } from '../passes/define';
import type { Picture } from '../picture/picture';

/** How far a transition has come at a frame. */
export interface Going {
  /** how much of the picture is there: 0 nothing, 1 all of it */
  shown: number;
  /** at a layer's end, where the picture goes away */
  leaving: boolean;
}

/** How a transition keeps time. */
export const EASES: Readonly<Record<string, (share: number) => number>> = {
  gentle: (t) => t * t * (3 - 2 * t),
  even: (t) => t,
  first: (t) => t * t * t,
  last: (t) => 1 - (1 - t) ** 3,
};
const ease = choice({
  label: 'Pace',
  default: 'gentle',
  options: [
    { value: 'gentle', label: 'slow at both ends' },
    { value: 'even', label: 'even' },
    { value: 'first', label: 'slow at first' },
    { value: 'last', label: 'slow at last' },
  ],
  help: 'How it keeps time between its beginning and its end.',
});
type Own<P extends Params> = P & { ease: typeof ease };

interface TransitionBase<P extends Params> {
  type: string;
  title: string;
  /** synonyms and wishes that find it */
  words: readonly string[];
  help: string;
  params: P;
}
/** One whose every pixel is there or not by itself. */
interface RowTransition<P extends Params> extends TransitionBase<P> {
  rows(values: Values<P> & Going, tools: PassTools): RowRunner;
}
/** One that moves or draws the picture anew. */
interface PictureTransition<P extends Params> extends TransitionBase<P> {
  /** @returns a new picture, display-encoded, in the shot; the one that is given stays */
  picture(picture: Picture, values: Values<P> & Going, tools: PassTools): Picture;
}

export type Transition = AnyPass & { params: Own<Params> };

/**
 * Declares what a layer begins or ends with. It works as a pass on the placed picture, after all of its own: its values are
 * those of its dials and how far it has come.
 */
export function defineTransition<const P extends Params>(
  transition: RowTransition<P> | PictureTransition<P>,
): Transition {
  const { type, title, words, help } = transition;
  const pass = {
    type,
    title,
    words,
    help,
    group: 'frame',
    space: 'shot',
    params: { ...transition.params, ease },
    idle: ({ shown }: Going) => shown >= 1,
    ...('rows' in transition
      ? { prepare: transition.rows }
      : {
          reach: () => Infinity,
          run: (picture: Picture, values: Values<P> & Going, tools: PassTools) =>
            transition.picture(picture, values, tools),
        }),
  };
  return pass as unknown as Transition;
}
