// Pictures as they are looked at: their coverage, and small.
import type { Arena } from '../../../picture/arena';
import type { Kernels } from '../../../picture/kernels';
import { apply, multiply, scaling, translation } from '../../../picture/matrix';
import { Picture } from '../../../picture/picture';
import { isEmpty } from '../../../picture/rect';
import { blendRows } from '../../../picture/rows';
import { place } from '../../../picture/transform';
import { backdrop } from './composite';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** Coverage as grey. @param picture given up @returns owned by the caller */
export function asMatte({ kernels, arena }: Tools, picture: Picture): Picture {
  const grey = Picture.make(arena, picture.rect);
  kernels.matteSpan(picture.at, grey.at, picture.pixels);
  picture.release();
  return grey;
}

/** A violet veil over what is clear. @param picture given up @returns owned by the caller */
export function asVeil({ kernels, arena }: Tools, picture: Picture): Picture {
  const veil = Picture.make(arena, picture.rect);
  kernels.veilSpan(picture.at, veil.at, picture.pixels, 0.588, 0.275, 0.922, 0.72);
  picture.release();
  return veil;
}

/** A reduced copy of a part of a picture for a thumbnail: fits `part` into w×h, in the middle. */
export function thumbnail(
  tools: Tools,
  picture: Picture,
  part: { w: number; h: number },
  w: number,
  h: number,
): Picture {
  const scale = Math.min(w / part.w, h / part.h);
  const [x, y] = apply(scaling(scale, scale), part.w, part.h);
  const map = multiply(translation((w - x) / 2, (h - y) / 2), scaling(scale, scale));
  const out = backdrop(tools, { x: 0, y: 0, w, h }, null);
  const placed = isEmpty(picture.rect) ? null : place(tools, picture, map, 1, out.rect);
  if (placed) {
    blendRows(tools, out, placed, placed.rect, 0);
    placed.release();
  }
  return out;
}
