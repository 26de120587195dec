import type { DividerWay } from '../stores/compare';

/** Which part of the picture shows before, as a path to cut a box of that size by. @param share of the way across, 0…1 @param size in pixels of the screen */
export function beforePart(
  way: DividerWay,
  share: number,
  { width, height }: { width: number; height: number },
): string {
  if (way === 'upright') return `inset(0 ${(1 - share) * 100}% 0 0)`;
  if (way === 'level') return `inset(0 0 ${(1 - share) * 100}% 0)`;
  const along = share * (width + height);
  return `polygon(0 0, ${along}px 0, 0 ${along}px)`;
}
