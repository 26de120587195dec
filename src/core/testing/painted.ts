// Pictures given as functions of the place, taken through passes.
import type { PlainValues } from '../params/registry';
import { pictureOf, planned, runPass, type TestRig } from './rig';

/** The colour of a place, and how much it covers. */
export type Paint = (x: number, y: number) => readonly [number, number, number, number?];

/** A picture painted by its pixels' middles, taken through a pass. @returns its premultiplied colour at a pixel */
export function through(
  rig: TestRig,
  { w, h }: { w: number; h: number },
  type: string,
  values: PlainValues,
  paint: Paint,
): (x: number, y: number) => number[] {
  const data = Array.from({ length: w * h }, (_, i) => {
    const [r, g, b, a = 1] = paint((i % w) + 0.5, Math.floor(i / w) + 0.5);
    return [r * a, g * a, b * a, a];
  }).flat();
  const out = runPass(rig, type, planned(type, values), pictureOf(rig, { x: 0, y: 0, w, h }, data));
  const { rect } = out;
  const floats = rig.arena.floats(out.at, out.pixels * 4).slice();
  out.release();
  return (x, y) => {
    const at = ((y - rect.y) * rect.w + x - rect.x) * 4;
    return [...floats.subarray(at, at + 4)];
  };
}
