import { visibleLayers, planLayer } from '../../core/plan/plan';
import { intoPicture } from '../../core/plan/placing';
import { project as mapped } from '../../core/picture/matrix';
import type { LayerId } from '../../core/document/schema';
import { useEngine } from '../../engine/client';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** A layer counts as being there from so much coverage on. */
const SEEN = 0.15;
/** Layers are looked at this many times smaller than they are. */
const SMALL = 4;

/** The layers that show at a place of the shot, the top one first. @param at in shot pixels from its top left */
export async function layersAt([x, y]: readonly [number, number]): Promise<LayerId[]> {
  const { shot, frame } = useBench();
  const project = useProject().current();
  if (!shot) return [];
  const engine = await useEngine();
  const found: LayerId[] = [];
  for (const layer of visibleLayers(shot, frame)) {
    const plan = layer.locked ? null : planLayer(project, shot, layer, frame, SMALL);
    const back = plan && intoPicture(plan);
    if (!plan || !back) continue;
    const [u, v] = mapped(back, x / SMALL, y / SMALL);
    if (u < 0 || v < 0 || u >= plan.size.w || v >= plan.size.h) continue;
    const [, , , alpha] = await engine.measure(plan, 'mean', { x: Math.floor(u), y: Math.floor(v), w: 1, h: 1 });
    if (alpha >= SEEN) found.push(layer.id);
  }
  return found;
}
