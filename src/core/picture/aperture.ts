// What a lens makes of every point: the shape of its aperture.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import { BYTES_PER_PIXEL, Picture } from './picture';

interface ApertureRow {
  left: number;
  right: number;
  share: number;
}
/** Each row of an aperture: how far it reaches to the left and to the right of its middle; the rows from its top on, of a pixel each. */
export function apertureRows(radius: number, blades: number, degrees: number): ApertureRow[] {
  const count = Math.ceil(radius - 0.5);
  const turn = (degrees * Math.PI) / 180;
  const corners = Array.from({ length: blades }, (_, i) => {
    const at = turn + (2 * Math.PI * i) / blades;
    return [radius * Math.cos(at), radius * Math.sin(at)] as const;
  });
  /** where a level line at a height crosses the aperture */
  const across = (v: number): [number, number] | null => {
    if (blades < 3)
      return Math.abs(v) < radius ? [Math.sqrt(radius ** 2 - v ** 2), Math.sqrt(radius ** 2 - v ** 2)] : null;
    const xs = corners.flatMap(([x0, y0], i) => {
      const [x1, y1] = corners[(i + 1) % blades]!;
      return y0 <= v !== y1 <= v ? [x0 + ((x1 - x0) * (v - y0)) / (y1 - y0)] : [];
    });
    return xs.length < 2 ? null : [-Math.min(...xs), Math.max(...xs)];
  };
  const FINE = 4;
  const rows = Array.from({ length: 2 * count + 1 }, (_, k) => {
    const parts = Array.from({ length: FINE }, (_, i) => across(k - count - 0.5 + (i + 0.5) / FINE)).filter(
      (part) => part !== null,
    );
    const mean = (side: 0 | 1) => parts.reduce((sum, part) => sum + part[side], 0) / Math.max(1, parts.length);
    return { left: mean(0), right: mean(1), share: parts.length / FINE };
  });
  const area = rows.reduce((sum, { left, right, share }) => sum + share * (left + right), 0);
  return rows.map((row) => ({ ...row, share: row.share / area }));
}

/**
 * Every pixel spread over an aperture, in the light that the picture is in.
 * @param rows of an aperture @param inner pixels by which the result is less on each side, more than the aperture reaches @returns owned by the caller
 */
export function throughAperture(
  { kernels, arena }: { kernels: Kernels; arena: Arena },
  picture: Picture,
  rows: readonly ApertureRow[],
  inner: number,
): Picture {
  const half = (rows.length - 1) / 2;
  const { x, y, w, h } = picture.rect;
  const soft = Picture.make(arena, { x: x + inner, y: y + inner, w: w - 2 * inner, h: h - 2 * inner });
  kernels.fill(soft.at, soft.pixels, 0, 0, 0, 0);
  arena.scratch((w + 2) * BYTES_PER_PIXEL, (sums) => {
    // the sums of a row are made once, and go to all rows that it counts for
    for (let row = 0; row < h; row++) {
      kernels.sumsRow(picture.row(row), sums, w);
      rows.forEach(({ left, right, share }, k) => {
        const to = row - inner - (k - half);
        if (share > 0 && to >= 0 && to < soft.rect.h)
          kernels.spanRow(sums + inner * BYTES_PER_PIXEL, soft.row(to), soft.rect.w, left, right, share);
      });
    }
  });
  return soft;
}
