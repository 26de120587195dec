// Pictures whose pixels are taken from elsewhere, by a formula of the place.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { Picture } from './picture';
import { sameRect } from './rect';
import { partOf } from './rows';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
/** Where a pixel is taken from: gets the middle of a pixel in the source and puts the place into `to`. */
export type From = (x: number, y: number, to: Float64Array) => void;

/**
 * @param size of the source: beyond its border there is the border's own colour, but beyond what was cut out of it nothing
 * @param beyond with `clear` there is nothing beyond the source either @returns owned by the caller, as large as the picture
 */
export function bent(
  tools: Tools & { size: { w: number; h: number } },
  picture: Picture,
  from: From,
  beyond: 'border' | 'clear' = 'border',
): Picture {
  const { kernels, arena, size } = tools;
  const { x, y, w, h } = picture.rect;
  // a pixel of nothing beside what was cut off
  const cut = (off: number): number => (beyond === 'clear' || off > 0 ? 1 : 0);
  const [before, above] = [cut(x), cut(y)];
  const around = {
    x: x - before,
    y: y - above,
    w: w + before + cut(size.w - x - w),
    h: h + above + cut(size.h - y - h),
  };
  const read = sameRect(around, picture.rect) ? picture.retain() : partOf(tools, picture, around);
  const out = Picture.make(arena, picture.rect);
  const [left, top] = [x - read.rect.x, y - read.rect.y];
  const place = new Float64Array(2);
  arena.scratch(w * 8 + 16, (planes) => {
    for (let row = 0; row < h; row++) {
      const [dx, dy] = [arena.floats(planes, w), arena.floats(planes + w * 4, w)];
      const down = y + row + 0.5;
      for (let i = 0; i < w; i++) {
        const across = x + i + 0.5;
        from(across, down, place);
        dx[i] = place[0]! - across;
        dy[i] = place[1]! - down;
      }
      kernels.displacedRow(
        read.at,
        read.rect.w,
        read.rect.h,
        out.row(row),
        w,
        left,
        top + row,
        planes,
        planes + w * 4,
        1,
      );
    }
  });
  read.release();
  return out;
}
