// Planes whose every place is a formula of where it is.
import { softEdge } from './distance';

/** Solid on one side of a ramp between two places, w×h floats. @param (x, y) the plane's first place from the ramp's beginning @param (dx, dy) from its beginning to its end */
export function linearPlane(dst: usize, w: i32, h: i32, x: f32, y: f32, dx: f32, dy: f32, grow: f32, feather: f32): void {
  const long: f32 = max(sqrt(dx * dx + dy * dy), <f32>1e-6);
  const share: f32 = <f32>1 / (long + feather);
  for (let v = 0; v < h; v++) {
    for (let u = 0; u < w; u++, dst += 4) {
      const along = ((x + <f32>u + <f32>0.5) * dx + (y + <f32>v + <f32>0.5) * dy) / long;
      store<f32>(dst, min(max(<f32>0.5 + (long / 2 + grow - along) * share, <f32>0), <f32>1));
    }
  }
}

/** Solid on one side of a straight line through a place, w×h floats. @param (x, y) the plane's first place from there @param (c, s) the line's direction */
export function linePlane(dst: usize, w: i32, h: i32, x: f32, y: f32, c: f32, s: f32, grow: f32, feather: f32): void {
  for (let v = 0; v < h; v++) {
    for (let u = 0; u < w; u++, dst += 4) store<f32>(dst, softEdge((y + <f32>v + <f32>0.5) * c - (x + <f32>u + <f32>0.5) * s + grow, feather));
  }
}

/** Falls off from an inner ellipse to an outer one, w×h floats. @param (x, y) the plane's first place from their middle @param core size of the inner one, a share of the outer */
export function radialPlane(dst: usize, w: i32, h: i32, x: f32, y: f32, c: f32, s: f32, rx: f32, ry: f32, core: f32): void {
  for (let v = 0; v < h; v++) {
    for (let u = 0; u < w; u++, dst += 4) {
      const px = x + <f32>u + <f32>0.5;
      const py = y + <f32>v + <f32>0.5;
      const a = (px * c + py * s) / rx;
      const b = (py * c - px * s) / ry;
      const t = min(max((<f32>1 - sqrt(a * a + b * b)) / (<f32>1 - core), <f32>0), <f32>1);
      store<f32>(dst, t * t * (<f32>3 - <f32>2 * t));
    }
  }
}

/** The larger of what is there and a line with round ends, soft towards its rim, in the rectangle x0…x1, y0…y1 of a plane. Radii at both ends, hardness 0…1. */
export function capsule(plane: usize, w: i32, x0: i32, y0: i32, x1: i32, y1: i32, ax: f32, ay: f32, ar: f32, bx: f32, by: f32, br: f32, hardness: f32): void {
  const dx = bx - ax;
  const dy = by - ay;
  const long = dx * dx + dy * dy;
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const px = <f32>x + <f32>0.5 - ax;
      const py = <f32>y + <f32>0.5 - ay;
      const t = long > 0 ? min(max((px * dx + py * dy) / long, <f32>0), <f32>1) : <f32>0;
      const r = ar + (br - ar) * t;
      const ex = px - t * dx;
      const ey = py - t * dy;
      const soft = max(<f32>1, r * (<f32>1 - hardness));
      // a hard rim is one pixel wide about the radius; a soft one reaches inwards
      const v = min(max((r + <f32>0.5 - sqrt(ex * ex + ey * ey)) / soft, <f32>0), <f32>1);
      const smooth = soft > 1 ? v * v * (<f32>3 - <f32>2 * v) : v;
      const at = plane + (<usize>(y * w + x) << 2);
      if (smooth > load<f32>(at)) store<f32>(at, smooth);
    }
  }
}

/** A stroke joins those before it in a rectangle of w floats a row and is wiped. Two planes. */
export function joinStroke(plane: usize, own: usize, w: i32, x0: i32, y0: i32, x1: i32, y1: i32, opacity: f32, erase: i32): void {
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const at = <usize>(y * w + x) << 2;
      const a = load<f32>(own + at) * opacity;
      const v = load<f32>(plane + at);
      store<f32>(plane + at, erase ? v * (<f32>1 - a) : v + a - v * a);
      store<f32>(own + at, 0);
    }
  }
}

/** Bytes of a picture stretched over a place, w×h floats 0…1, straight between them. @param (x, y) the plane's first place in the picture @param (sx, sy) picture pixels for one of the plane */
export function stretchedPlane(src: usize, sw: i32, sh: i32, dst: usize, w: i32, h: i32, x: f32, y: f32, sx: f32, sy: f32): void {
  for (let j = 0; j < h; j++) {
    const v = min(max(y + (<f32>j + <f32>0.5) * sy - <f32>0.5, <f32>0), <f32>(sh - 1));
    const y0 = <i32>v;
    const fy = v - <f32>y0;
    const upper = src + y0 * sw;
    const lower = src + min(sh - 1, y0 + 1) * sw;
    for (let i = 0; i < w; i++, dst += 4) {
      const u = min(max(x + (<f32>i + <f32>0.5) * sx - <f32>0.5, <f32>0), <f32>(sw - 1));
      const x0 = <i32>u;
      const x1 = min(sw - 1, x0 + 1);
      const fx = u - <f32>x0;
      const a = <f32>load<u8>(upper + x0) * (<f32>1 - fx) + <f32>load<u8>(upper + x1) * fx;
      const b = <f32>load<u8>(lower + x0) * (<f32>1 - fx) + <f32>load<u8>(lower + x1) * fx;
      store<f32>(dst, (a + (b - a) * fy) / <f32>255);
    }
  }
}
