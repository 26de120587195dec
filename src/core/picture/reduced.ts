// Work on a smaller picture, where what is computed is so soft that nobody could tell.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { Picture } from './picture';
import { intersect, sameRect, type Rect } from './rect';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** The rectangle grown until it lies on whole pixels when it is halved so many times. */
export function onGrid({ x, y, w, h }: Rect, times: number): Rect {
  const cell = 2 ** times;
  const down = (v: number) => cell * Math.floor(v / cell);
  const up = (v: number) => cell * Math.ceil(v / cell);
  return { x: down(x), y: down(y), w: up(x + w) - down(x), h: up(y + h) - down(y) };
}

/** A picture halved so many times; its rectangle in the smaller pixels. @param picture whose rectangle lies on that grid @returns owned by the caller */
export function reducedBy({ kernels, arena }: Tools, picture: Picture, times: number): Picture {
  let now = picture.retain();
  for (let i = 0; i < times; i++) {
    const { x, y, w, h } = now.rect;
    const next = Picture.make(arena, { x: x / 2, y: y / 2, w: w / 2, h: h / 2 });
    kernels.halve(now.at, w, h, next.at);
    now.release();
    now = next;
  }
  return now;
}

/** Adds a picture that was computed so many times halved to one of full size, in straight lines between its pixels. @param small given up */
export function addEnlarged({ kernels }: Tools, small: Picture, times: number, onto: Picture, weight: number): void {
  const size = 2 ** times;
  const { x, y, w, h } = small.rect;
  const part = intersect({ x: x * size, y: y * size, w: w * size, h: h * size }, onto.rect);
  if (times === 0 && sameRect(small.rect, onto.rect)) kernels.addScaled(small.at, onto.at, onto.pixels, weight);
  else {
    const to = onto.row(part.y - onto.rect.y) + (part.x - onto.rect.x) * 16;
    const [left, top] = [part.x - x * size, part.y - y * size];
    kernels.enlargeAdd(small.at, w, h, size, to, onto.rect.w * 16, left, top, part.w, part.h, weight);
  }
  small.release();
}
