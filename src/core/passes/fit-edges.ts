// Edges of a matte from the colours on both of their sides.
import { CELL } from '../analysis/screen-model';
import { spreadColours } from '../analysis/spread';
import type { Picture } from '../picture/picture';
import type { PassTools } from './define';

/** What colour weighs beside brightness: it is coarser in 4:2:0, but tells subject and screen apart. */
const WEIGHT = 1;
/** What a mix may miss, squared, before what the cut has made solid counts as much. */
const NEAR = 0.0009;

/**
 * Each pixel that is neither surely solid nor surely clear gets the share with which the subject's and the screen's colour near it, mixed in
 * linear light, give what is seen; where no mix comes near, what was cut as solid stays so. The subject's colour holds the screen's light on it, so that its inside stays solid.
 * @param matte address of w×h floats; the fitted matte takes its place @param offset, gain from its values to the matte after the clips
 * @param around pixels to all sides that have to be clear before one is surely clear
 * @returns false when nothing is surely solid or surely clear, and nothing was changed
 */
export function fitEdges(
  matte: number,
  picture: Picture,
  { offset, gain, around }: { offset: number; gain: number; around: number },
  tools: PassTools,
): boolean {
  const { kernels, arena, scratch } = tools;
  const { w, h } = picture.rect;
  // what is solid is so up to the edge; hair that was cut away is looked for further out
  const width = kernels.edgeWidth(matte, w, h, offset, gain);
  const solid = Math.min(around, Math.max(1, Math.round(width / 2)));
  const marks = scratch(w * h + 16);
  arena.scratch(w * h + 5 * w + 64, (at) => kernels.sureMarks(matte, w, h, offset, gain, solid, around, marks, at));
  const [cw, ch] = [Math.ceil(w / CELL), Math.ceil(h / CELL)];
  const colours = [1, 2].map((kind) =>
    arena.scratch(cw * ch * 16, (at) => {
      kernels.sureCells(picture.at, marks, w, h, kind, at);
      return spreadColours(arena.floats(at, cw * ch * 4).slice(), cw, ch);
    }),
  );
  if (!colours[0] || !colours[1]) return false;
  const [subject, screen] = colours.map((cells) => rowsBetween(cells!, cw, ch, tools)) as [Rows, Rows];
  for (let y = 0; y < h; y++)
    kernels.fitRow(
      picture.row(y),
      w,
      matte + y * w * 4,
      marks + y * w,
      subject(y),
      screen(y),
      offset,
      gain,
      WEIGHT,
      NEAR,
    );
  return true;
}

type Rows = (y: number) => number;
/** Rows between the cells of a grid, as the kernels want them. @param cells r, g, b of each @param fourth a further number for each */
export function rowsBetween(
  cells: ArrayLike<number>,
  w: number,
  h: number,
  { kernels, arena, scratch }: PassTools,
  fourth: (cell: number) => number = () => 0,
): Rows {
  const wide = w + 2;
  const grid = scratch(wide * h * 16);
  const floats = arena.floats(grid, wide * h * 4);
  for (let y = 0, to = 0; y < h; y++) {
    for (let x = 0; x < wide; x++, to += 4) {
      const cell = y * w + Math.min(w - 1, Math.max(0, x - 1));
      for (let c = 0; c < 3; c++) floats[to + c] = cells[cell * 3 + c]!;
      floats[to + 3] = fourth(cell);
    }
  }
  const row = scratch(wide * 16);
  return (y) => {
    const at = Math.min(h - 1, Math.max(0, (y + 0.5) / CELL - 0.5));
    const upper = Math.floor(at);
    kernels.lerpSpan(grid + upper * wide * 16, grid + Math.min(h - 1, upper + 1) * wide * 16, row, wide, at - upper);
    return row;
  };
}
