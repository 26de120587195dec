import type { Arena } from './arena';
import type { Kernels } from './kernels';
import {
  invert,
  multiply,
  project,
  projective,
  projectiveInverse,
  projectiveProduct,
  scaling,
  translation,
  type Matrix,
  type Projective,
} from './matrix';
import { placedBounds } from './bounds';
import { BYTES_PER_PIXEL, Picture } from './picture';
import { intersect, isEmpty, type Rect } from './rect';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

const isAffine = (m: Matrix | Projective): m is Matrix => m.length === 6;
/** A projective map that is affine after all, as that. */
function flattened(m: Matrix | Projective): Matrix | Projective {
  return !isAffine(m) && m[6] === 0 && m[7] === 0 && m[8] === 1 ? [m[0], m[3], m[1], m[4], m[2], m[5]] : m;
}

/** How much smaller a map draws things about the middle of a w×h picture, the longer of both ways. */
function scaleOf(map: Matrix | Projective, w: number, h: number): number {
  if (isAffine(map)) return Math.max(Math.hypot(map[0], map[1]), Math.hypot(map[2], map[3]));
  const [[x, y], [x1, y1], [x2, y2]] = [
    project(map, w / 2, h / 2),
    project(map, w / 2 + 1, h / 2),
    project(map, w / 2, h / 2 + 1),
  ];
  return Math.max(Math.hypot(x1 - x, y1 - y), Math.hypot(x2 - x, y2 - y));
}

/** A picture drawn through a map, cut to `within`. Strong reductions are halved first so that nothing is skipped. @returns null when nothing shows */
export function place(
  tools: Tools,
  picture: Picture,
  matrix: Matrix | Projective,
  opacity: number,
  within: Rect,
): Picture | null {
  const whole = flattened(matrix);
  const part = intersect(placedBounds(whole, picture.rect), within);
  if (isEmpty(part) || isEmpty(picture.rect)) return null;
  const before = (map: Matrix | Projective, own: Matrix): Matrix | Projective =>
    isAffine(map) ? multiply(map, own) : projectiveProduct(map, projective(own));
  let map = before(whole, translation(picture.rect.x, picture.rect.y));
  let { w, h } = picture.rect;
  const halved: number[] = [];
  let at = picture.at;
  while (Math.max(w, h) > 1 && scaleOf(map, w, h) < 0.5) {
    const next = tools.arena.take(Math.ceil(w / 2) * Math.ceil(h / 2) * BYTES_PER_PIXEL);
    tools.kernels.halve(at, w, h, next);
    halved.push(next);
    at = next;
    w = Math.ceil(w / 2);
    h = Math.ceil(h / 2);
    map = before(map, scaling(2, 2));
  }
  const shifted = isAffine(map)
    ? multiply(translation(-part.x, -part.y), map)
    : projectiveProduct(projective(translation(-part.x, -part.y)), map);
  const back = isAffine(shifted) ? invert(shifted) : projectiveInverse(shifted);
  let out: Picture | null = null;
  if (back) {
    out = Picture.make(tools.arena, part);
    if (isAffine(back)) tools.kernels.affine(at, w, h, out.at, part.w, part.h, ...back, opacity, 0);
    else {
      const { at: to } = out;
      tools.arena.scratch(64, (params) => {
        tools.arena.floats(params, 9).set(back);
        tools.kernels.projective(at, w, h, to, part.w, part.h, params, opacity);
      });
    }
  }
  halved.forEach((block) => tools.arena.give(block));
  return out;
}
