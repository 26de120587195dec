// Pictures as files and screens take them.
import type { Arena } from './arena';
import type { Kernels } from './kernels';
import type { Picture } from './picture';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** 8-bit straight RGBA of a picture. */
export function bytesOf({ kernels, arena }: Tools, { at, pixels }: Picture): Uint8ClampedArray<ArrayBuffer> {
  const length = pixels * 4;
  return arena.scratch(length, (to) => {
    kernels.narrow(at, to, pixels);
    return arena.bytes(to, length).slice();
  });
}

/** 8-bit Y′CbCr of a picture: BT.709, limited range, planes of luma, of both chromas at half size, and of alpha when asked for. */
export function yuvOf(
  { kernels, arena }: Tools,
  { at, rect: { w, h } }: Picture,
  alpha: boolean,
): Uint8Array<ArrayBuffer> {
  const [luma, chroma] = [w * h, Math.ceil(w / 2) * Math.ceil(h / 2)];
  const length = luma + 2 * chroma + (alpha ? luma : 0);
  return arena.scratch(length, (to) => {
    kernels.toYuv(at, w, h, to, to + luma, to + luma + chroma, alpha ? to + luma + 2 * chroma : 0);
    return new Uint8Array(arena.bytes(to, length));
  });
}
