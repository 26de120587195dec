// Parts of a text drawn by themselves, while they arrive.
import type { PlaneTools } from '../masks/distance';
import { boundsOf, shifted } from '../masks/path';
import { fillOnto } from '../masks/raster';
import { blurPlane } from '../masks/soften';
import { BYTES_PER_PIXEL, type Picture } from '../picture/picture';
import { grow, intersect, isEmpty } from '../picture/rect';
import type { Piece } from './arrival';

/** A blur of less than this many pixels is not seen. */
export const UNBLURRED = 0.2;
const reachOf = (blur: number): number => (blur < UNBLURRED ? 0 : Math.ceil(3 * blur));

/** What is drawn of some pieces: left, top, right, bottom; null for nothing. */
export function boundsOfPieces(pieces: readonly Piece[]): [number, number, number, number] | null {
  const drawn = pieces.filter(({ rings }) => rings.length);
  if (!drawn.length) return null;
  const each = drawn.map(({ rings, blur }) => boundsOf(rings).map((v, i) => v + (i < 2 ? -1 : 1) * reachOf(blur)));
  return [0, 1, 2, 3].map((i) => (i < 2 ? Math.min : Math.max)(...each.map((box) => box[i]!))) as [
    number,
    number,
    number,
    number,
  ];
}

/** Draws outlines of a strength, colour and blur of their own onto a picture; only where they are. */
export function drawPiece(
  picture: Picture,
  { rings, opacity, blur }: Piece,
  colour: readonly [number, number, number],
  tools: PlaneTools,
): void {
  const { kernels, arena } = tools;
  const reach = reachOf(blur);
  const [left, top, right, bottom] = boundsOf(rings);
  // what is blurred into the picture comes from beyond its borders, too
  const all = grow(picture.rect, reach);
  const x = Math.max(all.x, Math.floor(left) - reach);
  const y = Math.max(all.y, Math.floor(top) - reach);
  const w = Math.min(all.x + all.w, Math.ceil(right) + reach) - x;
  const h = Math.min(all.y + all.h, Math.ceil(bottom) + reach) - y;
  const seen = intersect({ x, y, w: Math.max(0, w), h: Math.max(0, h) }, picture.rect);
  if (isEmpty(seen)) return;
  arena.scratch(w * h * 4 + 16, (at) => {
    const plane = arena.floats(at, w * h).fill(0);
    fillOnto(plane, shifted(rings, -x, -y), w, h, opacity);
    if (reach) blurPlane(tools, at, w, h, blur);
    for (let row = seen.y; row < seen.y + seen.h; row++)
      kernels.overPlane(
        picture.row(row - picture.rect.y) + (seen.x - picture.rect.x) * BYTES_PER_PIXEL,
        at + ((row - y) * w + seen.x - x) * 4,
        seen.w,
        ...colour,
        0,
      );
  });
}
