import { Picture } from '../picture/picture';
import { intersect, isEmpty, type Rect } from '../picture/rect';
import type { SourceTools } from './define';

/** Pictures begin and end where this many pixels do, so that one made smaller is halved as the whole would be. */
const GRID = 32;
/** Pixels around what is drawn: one of a picture that was halved four times. */
const MARGIN = 16;

/** What is drawn, and some pixels around it. @param bounds left, top, right, bottom in pixels from the picture's corner */
function aligned([left, top, right, bottom]: readonly [number, number, number, number]): Rect {
  const [x, y] = [GRID * Math.floor((left - MARGIN) / GRID), GRID * Math.floor((top - MARGIN) / GRID)];
  return { x, y, w: GRID * Math.ceil((right + MARGIN) / GRID) - x, h: GRID * Math.ceil((bottom + MARGIN) / GRID) - y };
}

/** A clear picture to draw on, no larger than what is drawn needs. @param bounds of it: left, top, right, bottom in pixels from the corner of the source's picture; none when nothing is drawn */
export function clearPicture(
  { kernels, arena, size }: Pick<SourceTools, 'kernels' | 'arena' | 'size'>,
  bounds: readonly [number, number, number, number] | null,
): Picture {
  const rect = bounds ? intersect(aligned(bounds), { x: 0, y: 0, ...size }) : { x: 0, y: 0, w: 0, h: 0 };
  const picture = Picture.make(arena, isEmpty(rect) ? { x: 0, y: 0, w: 0, h: 0 } : rect);
  kernels.fill(picture.at, picture.pixels, 0, 0, 0, 0);
  return picture;
}
