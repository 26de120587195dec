import type { Still } from './images';

/** Turns and mirrors RGBA as a file asks for. @param rotation degrees clockwise, a multiple of 90 @param flip mirrored sideways after the turn */
export function upright({ data, width, height }: Still, rotation: number, flip: boolean): Still {
  const turns = ((Math.round(rotation / 90) % 4) + 4) % 4;
  if (!turns && !flip) return { data, width, height };
  const [w, h] = turns % 2 ? [height, width] : [width, height];
  const out = new Uint8ClampedArray(data.length);
  const [from, to] = [new Uint32Array(data.buffer, data.byteOffset, width * height), new Uint32Array(out.buffer)];
  for (let y = 0, at = 0; y < h; y++) {
    for (let i = 0; i < w; i++, at++) {
      const x = flip ? w - 1 - i : i;
      const [u, v] =
        turns === 0
          ? [x, y]
          : turns === 1
            ? [y, height - 1 - x]
            : turns === 2
              ? [width - 1 - x, height - 1 - y]
              : [width - 1 - y, x];
      to[at] = from[v * width + u]!;
    }
  }
  return { data: out, width: w, height: h };
}
