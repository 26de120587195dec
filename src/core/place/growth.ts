import { growthAt, type Point } from '../track/motion';
import type { Layer, Project, Shot } from '../document/schema';
import { momentOf } from './moment';

/** How much larger pixels of a layer's source are drawn in its shot on a frame, about a place from its centre. */
export function growthOf(project: Project, shot: Shot, layer: Layer, frame: number, [x, y]: Point = [0, 0]): number {
  const moment = momentOf(project, shot, layer, frame);
  const map = moment.lookup.projection(moment);
  return map ? growthAt(map, x, y) : 1;
}
