import { BLEND_MODES } from '../picture/blend';
import type { Kernels } from '../picture/kernels';
import { apply, corners, invert, multiply, scaling, translation, type Matrix } from '../picture/matrix';
import type { Arena } from '../picture/arena';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { intersect, isEmpty, type Rect } from '../picture/rect';
import type { LayerPlan } from '../plan/plan';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** A shot-sized picture of the background. */
export function backdrop({ kernels, arena }: Tools, width: number, height: number, colour: readonly [number, number, number] | null): Picture {
  const out = Picture.make(arena, { x: 0, y: 0, w: width, h: height });
  const [r, g, b] = colour ?? [0, 0, 0];
  kernels.fill(out.at, out.pixels, r, g, b, colour ? 1 : 0);
  return out;
}

/**
 * Draws a layer's processed picture into the shot, in place.
 * @param under shot-sized; display-encoded, or linear when `linear` says so
 */
export function drawLayer(tools: Tools, under: Picture, layer: LayerPlan, picture: Picture, linear: boolean): void {
  if (isEmpty(picture.rect) || layer.opacity <= 0) return;
  const mode = BLEND_MODES.indexOf(layer.blend);
  const shift = wholeShift(layer.matrix);
  if (shift && layer.opacity === 1 && !linear) {
    blendRows(tools, under, picture, { ...picture.rect, x: picture.rect.x + shift[0], y: picture.rect.y + shift[1] }, mode);
    return;
  }
  const placed = place(tools, picture, layer.matrix, layer.opacity, under.rect);
  if (!placed) return;
  if (linear) tools.kernels.toLinearSpan(placed.at, placed.pixels);
  blendRows(tools, under, placed, placed.rect, mode);
  placed.release();
}

/** The map's translation when it is nothing else and whole. */
function wholeShift([a, b, c, d, e, f]: Matrix): [number, number] | null {
  return a === 1 && d === 1 && b === 0 && c === 0 && Number.isInteger(e) && Number.isInteger(f) ? [e, f] : null;
}

/** Blends a picture, taken to lie at `rect`, onto the part of `under` that it covers. */
function blendRows({ kernels }: Tools, under: Picture, picture: Picture, rect: Rect, mode: number): void {
  const part = intersect(rect, under.rect);
  for (let y = part.y; y < part.y + part.h; y++) {
    const at = under.row(y) + part.x * BYTES_PER_PIXEL;
    kernels.blendSpan(mode, at, picture.row(y - rect.y) + (part.x - rect.x) * BYTES_PER_PIXEL, part.w);
  }
}

/** A picture drawn through a map, cut to `within`. Strong reductions are halved first so that nothing is skipped. @returns null when nothing shows */
export function place(tools: Tools, picture: Picture, matrix: Matrix, opacity: number, within: Rect): Picture | null {
  let map = multiply(matrix, translation(picture.rect.x, picture.rect.y));
  let { w, h } = picture.rect;
  const part = intersect(bounds(map, w, h), within);
  if (isEmpty(part)) return null;
  const halved: number[] = [];
  let at = picture.at;
  while (Math.max(w, h) > 1 && Math.max(Math.hypot(map[0], map[1]), Math.hypot(map[2], map[3])) < 0.5) {
    const next = tools.arena.take(Math.ceil(w / 2) * Math.ceil(h / 2) * BYTES_PER_PIXEL);
    tools.kernels.halve(at, w, h, next);
    halved.push(next);
    at = next;
    w = Math.ceil(w / 2);
    h = Math.ceil(h / 2);
    map = multiply(map, scaling(2, 2));
  }
  const back = invert(multiply(translation(-part.x, -part.y), map));
  let out: Picture | null = null;
  if (back) {
    out = Picture.make(tools.arena, part);
    tools.kernels.affine(at, w, h, out.at, part.w, part.h, ...(back as [number, number, number, number, number, number]), opacity);
  }
  halved.forEach((block) => tools.arena.give(block));
  return out;
}

function bounds(map: Matrix, w: number, h: number): Rect {
  const points = corners(map, w, h);
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const x = Math.floor(Math.min(...xs) - 0.5);
  const y = Math.floor(Math.min(...ys) - 0.5);
  return { x, y, w: Math.ceil(Math.max(...xs) + 0.5) - x, h: Math.ceil(Math.max(...ys) + 0.5) - y };
}

/** A reduced copy of a part of a picture for a thumbnail: fits `part` into w×h, in the middle. */
export function thumbnail(tools: Tools, picture: Picture, part: { w: number; h: number }, w: number, h: number): Picture {
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
