import type { AnyPass } from '../passes/define';
import { passOf } from '../passes/registry';
import { byBrightness } from './by-brightness';
import { crumble } from './crumble';
import type { Transition } from './define';
import { dip } from './dip';
import { focus } from './focus';
import { gates } from './gates';
import { iris } from './iris';
import { slats } from './slats';
import { slide } from './slide';
import { sweep } from './sweep';
import { torn } from './torn';
import { turnIn } from './turn-in';
import { wipe } from './wipe';
import { zoom } from './zoom';

/** Every transition there is beside a plain fade, in the order in which menus list them. */
export const TRANSITIONS: readonly Transition[] = [
  dip,
  focus,
  byBrightness,
  wipe,
  iris,
  sweep,
  slats,
  torn,
  crumble,
  slide,
  zoom,
  gates,
  turnIn,
];
const byType = new Map(TRANSITIONS.map((transition) => [transition.type, transition]));

/** @returns the declaration, or undefined for a type this version does not know */
export const transitionOf = (type: string): Transition | undefined => byType.get(type);

/** What tells a transition from a pass of the same name among the steps of a plan. */
const PREFIX = 'transition ';
export const stepType = ({ type }: Transition): string => PREFIX + type;
/** What computes a step of a plan: a pass or a transition. */
export const stepOf = (type: string): AnyPass | undefined =>
  type.startsWith(PREFIX) ? transitionOf(type.slice(PREFIX.length)) : passOf(type);
