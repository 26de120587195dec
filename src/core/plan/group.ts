// A group: another shot as a layer's picture.
import { groupOf } from '../document/schema';
import type { Moment } from '../time/moment';
import { STAMP_ROUNDING } from '../time/rate';
import type { Planned } from './planned';
import { sourceSeconds } from './sources';
import type { SourcePlan } from './types';

/** Most groups in each other that are looked into. */
const DEEPEST = 40;

export function planGroup(moment: Moment, known: Planned): SourcePlan {
  const { project, layer, shot, reduction } = moment;
  const inner = project.shots.find((item) => item.id === groupOf(layer));
  if (!inner || known.depth >= DEEPEST) return { kind: 'unknown', type: 'group' };
  const at = (frame: number): string => {
    const within = Math.min(inner.length - 1, Math.max(0, frame));
    const { how, tables, depth, finer } = known;
    const plan = how.composite(project, inner, within, { reduction, finer }, { how, tables, depth: depth + 1 });
    known.tables.shots[plan.key] = plan;
    return plan.key;
  };
  const { num, den } = inner.rate;
  const place = (sourceSeconds(shot, layer, moment.frame) * num) / den + STAMP_ROUNDING;
  const first = Math.floor(place);
  const share = place - first;
  if (layer.time.between === 'nearest' || share < 0.001) return { kind: 'shot', key: at(first) };
  return { kind: 'shot', key: at(first), next: { key: at(first + 1), share } };
}
