import type { Ease } from '../../core/base/value';
import { EASINGS } from '../../core/time/easing';

/** What a keyframe's way to the next can be, as it is offered. */
export interface EaseKind {
  name: string;
  label: string;
  /** @param strength 0…1 */
  make: (strength: number) => Ease;
}
export const EASE_KINDS: readonly EaseKind[] = [
  { name: 'hold', label: 'Hold', make: () => 'hold' },
  { name: 'linear', label: 'Linear', make: () => 'linear' },
  { name: 'smooth', label: 'Smooth, never past its neighbours', make: () => 'smooth' },
  { name: 'in', label: 'Ease in', make: EASINGS.in },
  { name: 'out', label: 'Ease out', make: EASINGS.out },
  { name: 'both', label: 'Ease in and out', make: EASINGS.both },
  { name: 'overshoot', label: 'Overshoot', make: EASINGS.overshoot },
  { name: 'bounce', label: 'Bounce', make: (strength) => ({ bounce: Math.max(1, Math.round(strength * 5)) }) },
];
/** How strong an easing is that was chosen without saying how strong. */
export const USUAL_STRENGTH = 0.6;
