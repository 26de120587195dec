import { computed, type ComputedRef } from 'vue';
import { layerProjection } from '../../core/place/projection';
import {
  project,
  projective,
  projectiveInverse,
  projectiveProduct,
  translation,
  type Projective,
} from '../../core/picture/matrix';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import type { ViewFrame, XY } from './frame';

export interface SourceSpace {
  /** source pixels from the source's centre → stage pixels */
  toStage(p: XY): [number, number];
  toSource(p: XY): [number, number];
  /** a pointer's place in source pixels from the source's centre */
  at(event: PointerEvent | MouseEvent): [number, number];
  /** `toSource` as it is now, whatever the layer does afterwards */
  frozen(): (p: XY) => [number, number];
  /** source pixels for each stage pixel, in the middle of the source */
  perStage: ComputedRef<number>;
}

/**
 * The way between the chosen layer's source and the viewer's stage, in perspective when the layer is tilted.
 * @param carried what carries the source's pixels, from the centre, along before they are placed: what a mask follows
 */
export function useSourceSpace(
  frame: () => ViewFrame,
  stage: () => Element | undefined,
  carried: () => Projective | null = () => null,
): SourceSpace {
  const bench = useBench();
  const playhead = usePlayhead();
  const map = computed<Projective>(() => {
    const placed = layerProjection(playhead.moment, bench.size!);
    const along = carried();
    if (!along) return placed;
    const { w, h } = bench.size!;
    const from = (by: number): Projective => projective(translation((by * w) / 2, (by * h) / 2));
    return projectiveProduct(placed, projectiveProduct(from(1), projectiveProduct(along, from(-1))));
  });
  const back = computed<Projective>(() => projectiveInverse(map.value) ?? [1, 0, 0, 0, 1, 0, 0, 0, 1]);
  const toStage = ([x, y]: XY): [number, number] => {
    const [u, v] = project(map.value, x + bench.size!.w / 2, y + bench.size!.h / 2);
    return [frame().x + u * frame().scale, frame().y + v * frame().scale];
  };
  const through =
    (map: Projective, { x: left, y: top, scale }: ViewFrame, { w, h }: { w: number; h: number }) =>
    ([x, y]: XY): [number, number] => {
      const [u, v] = project(map, (x - left) / scale, (y - top) / scale);
      return [u - w / 2, v - h / 2];
    };
  const toSource = (p: XY): [number, number] => through(back.value, frame(), bench.size!)(p);
  const frozen = () => through(back.value, frame(), bench.size!);
  const at = (event: PointerEvent | MouseEvent) => {
    const bounds = stage()!.getBoundingClientRect();
    return toSource([event.clientX - bounds.left, event.clientY - bounds.top]);
  };
  const perStage = computed(() => {
    const [x, y] = toStage([0, 0]);
    const [u, v] = toSource([x + 1, y]);
    return Math.hypot(u, v);
  });
  return { toStage, toSource, frozen, at, perStage };
}
