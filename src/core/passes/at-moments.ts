// Pictures from other moments, where the present one lies.
import type { Picture } from '../picture/picture';
import { sameRect, union } from '../picture/rect';
import { partOf } from '../picture/rows';
import type { PassTools } from './define';

/** The present picture and those at a pass's further moments, all as large as together they are, owned by the caller; null where there is none. */
export function together(picture: Picture, tools: PassTools, count: number): [Picture, ...(Picture | null)[]] {
  const others = Array.from({ length: count }, (_, i) => tools.moment(i));
  // placed pictures may lie anywhere in the shot
  const rect = others.reduce((sum, other) => (other ? union(sum, other.rect) : sum), picture.rect);
  const on = (one: Picture): Picture => (sameRect(one.rect, rect) ? one.retain() : partOf(tools, one, rect));
  return [on(picture), ...others.map((other) => other && on(other))];
}

/** Frames that a dial means. */
export const whole = (v: number): number => Math.max(0, Math.round(v));
/** Further values of a pass that shows another moment: frames from the present one to it. */
export const away = (v: object): number => (v as { away?: number }).away ?? 0;
/** What a pass needs to show the moment that lies `away`. */
export const SHOWS_AWAY = {
  reach: () => 0,
  moments: (v: object): number[] => (away(v) ? [away(v)] : []),
  run: (picture: Picture, v: object, tools: PassTools): Picture =>
    ((away(v) ? tools.moment(0) : null) ?? picture).retain(),
};
