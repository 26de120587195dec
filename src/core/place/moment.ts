import { sourceSize } from '../document/find';
import type { Layer, Project, Shot } from '../document/schema';
import { projective, projectiveProduct, translation } from '../picture/matrix';
import type { Lookup, Moment, Reduction } from '../time/moment';
import { layerProjection } from './projection';

export const LOOKUP: Lookup = {
  projection(moment) {
    const { project, shot, layer } = moment;
    const size = sourceSize(project, shot, layer);
    if (!size) return null;
    return projectiveProduct(
      projective(translation(-shot.width / 2, -shot.height / 2)),
      projectiveProduct(layerProjection(moment, size), projective(translation(size.w / 2, size.h / 2))),
    );
  },
};

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
  lookup: LOOKUP,
});
