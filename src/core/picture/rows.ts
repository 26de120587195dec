// Pictures that lie elsewhere than each other, row by row where they meet.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { BYTES_PER_PIXEL, Picture } from './picture';
import { intersect, isEmpty, type Rect } from './rect';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** Fills a picture with what another one has there, clear elsewhere. */
export function copyInto({ kernels }: Pick<Tools, 'kernels'>, from: Picture, to: Picture): void {
  for (let y = 0; y < to.rect.h; y++) copyRow(kernels, from, to.rect, y, to.row(y));
}

/** Fills row y of a rectangle with what a picture has there, clear elsewhere. @param to where that row is */
export function copyRow(kernels: Kernels, from: Picture, rect: Rect, y: number, to: number): void {
  const part = intersect(from.rect, { ...rect, y: rect.y + y, h: 1 });
  const [left, right] = [part.x - rect.x, rect.x + rect.w - part.x - part.w];
  if (isEmpty(part)) return kernels.fill(to, rect.w, 0, 0, 0, 0);
  kernels.fill(to, left, 0, 0, 0, 0);
  const at = from.row(part.y - from.rect.y) + (part.x - from.rect.x) * BYTES_PER_PIXEL;
  kernels.copy(at, to + left * BYTES_PER_PIXEL, part.w);
  kernels.fill(to + (left + part.w) * BYTES_PER_PIXEL, right, 0, 0, 0, 0);
}

/** A part of a picture; what lies outside of it is clear. */
export function partOf(tools: Tools, picture: Picture, rect: Rect): Picture {
  const out = Picture.make(tools.arena, rect);
  copyInto(tools, picture, out);
  return out;
}

/** A picture of its own with the same pixels. */
export const copyOf = (tools: Tools, picture: Picture): Picture => partOf(tools, picture, picture.rect);

/** Blends a picture, taken to lie at `rect`, onto the part of `under` that it covers. */
export function blendRows(
  { kernels }: Pick<Tools, 'kernels'>,
  under: Picture,
  picture: Picture,
  rect: Rect,
  mode: number,
): void {
  const part = intersect(rect, under.rect);
  for (let y = part.y; y < part.y + part.h; y++) {
    const at = under.row(y - under.rect.y) + (part.x - under.rect.x) * BYTES_PER_PIXEL;
    kernels.blendSpan(mode, at, picture.row(y - rect.y) + (part.x - rect.x) * BYTES_PER_PIXEL, part.w);
  }
}
