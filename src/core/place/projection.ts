// Where a layer lies in its shot.
import { multiply, projective, projectiveProduct, type Matrix, type Projective } from '../picture/matrix';
import type { Moment } from '../time/moment';
import { carriedBy, placeMatrix, tiltMatrix } from './place';

interface Size {
  w: number;
  h: number;
}

/** Source pixels → shot pixels of a layer at a moment, with all that it follows; without its tilt. */
export function layerMatrix(moment: Moment, source: Size): Matrix {
  const own = placeMatrix(moment, source);
  return moment.layer.parent ? multiply(carriedBy(moment), own) : own;
}

export function layerTilt(moment: Moment, source: Size): Projective | null {
  const own = tiltMatrix(moment, source);
  return own && moment.layer.parent ? projectiveProduct(projective(carriedBy(moment)), own) : own;
}

/** Source pixels → shot pixels of a layer at a moment, its tilt included. */
export const layerProjection = (moment: Moment, source: Size): Projective =>
  layerTilt(moment, source) ?? projective(layerMatrix(moment, source));
