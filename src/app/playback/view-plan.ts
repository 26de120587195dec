import { withShot } from '../../core/document/find';
import type { Layer, LayerId, PassId, Project, ShotId } from '../../core/document/schema';
import { planFrame } from '../../core/plan/plan';
import type { FramePlan } from '../../core/plan/types';
import type { Reduction } from '../../core/time/moment';

/** What of a project is looked at, and how. */
export interface Viewed {
  project: Project;
  shot: ShotId;
  layer: LayerId | null;
  /** left out on the side before */
  pass: PassId | null;
  view: 'picture' | 'matte' | 'check' | 'compare' | 'alone';
  /** what the layer alone is seen on: a flat colour, the layers below, or nothing */
  ground: readonly [number, number, number] | 'below' | null;
  reduction: Reduction;
}

/** The plan of a frame as a view shows it; null when the shot is gone. @param side before the chosen pass (or all passes, when the layer is judged by itself), or after */
export function viewPlan(
  { project, shot: id, layer, pass, view, ground, reduction }: Viewed,
  frame: number,
  side: 'after' | 'before' = 'after',
): FramePlan | null {
  const shot = project.shots.find((item) => item.id === id);
  if (!shot) return null;
  if (view === 'picture' || view === 'compare')
    return planFrame(project, id, frame, { reduction, without: side === 'before' && pass ? pass : undefined });
  // the others stay, hidden: the layer may follow one of them or take its matte from it
  const own = shot.layers.findIndex((item) => item.id === layer);
  const below = ground === 'below';
  const alone = (item: Layer): Layer => ({
    ...item,
    shown: true,
    opacity: { still: 1 },
    blend: 'normal',
    ...(side === 'before' ? { passes: [], matte: null } : {}),
  });
  const layers = shot.layers.map((item, i) => ({
    ...(i === own ? alone(item) : { ...item, shown: below && i > own && item.shown }),
    solo: false,
  }));
  const only = { ...shot, background: below ? shot.background : (ground as [number, number, number] | null), layers };
  return planFrame(withShot(project, only), id, frame, { reduction });
}
