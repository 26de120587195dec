// Edges of a matte from the colours on both of their sides.
import { rowsOf, type Rows } from '../analysis/screen-likeness';
import { CELL } from '../analysis/screen-model';
import type { Picture } from '../picture/picture';
import type { PassTools } from './define';

/** Bytes of a cell of what is sure, as the kernels sum it up. */
const CELL_BYTES = 48;
/** The marks' bits. */
const [SOLID, CLEAR, FAR_INSIDE] = [1, 2, 4];
/** How much further in than clear surroundings are looked for the screen's light is taken to be least. */
const DEEPER = 8 / 3;
const DEEPEST = 48;
/** Edges narrower than this, in pixels, follow the luma too, the narrower the more, up to this share. */
const NARROW = 4;
const MOST = 0.5;
/** Both sides of an edge that has no hair are at most so far away, in pixels. */
const BESIDE = 4;

/** A matte as it was cut, in the arena, and how its values become what they stand for after the clips. */
export interface Cut {
  matte: number;
  offset: number;
  gain: number;
}

export interface Fitted {
  /** address of the fitted matte, and of marks of a byte a pixel */
  matte: number;
  marks: number;
  /** what lies far inside; null when nothing does */
  inside: () => Side | null;
}

/** What more is known of what is cut. */
interface Known {
  /** gives the matte made to follow the luma, wherever there is no mark; asked for when there are narrow edges */
  guided?: (marks: number) => number;
  /** what lies behind the subject, of the same rectangle */
  plate?: Picture;
  /** the picture as it was, where the one that is cut has been evened: how both sides stray is read from it */
  noisy?: Picture;
}

/**
 * Each pixel that is neither surely solid nor surely clear gets the share at which the subject's and the screen's colour near it, mixed in
 * linear light, are the likeliest to give what is seen. The subject's colour holds the screen's light on it, so that its inside stays solid.
 * @param around pixels to all sides that have to be clear before one is surely clear
 * @returns null when nothing is surely solid or surely clear
 */
export function fitEdges(
  { matte, offset, gain }: Cut,
  picture: Picture,
  around: number,
  tools: PassTools,
  { guided, plate, noisy = picture }: Known,
): Fitted | null {
  const { kernels, arena, scratch } = tools;
  const { w, h } = picture.rect;
  const even = scratch(w * h * 4 + 12);
  kernels.evenPlane(matte, w, h, even);
  const width = kernels.edgeWidth(even, w, h, offset, gain);
  // what is solid is so up to the edge; hair is looked for further out
  const solid = Math.min(around, Math.max(1, Math.round(width / 3)));
  const deep = Math.max(around, Math.min(DEEPEST, Math.round(around * DEEPER)));
  const marks = scratch(w * h + 16);
  arena.scratch(kernels.marksScratch(w, h), (at) =>
    kernels.sureMarks(even, w, h, offset, gain, solid, around, deep, marks, at),
  );
  const [subject, screen] = [sideOf(SOLID, marks, noisy, tools), sideOf(CLEAR, marks, noisy, tools)];
  if (!subject || !screen) return null;
  const out = scratch(w * h * 4 + 12);
  const row = (y: number) => matte + Math.min(h - 1, Math.max(0, y)) * w * 4;
  for (let y = 0; y < h; y++) {
    kernels.fitRow(
      picture.row(y),
      w,
      row(y),
      row(y - 1),
      row(y + 1),
      gain,
      marks + y * w,
      out + y * w * 4,
      subject.colour(y),
      subject.stray(y),
      screen.colour(y),
      screen.stray(y),
      plate?.row(y) ?? 0,
    );
  }
  const share = MOST * Math.min(1, NARROW - width);
  const other = share > 0 && guided ? guided(marks) : null;
  if (other !== null)
    arena.scratch(kernels.marksScratch(w, h), (at) =>
      kernels.towardsNear(out, other, matte, marks, w, h, offset, gain, BESIDE, share, at),
    );
  return { matte: out, marks, inside: () => sideOf(FAR_INSIDE, marks, picture, tools) };
}

/** Rows of the linear colours of one side of the edges, and of how they stray: variances of luma and of both colour differences. */
export interface Side {
  colour: Rows;
  stray: Rows;
}
function sideOf(kind: number, marks: number, picture: Picture, tools: PassTools): Side | null {
  const { kernels, arena, scratch } = tools;
  const [w, h] = [Math.ceil(picture.rect.w / CELL), Math.ceil(picture.rect.h / CELL)];
  const wide = w + 2;
  const [colour, stray] = [scratch(wide * h * 16), scratch(wide * h * 16)];
  const any = arena.scratch(w * h * CELL_BYTES * 2 + 16 * CELL_BYTES, (cells) => {
    kernels.sureCells(picture.at, marks, picture.rect.w, picture.rect.h, kind, cells);
    const found = kernels.spreadCells(cells, w, h, cells + w * h * CELL_BYTES);
    if (found) kernels.cellGrids(cells, w, h, colour, stray);
    return found;
  });
  return any ? { colour: rowsOf(colour, wide, h, tools), stray: rowsOf(stray, wide, h, tools) } : null;
}
