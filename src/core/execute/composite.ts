import { BLEND_MODES } from '../picture/blend';
import { gaussian } from '../picture/gaussian';
import type { Kernels } from '../picture/kernels';
import { apply, multiply, scaling, translation, type Matrix } from '../picture/matrix';
import { place, placedBounds } from '../picture/transform';
import type { Arena } from '../picture/arena';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { intersect, isEmpty, union, type Rect } from '../picture/rect';
import type { LayerPlan } from '../plan/plan';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** A shot-sized picture of the background. */
export function backdrop(
  { kernels, arena }: Tools,
  width: number,
  height: number,
  colour: readonly [number, number, number] | null,
): Picture {
  const out = Picture.make(arena, { x: 0, y: 0, w: width, h: height });
  const [r, g, b] = colour ?? [0, 0, 0];
  kernels.fill(out.at, out.pixels, r, g, b, colour ? 1 : 0);
  return out;
}

/** A shot-sized plane of floats in the arena. */
export type Plane = number;

/**
 * Draws a layer's processed picture into the shot, in place.
 * @param under shot-sized; display-encoded, or linear when `linear` says so @param matte what the layer is cut by, if anything
 * @param wrapArea where light wraps, over a rectangle of the layer's own pixels
 */
export function drawLayer(
  tools: Tools,
  under: Picture,
  layer: LayerPlan,
  picture: Picture,
  linear: boolean,
  matte: Plane | null = null,
  wrapArea: AreaOf | null = null,
): void {
  if (isEmpty(picture.rect) || layer.opacity <= 0) return;
  const mode = BLEND_MODES.indexOf(layer.blend);
  const flat = !layer.tilt && !layer.trail.length && matte === null && !layer.wrap;
  const shift = flat && layer.opacity === 1 && !linear ? wholeShift(layer.matrix) : null;
  if (shift) {
    blendRows(
      tools,
      under,
      picture,
      { ...picture.rect, x: picture.rect.x + shift[0], y: picture.rect.y + shift[1] },
      mode,
    );
    return;
  }
  const placed = layer.trail.length
    ? smeared(tools, picture, layer, under.rect)
    : place(tools, picture, layer.tilt ?? layer.matrix, layer.opacity, under.rect);
  if (!placed) return;
  if (matte !== null) {
    for (let y = 0; y < placed.rect.h; y++) {
      const at = matte + ((placed.rect.y + y) * under.rect.w + placed.rect.x) * 4;
      tools.kernels.scaleByPlane(placed.row(y), at, placed.row(y), placed.rect.w);
    }
  }
  if (linear) tools.kernels.toLinearSpan(placed.at, placed.pixels);
  if (layer.wrap) wrapLight(tools, under, placed, layer, wrapArea);
  blendRows(tools, under, placed, placed.rect, mode);
  placed.release();
}

/** Coverage over a rectangle of a layer's own pixels. */
type AreaOf = (rect: Rect) => Float32Array;

/** Screens the blurred light of what is below over a placed layer's edge, in place; only where its area is, if it has one. */
function wrapLight(tools: Tools, under: Picture, placed: Picture, layer: LayerPlan, area: AreaOf | null): void {
  const { kernels, arena } = tools;
  const { x, y, w, h } = placed.rect;
  const { reach, strength } = layer.wrap!;
  const below = Picture.make(arena, placed.rect);
  for (let row = 0; row < h; row++) kernels.copy(under.row(y + row) + x * BYTES_PER_PIXEL, below.row(row), w);
  const soft = Picture.make(arena, placed.rect);
  const sigma = Math.max(0.5, reach / 2);
  gaussian(tools, below.at, below.at, w, h, sigma, true);
  gaussian(tools, placed.at, soft.at, w, h, sigma, true);
  const plane = area && placedArea(tools, area, layer, placed.rect);
  if (plane) {
    const plain = Picture.make(arena, placed.rect);
    kernels.copy(placed.at, plain.at, placed.pixels);
    kernels.lightWrap(placed.at, below.at, soft.at, w * h, strength);
    kernels.lerpByPlane(plain.at, placed.at, plane.at, placed.at, placed.pixels);
    plain.release();
    plane.release();
  } else kernels.lightWrap(placed.at, below.at, soft.at, w * h, strength);
  below.release();
  soft.release();
}

/** An area of a layer where it lies in the shot: floats, one for each pixel of a rectangle, in the memory of a picture. */
function placedArea(tools: Tools, area: AreaOf, layer: LayerPlan, rect: Rect): Picture {
  const { kernels, arena } = tools;
  const own = { x: 0, y: 0, ...layer.size };
  const cover = Picture.make(arena, own);
  kernels.fill(cover.at, cover.pixels, 1, 1, 1, 1);
  const values = area(own);
  arena.scratch(values.byteLength + 12, (at) => {
    arena.floats(at, values.length).set(values);
    kernels.scaleByPlane(cover.at, at, cover.at, cover.pixels);
  });
  const whole = Picture.make(arena, rect);
  kernels.fill(whole.at, whole.pixels, 0, 0, 0, 0);
  const placed = place(tools, cover, layer.tilt ?? layer.matrix, 1, rect);
  cover.release();
  if (placed) blendRows(tools, whole, placed, placed.rect, 0);
  placed?.release();
  const plane = Picture.make(arena, { x: 0, y: 0, w: Math.ceil(whole.pixels / 4) + 1, h: 1 });
  kernels.coveragePlane(whole.at, whole.pixels, 0, 0, plane.at);
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

/** Blends a picture, taken to lie at `rect`, onto the part of `under` that it covers. */
function blendRows({ kernels }: Tools, under: Picture, picture: Picture, rect: Rect, mode: number): void {
  const part = intersect(rect, under.rect);
  for (let y = part.y; y < part.y + part.h; y++) {
    const at = under.row(y - under.rect.y) + (part.x - under.rect.x) * BYTES_PER_PIXEL;
    kernels.blendSpan(mode, at, picture.row(y - rect.y) + (part.x - rect.x) * BYTES_PER_PIXEL, part.w);
  }
}

/** A reduced copy of a part of a picture for a thumbnail: fits `part` into w×h, in the middle. */
export function thumbnail(
  tools: Tools,
  picture: Picture,
  part: { w: number; h: number },
  w: number,
  h: number,
): Picture {
  const scale = Math.min(w / part.w, h / part.h);
  const [x, y] = apply(scaling(scale, scale), part.w, part.h);
  const map = multiply(translation((w - x) / 2, (h - y) / 2), scaling(scale, scale));
  const out = backdrop(tools, w, h, null);
  const placed = isEmpty(picture.rect) ? null : place(tools, picture, map, 1, out.rect);
  if (placed) {
    blendRows(tools, out, placed, placed.rect, 0);
    placed.release();
  }
  return out;
}
