// What sprites are drawn from: a picture, smaller ones of it, and such as are out of focus.
import { apertureRows, throughAperture } from '../picture/aperture';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { grow } from '../picture/rect';
import { partOf } from '../picture/rows';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
/** Clear pixels around a sprite, into which its border goes over. */
export const BORDER = 1;

/** What sprites are drawn from: a picture in its sizes, and how one of some size is laid out on it. */
export interface Drawable {
  /** the largest first, each with a border */
  sizes: Picture[];
  /** the picture's own width and height, which lies in the middle of the largest */
  own: { w: number; h: number };
  /** half sides that the whole of it takes for a particle, and what is left of its opacity. @param halfWide, halfHigh of the particle @param soft pixels that it is out of focus */
  laid(halfWide: number, halfHigh: number, soft: number): readonly [halfWide: number, halfHigh: number, left: number];
}
/** Width and height without the border. */
const inside = ({ rect: { w, h } }: Picture) => [w - 2 * BORDER, h - 2 * BORDER] as const;

/** @param picture not given up */
export function inFocus(tools: Tools, picture: Picture): Drawable {
  const sizes = sizesOf(tools, picture);
  const { w, h } = picture.rect;
  const [fullW, fullH] = inside(sizes[0]!);
  return {
    sizes,
    own: { w, h },
    laid: (halfWide, halfHigh) => [(halfWide * fullW) / w, (halfHigh * fullH) / h, 1],
  };
}

/** A picture and smaller ones of it, so much larger by clear pixels that each is half as large as the one before to the pixel. @returns held by the caller */
function sizesOf(tools: Tools, picture: Picture): Picture[] {
  const { x, y, w, h } = picture.rect;
  const times = Math.max(0, Math.min(Math.floor(Math.log2(Math.max(w, h) / 4)), Math.ceil(Math.log2(Math.min(w, h)))));
  const cell = 2 ** times;
  const spare = (side: number) => cell * Math.ceil(side / cell) - side;
  const [left, top] = [Math.floor(spare(w) / 2), Math.floor(spare(h) / 2)];
  let now = partOf(tools, picture, { x: x - left, y: y - top, w: w + spare(w), h: h + spare(h) });
  const sizes = [withBorder(tools, now)];
  for (let i = 0; i < times; i++) {
    const half = Picture.make(tools.arena, { x: 0, y: 0, w: now.rect.w / 2, h: now.rect.h / 2 });
    tools.kernels.halve(now.at, now.rect.w, now.rect.h, half.at);
    now.release();
    now = half;
    sizes.push(withBorder(tools, now));
  }
  now.release();
  return sizes;
}
const withBorder = (tools: Tools, picture: Picture): Picture => partOf(tools, picture, grow(picture.rect, BORDER));

/** Out of focus by less than this of half the longer side is sharp; from one step to the next it is so many times more, and no more than so many steps. */
const [LEAST, TIMES, STEPS] = [0.05, 2 ** 0.25, 36];
/** Pixels of the aperture that a picture is blurred through, at most. */
const APERTURE = 8;

/** The step of being out of focus; −1 is sharp. @param soft radius of the aperture @param half of the longer side, both in pixels */
export const stepFor = (soft: number, half: number): number =>
  soft > LEAST * half ? Math.min(STEPS, Math.round(Math.log(soft / (LEAST * half)) / Math.log(TIMES))) : -1;

/** A picture as a lens shows it that is set to another distance, in linear light. */
export function outOfFocus(tools: Tools, { sizes, own }: Drawable, step: number): Drawable {
  const { kernels } = tools;
  const most = Math.max(own.w, own.h);
  const ratio = LEAST * TIMES ** step;
  const wanted = Math.ceil(Math.log2((ratio * most) / 2 / APERTURE));
  const level = Math.min(sizes.length - 1, Math.max(0, wanted));
  const from = sizes[level]!;
  const [w, h, radius] = [own.w, own.h, (ratio * most) / 2].map((v) => v / 2 ** level) as [number, number, number];
  const inner = Math.ceil(radius) + 1;
  const room = partOf(tools, from, grow(from.rect, 2 * inner));
  kernels.toLinearSpan(room.at, room.pixels);
  const soft = throughAperture(tools, room, apertureRows(radius, 0, 0), inner);
  room.release();
  kernels.toDisplaySpan(soft.at, soft.pixels);
  const made = sizesOf(tools, soft);
  soft.release();
  const [wide, high] = inside(made[0]!);
  const across = alongSide(w / 2, wide / 2, radius);
  const down = alongSide(h / 2, high / 2, radius);
  return {
    sizes: made,
    own: soft.rect,
    laid(halfWide, halfHigh, pixels) {
      const [x, y] = [across(halfWide, pixels), down(halfHigh, pixels)];
      return [x.half, y.half, x.left * y.left];
    },
  };
}
/**
 * How a side is laid out: what is seen reaches as far beyond the sharp side as it is out of focus, whatever step is nearest to that.
 * @param sharp half of the sharp side, and `whole` half of all, on the blurred picture, as `radius` is
 */
const alongSide = (sharp: number, whole: number, radius: number) => (half: number, soft: number) => {
  const scale = (half + soft) / (sharp + radius);
  // what is no more than blur is as faint as that is wide; what has a middle that is whole stays so
  const blurred = Math.min(1, Math.max(0, (soft / half - 0.3) / 0.7));
  // no more than makes its middle whole
  return {
    half: whole * scale,
    left: Math.min(Math.max(1, radius / sharp), 1 + blurred * (half / (sharp * scale) - 1)),
  };
};
