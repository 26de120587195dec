// What a layer begins and ends with, as the last steps after Place.
import { fadesOf } from '../document/edits/ends';
import type { PassId } from '../document/schema';
import type { Moment } from '../time/moment';
import { hash } from '../base/hash';
import { EASES } from '../transitions/define';
import { stepType, transitionOf } from '../transitions/registry';
import { resolveTools, valuesOf } from './passes';
import type { PassPlan, Size } from './types';

/** The transitions that are under way at a moment. @param shot its size at the plan's scale @param key of the picture before them */
export function planEnds(moment: Moment, shot: Size, key: string): PassPlan[] {
  const { layer, frame } = moment;
  const lengths = fadesOf(layer);
  const left = layer.span.length - 1 - frame;
  const ends = [
    { declared: layer.ends.start, frames: frame, over: lengths.in, leaving: false },
    { declared: layer.ends.end, frames: left, over: lengths.out, leaving: true },
  ];
  return ends.flatMap(({ declared, frames, over, leaving }) => {
    const transition = declared && transitionOf(declared.type);
    if (!transition || frames >= over) return [];
    const values = valuesOf(transition.params, declared.values, resolveTools(moment, shot));
    const shown = EASES[values['ease'] as string]!(Math.max(0, frames / over));
    const going = { ...values, shown, leaving };
    key = hash(`${key} ${stepType(transition)} ${JSON.stringify(going)}`);
    const id = (leaving ? 'end' : 'start') as PassId;
    return [{ id, type: stepType(transition), values: going, area: null, key }];
  });
}
