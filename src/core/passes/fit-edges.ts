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
  subject: Side;
  screen: Side;
  /** what lies far inside; null when nothing does */
  inside: () => Side | null;
}

/** What more is known of what is cut. */
interface Known {
  /** gives the matte made to follow the luma, wherever there is a mark; asked for when there are narrow edges */
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
  const kinds = noisy === picture ? [SOLID, CLEAR, FAR_INSIDE] : [SOLID, CLEAR];
  const [solids, clears, insides] = seenCells(kinds, marks, noisy, tools);
  const [subject, screen] = [sideOf(solids!, picture, tools), sideOf(clears!, picture, tools)];
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
  if (share > 0 && guided) {
    const near = scratch(w * h + 16);
    arena.scratch(kernels.marksScratch(w, h), (at) =>
      kernels.nearBoth(matte, marks, w, h, offset, gain, BESIDE, near, at),
    );
    kernels.towardsMarked(out, guided(near), near, w * h, offset, gain, share);
  }
  const inside = () => sideOf(insides ?? seenCells([FAR_INSIDE], marks, picture, tools)[0]!, picture, tools);
  return { matte: out, marks, subject, screen, inside };
}

/** Rows of the linear colours of one side of the edges, and of how they stray: variances of luma and of both colour differences. */
export interface Side {
  colour: Rows;
  stray: Rows;
}
const cellsOf = ({ rect }: Picture) => ({ across: Math.ceil(rect.w / CELL), down: Math.ceil(rect.h / CELL) });

/** Sums over the cells of a picture of what is marked as each of some kinds, the lowest bit first. @returns where each one's are */
function seenCells(kinds: readonly number[], marks: number, picture: Picture, tools: PassTools): number[] {
  const { across, down } = cellsOf(picture);
  const grid = across * down * CELL_BYTES;
  const at = tools.scratch(grid * kinds.length);
  const bits = kinds.reduce((all, bit) => all | bit, 0);
  tools.kernels.sureCells(picture.at, marks, picture.rect.w, picture.rect.h, bits, at);
  return kinds.map((_, i) => at + i * grid);
}

/** @param cells sums, which become means @returns null when there is nothing in any of them */
function sideOf(cells: number, picture: Picture, tools: PassTools): Side | null {
  const { kernels, arena, scratch } = tools;
  const { across, down } = cellsOf(picture);
  const any = arena.scratch((across * down + 16) * CELL_BYTES, (at) => kernels.spreadCells(cells, across, down, at));
  if (!any) return null;
  const wide = across + 2;
  const [colour, stray] = [scratch(wide * down * 16), scratch(wide * down * 16)];
  kernels.cellGrids(cells, across, down, colour, stray);
  return { colour: rowsOf(colour, wide, down, tools), stray: rowsOf(stray, wide, down, tools) };
}
