import type { Point } from './path';

/** Points are x, y and pressure 0…1; sizes are diameters in source pixels. */
export interface PlainStroke {
  points: readonly (readonly [number, number, number])[];
  size: number;
  hardness: number;
  opacity: number;
  erase: boolean;
}

/**
 * Paints strokes over each other: one stroke covers evenly however often it crosses itself; erasing takes away.
 * @param origin of the strokes' coordinates in the plane @returns w×h floats 0…1
 */
export function paintStrokes(
  strokes: readonly PlainStroke[],
  scale: number,
  origin: Point,
  w: number,
  h: number,
): Float32Array {
  const out = new Float32Array(w * h);
  const own = new Float32Array(w * h);
  for (const stroke of strokes) {
    const points = stroke.points.map(
      ([x, y, pressure]) =>
        [x * scale + origin[0], y * scale + origin[1], (Math.max(0.05, pressure) * stroke.size * scale) / 2] as const,
    );
    const touched = { x0: w, y0: h, x1: 0, y1: 0 };
    points.forEach((to, i) => capsule(own, w, h, points[Math.max(0, i - 1)]!, to, stroke.hardness, touched));
    for (let y = touched.y0; y < touched.y1; y++) {
      for (let at = y * w + touched.x0; at < y * w + touched.x1; at++) {
        const a = own[at]! * stroke.opacity;
        out[at] = stroke.erase ? out[at]! * (1 - a) : out[at]! + a - out[at]! * a;
        own[at] = 0;
      }
    }
  }
  return out;
}

type Dab = readonly [x: number, y: number, radius: number];
/** The larger of what is there and a line with round ends, soft towards its rim. */
function capsule(
  plane: Float32Array,
  w: number,
  h: number,
  [ax, ay, ar]: Dab,
  [bx, by, br]: Dab,
  hardness: number,
  touched: { x0: number; y0: number; x1: number; y1: number },
): void {
  const most = Math.max(ar, br) + 1;
  const [x0, x1] = [Math.max(0, Math.floor(Math.min(ax, bx) - most)), Math.min(w, Math.ceil(Math.max(ax, bx) + most))];
  const [y0, y1] = [Math.max(0, Math.floor(Math.min(ay, by) - most)), Math.min(h, Math.ceil(Math.max(ay, by) + most))];
  if (x0 >= x1 || y0 >= y1) return;
  touched.x0 = Math.min(touched.x0, x0);
  touched.y0 = Math.min(touched.y0, y0);
  touched.x1 = Math.max(touched.x1, x1);
  touched.y1 = Math.max(touched.y1, y1);
  const [dx, dy] = [bx - ax, by - ay];
  const long = dx * dx + dy * dy;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const [px, py] = [x + 0.5 - ax, y + 0.5 - ay];
      const t = long > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / long)) : 0;
      const r = ar + (br - ar) * t;
      const d = Math.hypot(px - t * dx, py - t * dy);
      const soft = Math.max(1, r * (1 - hardness));
      // a hard rim is one pixel wide about the radius; a soft one reaches inwards
      const v = Math.min(1, Math.max(0, (r + 0.5 - d) / soft));
      const at = y * w + x;
      const smooth = soft > 1 ? v * v * (3 - 2 * v) : v;
      if (smooth > plane[at]!) plane[at] = smooth;
    }
  }
}
