import { Picture } from '../picture/picture';
import type { CoveragePlan } from '../masks/coverage';
import type { PassTools } from './define';
import { RULED } from './finishing';

const STEPS = 1024;

/** The masks that overrule a key by a range; `keep` is what it calls the end of its range that stays. */
export const RANGE_RULED = { solid: RULED.keep, clear: RULED.drop };

/**
 * Cuts a picture by a matte that is looked up in a table; masks overrule it: inside them the picture comes back, or goes.
 * @param matteOf the matte over 0…1 @param sweep the kernel, given the table of steps+1 floats
 */
export function cutByTable(
  picture: Picture,
  v: { solid: CoveragePlan; clear: CoveragePlan },
  { kernels, arena, scratch, coverage }: PassTools,
  matteOf: (x: number) => number,
  sweep: (src: number, dst: number, n: number, table: number, steps: number) => void,
): Picture {
  const at = scratch((STEPS + 1) * 4);
  const table = arena.floats(at, STEPS + 1);
  for (let i = 0; i <= STEPS; i++) table[i] = matteOf(i / STEPS);
  const out = Picture.make(arena, picture.rect);
  sweep(picture.at, out.at, out.pixels, at, STEPS);
  if (v.solid.masks.length) kernels.lerpByPlane(out.at, picture.at, coverage(v.solid, out.rect), out.at, out.pixels);
  if (v.clear.masks.length)
    kernels.scaleByPlane(out.at, coverage({ ...v.clear, side: 'outside' }, out.rect), out.at, out.pixels);
  return out;
}
