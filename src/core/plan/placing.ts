// Where a layer lies in its shot.
import { placeAt, showsFront } from '../place/place';
import { layerProjection } from '../place/projection';
import {
  multiply,
  projective,
  projectiveInverse,
  projectiveProduct,
  scaling,
  type Matrix,
  type Projective,
} from '../picture/matrix';
import type { Moment } from '../time/moment';
import type { LayerPlan, Size } from './types';

/** Shot pixels → pixels of a layer's picture, both at the plan's scale; null when the layer is seen from its edge. */
export const intoPicture = ({ tilt, matrix }: LayerPlan): Projective | null =>
  projectiveInverse(tilt ?? projective(matrix));

/** The layer turns a side to the eye from which it is not to be seen. */
export function facesAway(moment: Moment, source: Size): boolean {
  const { side = 'both', flipX, flipY } = moment.layer.place;
  if (side === 'both') return false;
  const [ax, ay] = placeAt(moment).anchor;
  const map = layerProjection(moment, source);
  return showsFront(map, [source.w / 2 + ax, source.h / 2 + ay], flipX !== flipY) !== (side === 'front');
}

export const reducedOrNull = (m: Projective | null, by: number): Projective | null => m && reducedTilt(m, by);
const reducedTilt = (m: Projective, by: number): Projective =>
  projectiveProduct(projective(scaling(1 / by, 1 / by)), projectiveProduct(m, projective(scaling(by, by))));
export const reduced = (m: Matrix, by: number): Matrix =>
  multiply(scaling(1 / by, 1 / by), multiply(m, scaling(by, by)));

/** Most samples of motion blur in a reduced preview; a render takes them all. */
const PREVIEW_SAMPLES = 8;

export function planTrail(moment: Moment, source: Size): Projective[] {
  const { layer, reduction } = moment;
  const blur = layer.motionBlur;
  if (!blur || blur.shutter <= 0) return [];
  const samples = reduction === 1 ? blur.samples : Math.min(blur.samples, PREVIEW_SAMPLES);
  const moments = Array.from({ length: samples }, (_, i) => {
    const frame = moment.frame + ((i + 0.5) / samples - 0.5) * blur.shutter;
    return reducedTilt(layerProjection({ ...moment, frame }, source), reduction);
  });
  const still = moments.every((at) => at.every((v, i) => Math.abs(v - moments[0]![i]!) < 1e-9));
  return still ? [] : moments;
}
