import { project } from '../../core/picture/matrix';
import { intoPicture } from '../../core/plan/placing';
import type { LayerPlan } from '../../core/plan/types';
import type { XY } from './frame';

/** Where a place of the shot lies in a layer's picture, in pixels of both at the plan's scale; null where the layer is not. */
export function placeInLayer(plan: LayerPlan, [x, y]: XY): XY | null {
  const back = intoPicture(plan);
  if (!back) return null;
  const [u, v] = project(back, x, y);
  return u < 0 || v < 0 || u >= plan.size.w || v >= plan.size.h ? null : [u, v];
}
