import type { InjectionKey } from 'vue';
import type { Ease } from '../../core/base/value';

/** A keyframe as a peg seen from the side, 7.4 wide and 12 high, from the middle of its top: pointed = linear, round-headed = eased, flat-headed = hold. */
const HEADS = {
  linear: 'l3.7 4.4-2.5 3.4v4h-2.4v-4l-2.5-3.4z',
  eased: 'a3.6 3.6 0 0 1 1.2 7v4.8h-2.4v-4.8a3.6 3.6 0 0 1 1.2-7z',
  hold: 'h3.7v5.8h-2.5v5.8h-2.4v-5.8h-2.5v-5.8z',
};

/** The outline of a peg. @param x middle @param y top */
export const pegPath = (ease: Ease, x = 4.5, y = 0.6): string =>
  `M${x} ${y}${ease === 'linear' ? HEADS.linear : ease === 'hold' ? HEADS.hold : HEADS.eased}`;

/** Dials of something that is in no shot yet have no keyframes. */
export const NO_PEGS: InjectionKey<boolean> = Symbol('no pegs');
