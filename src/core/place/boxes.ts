// The upright boxes that layers take in their shot.
import { sourceSize } from '../document/find';
import type { Layer, Project, Shot } from '../document/schema';
import { project as through } from '../picture/matrix';
import { sourceOf } from '../sources/registry';
import { valueAt } from '../time/values';
import type { Moment } from '../time/moment';
import { momentOf } from './moment';
import { layerProjection } from './projection';

/** Pixels of the shot from its centre, y down. */
export interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** How much of a layer's picture is drawn, about its middle: of a shape its own size, otherwise all of the picture. */
function drawnSize(moment: Moment, full: { w: number; h: number }): { w: number; h: number } {
  const declared = sourceOf(moment.layer.source.type);
  const extent = declared && 'draw' in declared ? declared.extent : undefined;
  return extent ? extent((name) => valueAt(moment.layer.source.values[name]!, moment)) : full;
}

/** Where a layer lies at a frame; null for one without a picture. */
export function boxOf(project: Project, shot: Shot, layer: Layer, frame: number): Box | null {
  const full = sourceSize(project, shot, layer);
  if (!full || layer.source.type === 'adjustment') return null;
  const moment = momentOf(project, shot, layer, frame);
  const map = layerProjection(moment, full);
  const { w, h } = drawnSize(moment, full);
  const points = [-1, 1].flatMap((x) =>
    [-1, 1].map((y) => through(map, full.w / 2 + (x * w) / 2, full.h / 2 + (y * h) / 2)),
  );
  const xs = points.map(([x]) => x - shot.width / 2);
  const ys = points.map(([, y]) => y - shot.height / 2);
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}
