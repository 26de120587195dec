import type { Layer, Project, Shot } from '../document/schema';
import type { Projective } from '../picture/matrix';

/** Preview scales: 1, ½ or ¼, as the whole factor by which pictures are reduced. */
export type Reduction = 1 | 2 | 4;

/** Everything that a document's values are resolved against. */
export interface Moment {
  project: Project;
  shot: Shot;
  layer: Layer;
  /** of layer time; may be fractional */
  frame: number;
  reduction: Reduction;
  lookup: Lookup;
  /** layers whose values wait for this one */
  following?: readonly string[];
}

/** What values look up that lies outside of them. */
export interface Lookup {
  /** a layer's pixels → the shot's at full size, both counted from the middle; null when it has no picture */
  projection(moment: Moment): Projective | null;
}

/** The same moment of the shot, seen from another of its layers. */
export const onLayer = (moment: Moment, layer: Layer): Moment => ({
  ...moment,
  layer,
  frame: moment.frame + moment.layer.span.start - layer.span.start,
});
