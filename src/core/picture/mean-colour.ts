import type { Colour } from '../params/define';
import type { Rect } from './rect';

/** Mean colour of straight RGBA bytes where they are covered, display-encoded 0…1. @param part whole pixels inside w×h, at least one each way */
export function meanColour(pixels: Uint8ClampedArray, w: number, part: Rect): Colour {
  const sum = [0, 0, 0];
  let covered = 0;
  for (let y = part.y; y < part.y + part.h; y++) {
    for (let i = (y * w + part.x) * 4, end = i + part.w * 4; i < end; i += 4) {
      const alpha = pixels[i + 3]!;
      for (let c = 0; c < 3; c++) sum[c]! += pixels[i + c]! * alpha;
      covered += alpha;
    }
  }
  return sum.map((v) => (covered ? v / covered / 255 : 0)) as unknown as Colour;
}
