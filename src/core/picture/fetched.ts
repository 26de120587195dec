// Decoded frames as they come in, and as pictures to compute with.
import type { Arena } from './arena';
import { bytesOf } from './bytes';
import type { Kernels } from './kernels';
import { Picture } from './picture';

/** Where the planes of Y′CbCr with half as much colour both ways lie behind those of Y′, and what they mean. */
export interface Planes {
  u: number;
  v: number;
  /** from one value of Cb, or of Cr, to the next */
  step: 1 | 2;
  /** plane of alpha; 0 for none */
  a: number;
  matrix: keyof typeof WEIGHTS;
  /** 0…255; otherwise 16…235, and 16…240 for colour */
  full: boolean;
}
/** A fetched frame at full size: straight 8-bit RGBA, or planes. */
export interface FetchedPicture {
  data: Uint8Array | Uint8ClampedArray;
  width: number;
  height: number;
  planes?: Planes;
}

/** What red and blue weigh in Y′. Source: ITU-R BT.709-6, BT.601-7, BT.2020-2. */
export const WEIGHTS = { bt709: [0.2126, 0.0722], bt601: [0.299, 0.114], bt2020: [0.2627, 0.0593] } as const;

/** What a step of each plane is in RGB 0…1: gain and black of Y′, Cr in red, Cb and Cr in green, Cb in blue. */
function matrixOf({ matrix, full }: Planes): number[] {
  const [red, blue] = WEIGHTS[matrix];
  const green = 1 - red - blue;
  const per = full ? 255 : 224;
  const [cr, cb] = [(2 * (1 - red)) / per, (2 * (1 - blue)) / per];
  return [1 / (full ? 255 : 219), full ? 0 : 16, cr, (-cb * blue) / green, (-cr * red) / green, cb];
}

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** A fetched frame as a picture, owned by the caller. @param reduction whole factor by which it is reduced with a box average */
export function pictureOf({ kernels, arena }: Tools, fetched: FetchedPicture, reduction: number): Picture {
  const { data, width, height, planes } = fetched;
  const [w, h] = [Math.ceil(width / reduction), Math.ceil(height / reduction)];
  const out = Picture.make(arena, { x: 0, y: 0, w, h });
  const room = planes ? 20 * width + 1024 : 0;
  // rows are read four values at a time, also the last one
  const behind = Math.ceil((data.length + 16) / 16) * 16;
  arena.scratch(behind + room, (at) => {
    arena.bytes(at, data.length).set(data);
    if (!planes) {
      if (reduction === 1) kernels.widen(at, out.at, width * height);
      else kernels.widenReduced(at, width, height, out.at, reduction);
      return;
    }
    const { u, v, a, step } = planes;
    const matrix = at + behind;
    arena.floats(matrix, 6).set(matrixOf(planes));
    kernels.fromYuv(at, at + u, at + v, a ? at + a : 0, width, height, step, reduction, matrix, out.at, matrix + 64);
  });
  return out;
}

/** A fetched frame as straight 8-bit RGBA. */
export function rgbaOf(tools: Tools, fetched: FetchedPicture): Uint8Array | Uint8ClampedArray {
  if (!fetched.planes) return fetched.data;
  const picture = pictureOf(tools, fetched, 1);
  const bytes = bytesOf(tools, picture);
  picture.release();
  return bytes;
}
