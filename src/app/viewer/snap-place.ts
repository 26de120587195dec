// A layer that is dragged on the picture comes to lie in line with the shot and with other layers.
import type { Box } from '../../core/place/boxes';
import type { XY } from './frame';

/** A line that something may lie on, by its place along an axis. */
const linesOf = (low: number, high: number): number[] => [low, (low + high) / 2, high];

/** How far a stretch is moved so that one of its lines meets one of the others, when one is near. @returns the shift, and the line that was met */
function along(
  own: readonly number[],
  others: readonly number[],
  shift: number,
  reach: number,
): [number, number | null] {
  let [best, met]: [number, number | null] = [reach, null];
  let out = shift;
  for (const line of own)
    for (const other of others) {
      const off = other - (line + shift);
      if (Math.abs(off) < best) [best, met, out] = [Math.abs(off), other, shift + off];
    }
  return [out, met];
}

/** Lines that things are put on, by their places from the shot's centre. */
export interface Lines {
  upright: readonly number[];
  level: readonly number[];
}
const NO_LINES: Lines = { upright: [], level: [] };

/** @param box where the layer lay at first @param shift how far it is dragged; pixels of the shot @param reach how near counts as meeting @param lines further ones */
export function snappedShift(
  box: Box,
  others: readonly Box[],
  { width, height }: { width: number; height: number },
  [dx, dy]: XY,
  reach: number,
  lines: Lines = NO_LINES,
): { shift: [number, number]; x: number | null; y: number | null } {
  const xs = [
    ...linesOf(-width / 2, width / 2),
    ...lines.upright,
    ...others.flatMap(({ left, right }) => linesOf(left, right)),
  ];
  const ys = [
    ...linesOf(-height / 2, height / 2),
    ...lines.level,
    ...others.flatMap(({ top, bottom }) => linesOf(top, bottom)),
  ];
  const [x, onX] = along(linesOf(box.left, box.right), xs, dx, reach);
  const [y, onY] = along(linesOf(box.top, box.bottom), ys, dy, reach);
  return { shift: [x, y], x: onX, y: onY };
}
