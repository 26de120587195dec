import { intersect, sameRect, type Rect } from '../picture/rect';
import { isIdle } from '../plan/passes';
import type { LayerPlan, PassPlan } from '../plan/types';
import { stepOf } from '../transitions/registry';

const works = (pass: PassPlan): boolean => 'run' in stepOf(pass.type)! && !isIdle(pass);

/**
 * What a layer's picture has to have for passes that look at what is around pixels: also its clear parts, which a drawn one leaves out.
 * @param before passes that it came through @param next those that follow @param rect what there is of it
 * @returns null when it is enough as it is
 */
export function filled(
  { source, size, part }: LayerPlan,
  before: readonly PassPlan[],
  next: readonly PassPlan[] | 'all',
  rect: Rect,
): Rect | null {
  const enough = source.kind !== 'drawn' || part || before.some(works) || (next !== 'all' && !next.some(works));
  if (enough) return null;
  const whole = before.reduce<Rect>(
    (now, pass) => {
      const declared = stepOf(pass.type)!;
      const covers = 'prepare' in declared && !isIdle(pass) ? declared.cover : undefined;
      return covers ? intersect(now, covers(now, pass.values as never, size)) : now;
    },
    { x: 0, y: 0, ...size },
  );
  return sameRect(whole, rect) ? null : whole;
}
