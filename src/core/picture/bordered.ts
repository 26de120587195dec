import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { Picture } from './picture';
import type { Rect } from './rect';

/** A picture with its border repeated as far as a rectangle reaches, owned by the caller. @param rect holds the picture */
export function bordered(
  { kernels, arena }: { kernels: Kernels; arena: Arena },
  picture: Picture,
  rect: Rect,
): Picture {
  const out = Picture.make(arena, rect);
  const { x, y, w, h } = picture.rect;
  const [left, top] = [x - rect.x, y - rect.y];
  const right = rect.w - left - w;
  const repeat = (from: number, to: number, count: number): void => {
    const [r, g, b, a] = arena.floats(from, 4) as unknown as [number, number, number, number];
    if (count > 0) kernels.fill(to, count, r, g, b, a);
  };
  for (let row = 0; row < h; row++) {
    const [from, to] = [picture.row(row), out.row(top + row)];
    repeat(from, to, left);
    kernels.copy(from, to + left * 16, w);
    repeat(from + (w - 1) * 16, to + (left + w) * 16, right);
  }
  for (let row = 0; row < rect.h; row++) {
    const from = Math.min(top + h - 1, Math.max(top, row));
    if (from !== row) kernels.copy(out.row(from), out.row(row), rect.w);
  }
  return out;
}
