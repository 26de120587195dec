// Closed figures about the origin, as rings.
import type { Point, Ring } from './path';

/** Corners of a figure on an ellipse of this size, the first one up, clockwise. @param inner how far every second corner is, 0…1; 1 leaves them out */
export function cornersRing([w, h]: Point, count: number, inner = 1): Ring {
  const corners = Math.max(3, Math.round(count));
  const all = inner < 1 ? 2 * corners : corners;
  return Float64Array.from({ length: 2 * all }, (_, k) => {
    const i = k >> 1;
    const far = inner < 1 && i % 2 ? inner : 1;
    const turn = (2 * Math.PI * i) / all - Math.PI / 2;
    return (far * (k % 2 ? Math.sin(turn) * h : Math.cos(turn) * w)) / 2;
  });
}

/** An arrow that points right, as long and as high as said. @param head its length, as a share of the height @param shaft its thickness, as a share of the height */
export function arrowRing([w, h]: Point, head: number, shaft: number): Ring {
  const neck = Math.max(-w / 2, w / 2 - head * h);
  const [thin, wide] = [(shaft * h) / 2, h / 2];
  return Float64Array.of(-w / 2, -thin, neck, -thin, neck, -wide, w / 2, 0, neck, wide, neck, thin, -w / 2, thin);
}
