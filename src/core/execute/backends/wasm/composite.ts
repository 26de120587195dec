import type { Kernels } from '../../../picture/kernels';
import type { Matrix } from '../../../picture/matrix';
import { placedBounds } from '../../../picture/bounds';
import { place } from '../../../picture/transform';
import type { Arena } from '../../../picture/arena';
import { blendRows } from '../../../picture/rows';
import { BYTES_PER_PIXEL, Picture } from '../../../picture/picture';
import { intersect, isEmpty, union, type Rect } from '../../../picture/rect';
import type { LayerPlan, Size } from '../../../plan/types';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** A picture of the background. */
export function backdrop(
  { kernels, arena }: Tools,
  rect: Rect,
  colour: readonly [number, number, number] | null,
): Picture {
  const out = Picture.make(arena, rect);
  const [r, g, b] = colour ?? [0, 0, 0];
  kernels.fill(out.at, out.pixels, r, g, b, colour ? 1 : 0);
  return out;
}

/** Slanted stripes, so that missing media cannot be taken for a picture. */
export function placeholder({ kernels, arena }: Tools, size: Size): Picture {
  const picture = Picture.make(arena, { x: 0, y: 0, ...size });
  const stripe = Math.max(8, Math.round(size.h / 12));
  for (let y = 0; y < size.h; y++) {
    for (let x = -(y % stripe); x < size.w; x += stripe) {
      const [from, to] = [Math.max(0, x), Math.min(size.w, x + stripe)];
      const v = ((x + y) / stripe) % 2 ? 0.3 : 0.42;
      kernels.fill(picture.row(y) + from * BYTES_PER_PIXEL, to - from, v, v, v, 1);
    }
  }
  return picture;
}

/** A shot-sized plane of floats in the arena. */
export type Plane = number;

/** Whether a layer is drawn as it is, moved by whole pixels, and where to. */
export function plainShift(layer: LayerPlan, linear: boolean): [number, number] | null {
  const plain = !layer.tilt && !layer.trail.length && !layer.matte && !layer.after.length;
  return plain && layer.opacity === 1 && !linear ? wholeShift(layer.matrix) : null;
}

/** A layer's processed picture where it lies in the shot, at its opacity, display-encoded; null when nothing of it shows. @param within of the shot */
export function placed(tools: Tools, layer: LayerPlan, picture: Picture, within: Rect): Picture | null {
  return layer.trail.length
    ? smeared(tools, picture, layer, within)
    : place(tools, picture, layer.tilt ?? layer.matrix, layer.opacity, within);
}

/** Cuts a placed picture by a plane of the shot, in place. @param width of the shot */
export function cutBy({ kernels }: Tools, picture: Picture, plane: Plane, width: number): void {
  const { x, y, w, h } = picture.rect;
  for (let row = 0; row < h; row++)
    kernels.scaleByPlane(picture.row(row), plane + ((y + row) * width + x) * 4, picture.row(row), w);
}

/** What masks of a layer cover where it lies in the shot: floats, one for each pixel of a rectangle. @param own coverage over the layer's own pixels */
export function placedCoverage(
  tools: Tools,
  layer: LayerPlan,
  own: (rect: Rect) => Float32Array,
  rect: Rect,
): Float32Array {
  const { kernels, arena } = tools;
  const source = { x: 0, y: 0, ...layer.size };
  const cover = Picture.make(arena, source);
  kernels.fill(cover.at, cover.pixels, 1, 1, 1, 1);
  const values = own(source);
  arena.scratch(values.byteLength + 12, (at) => {
    arena.floats(at, values.length).set(values);
    kernels.scaleByPlane(cover.at, at, cover.at, cover.pixels);
  });
  const whole = Picture.make(arena, rect);
  kernels.fill(whole.at, whole.pixels, 0, 0, 0, 0);
  const lying = place(tools, cover, layer.tilt ?? layer.matrix, 1, rect);
  cover.release();
  if (lying) blendRows(tools, whole, lying, lying.rect, 0);
  lying?.release();
  const plane = arena.scratch(whole.pixels * 4 + 16, (at) => {
    kernels.coveragePlane(whole.at, whole.pixels, 0, 0, at);
    return arena.floats(at, whole.pixels).slice();
  });
  whole.release();
  return plane;
}

/** The mean of a picture at all the places of its trail: what an open shutter sees. Mixed in linear light. */
function smeared(tools: Tools, picture: Picture, layer: LayerPlan, within: Rect): Picture | null {
  let cover: Rect | null = null;
  for (const moment of layer.trail) {
    const part = intersect(placedBounds(moment, picture.rect), within);
    if (!isEmpty(part)) cover = cover ? union(cover, part) : part;
  }
  if (!cover) return null;
  const sum = Picture.make(tools.arena, cover);
  tools.kernels.fill(sum.at, sum.pixels, 0, 0, 0, 0);
  for (const moment of layer.trail) {
    const placed = place(tools, picture, moment, layer.opacity, cover);
    if (!placed) continue;
    tools.kernels.toLinearSpan(placed.at, placed.pixels);
    for (let y = 0; y < placed.rect.h; y++) {
      const at = sum.row(placed.rect.y + y - cover.y) + (placed.rect.x - cover.x) * BYTES_PER_PIXEL;
      tools.kernels.addScaled(placed.row(y), at, placed.rect.w, 1 / layer.trail.length);
    }
    placed.release();
  }
  tools.kernels.toDisplaySpan(sum.at, sum.pixels);
  return sum;
}

/** The map's translation when it is nothing else and whole. */
function wholeShift([a, b, c, d, e, f]: Matrix): [number, number] | null {
  return a === 1 && d === 1 && b === 0 && c === 0 && Number.isInteger(e) && Number.isInteger(f) ? [e, f] : null;
}
