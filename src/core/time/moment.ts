import type { Layer, Project, Shot } from '../document/schema';

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
}

/** @param frame of the shot */
export const momentOf = (
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction = 1,
): Moment => ({
  project,
  shot,
  layer,
  frame: frame - layer.span.start,
  reduction,
});

/** The same moment of the shot, seen from another of its layers. */
export const onLayer = (moment: Moment, layer: Layer): Moment => ({
  ...moment,
  layer,
  frame: moment.frame + moment.layer.span.start - layer.span.start,
});
