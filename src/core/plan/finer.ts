import { passOf } from '../passes/registry';
import type { FramePlan } from './types';

/** Whether a plan has passes that would get their picture's own pixels in a finer one. */
export const couldBeFiner = ({ layers, mattes, shots }: FramePlan): boolean =>
  [...layers, ...Object.values(mattes), ...Object.values(shots).flatMap((shot) => shot.layers)].some(({ passes }) =>
    passes.some(({ type }) => passOf(type)?.fine),
  );
