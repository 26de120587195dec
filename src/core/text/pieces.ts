// Parts of a text drawn by themselves, while they arrive.
import type { PlaneTools } from '../masks/distance';
import { boundsOf } from '../masks/path';
import { fillOnto } from '../masks/raster';
import { blurPlane } from '../masks/soften';
import { BYTES_PER_PIXEL, type Picture } from '../picture/picture';
import { grow, intersect, isEmpty } from '../picture/rect';
import type { Piece } from './arrival';

/** A blur of less than this many pixels is not seen. */
export const UNBLURRED = 0.2;
/** Draws outlines of a strength, colour and blur of their own onto a picture; only where they are. */
export function drawPiece(
  picture: Picture,
  { rings, opacity, blur }: Piece,
  colour: readonly [number, number, number],
  tools: PlaneTools,
): void {
  const { kernels, arena } = tools;
  const reach = blur < UNBLURRED ? 0 : Math.ceil(3 * blur);
  const [left, top, right, bottom] = boundsOf(rings);
  // what is blurred into the picture comes from beyond its borders, too
  const all = grow(picture.rect, reach);
  const x = Math.max(all.x, Math.floor(left) - reach);
  const y = Math.max(all.y, Math.floor(top) - reach);
  const w = Math.min(all.x + all.w, Math.ceil(right) + reach) - x;
  const h = Math.min(all.y + all.h, Math.ceil(bottom) + reach) - y;
  const seen = intersect({ x, y, w: Math.max(0, w), h: Math.max(0, h) }, picture.rect);
  if (isEmpty(seen)) return;
  const plane = new Float32Array(w * h);
  fillOnto(
    plane,
    rings.map((ring) => ring.map((v, i) => v - (i % 2 ? y : x))),
    w,
    h,
    opacity,
  );
  arena.scratch(plane.byteLength + 16, (at) => {
    arena.floats(at, plane.length).set(plane);
    if (reach) blurPlane(tools, at, w, h, blur);
    for (let row = seen.y; row < seen.y + seen.h; row++)
      kernels.overPlane(
        picture.row(row) + seen.x * BYTES_PER_PIXEL,
        at + ((row - y) * w + seen.x - x) * 4,
        seen.w,
        ...colour,
        0,
      );
  });
}
