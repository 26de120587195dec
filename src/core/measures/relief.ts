// Coverage as a landscape: shaded height with contour lines.

/** Tones of the lowest and the highest ground, and of contour lines, RGB 0…255. */
export const GROUND = { clear: [38, 46, 54], solid: [226, 216, 192], contour: [126, 84, 24] } as const;
/** Heights with a contour line, in 255ths. */
const CONTOURS = [26, 128, 229];
/** A slope of this many 255ths a pixel is shaded half as much as the steepest. */
const HALF = 24;
/** Most that a slope takes off the light or adds to it. */
const SHADE = 0.45;

/** Paints a matte with light from the upper left. @param alpha w×h values 0…255 @returns opaque RGBA */
export function reliefPicture(alpha: Uint8Array, w: number, h: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(alpha.length * 4);
  // the contour between two heights, 0 when there is none
  const bands = new Uint8Array(256);
  for (let v = 0; v < 256; v++) bands[v] = CONTOURS.filter((level) => v >= level).length;
  for (let y = 0, i = 0; y < h; y++) {
    const [above, below] = [y > 0 ? -w : 0, y < h - 1 ? w : 0];
    for (let x = 0; x < w; x++, i++) {
      const own = alpha[i]!;
      const [left, right] = [alpha[x > 0 ? i - 1 : i]!, alpha[x < w - 1 ? i + 1 : i]!];
      const slope = (right - left + alpha[i + below]! - alpha[i + above]!) / 2;
      const light = 1 + (SHADE * slope) / (Math.abs(slope) + HALF);
      const line = bands[own] !== bands[right] || bands[own] !== bands[alpha[i + below]!];
      for (let c = 0; c < 3; c++) {
        const ground = GROUND.clear[c]! + ((GROUND.solid[c]! - GROUND.clear[c]!) * own) / 255;
        out[i * 4 + c] = line ? (GROUND.contour[c]! + ground) / 2 : ground * light;
      }
      out[i * 4 + 3] = 255;
    }
  }
  return out;
}
