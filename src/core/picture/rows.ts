// Pictures that lie elsewhere than each other, row by row where they meet.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { BYTES_PER_PIXEL, Picture } from './picture';
import { intersect, type Rect } from './rect';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** Fills a picture with what another one has there, clear elsewhere. */
export function copyInto({ kernels }: Pick<Tools, 'kernels'>, from: Picture, to: Picture): void {
  const part = intersect(from.rect, to.rect);
  if (part.w !== to.rect.w || part.h !== to.rect.h) kernels.fill(to.at, to.pixels, 0, 0, 0, 0);
  for (let y = part.y; y < part.y + part.h; y++) {
    kernels.copy(
      from.row(y - from.rect.y) + (part.x - from.rect.x) * BYTES_PER_PIXEL,
      to.row(y - to.rect.y) + (part.x - to.rect.x) * BYTES_PER_PIXEL,
      part.w,
    );
  }
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
